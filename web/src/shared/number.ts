/** Figures as people type them: a comma for the point, a fraction of an inch, a unit behind it. */

/** What stands in a field for a number. */
export type Typed =
  | { is: "empty" }
  /** On its way to being one: "-", "2,", "3/". */
  | { is: "unfinished" }
  /** `unit` as typed behind it; a fraction or an inch mark means inches. */
  | { is: "number"; value: number; unit: "mm" | "in" | null }
  | { is: "nonsense" };

const UNITS: Record<string, "mm" | "in"> = { mm: "mm", in: "in", '"': "in", "''": "in", "″": "in" };
const NUMBER = /^([+-]?)(\d*)(?:[.,](\d*))?$/;
const FRACTION = /^([+-]?)(?:(\d+)[ -])?(\d+)\/(\d*)$/;

export function readNumber(typed: string): Typed {
  let text = typed.trim().toLowerCase().replaceAll("−", "-");
  if (text === "") return { is: "empty" };
  const behind = /\s*(mm|in|"|''|″)$/.exec(text);
  const unit = behind ? (UNITS[behind[1] ?? ""] ?? null) : null;
  if (behind) text = text.slice(0, behind.index);
  const fraction = FRACTION.exec(text);
  if (fraction) {
    const [, sign, whole, above, below] = fraction;
    if (below === "") return { is: "unfinished" };
    if (Number(below) === 0) return { is: "nonsense" };
    const value = Number(whole ?? 0) + Number(above) / Number(below);
    return { is: "number", value: sign === "-" ? -value : value, unit: unit ?? "in" };
  }
  const plain = NUMBER.exec(text);
  // "1 3" may become 1 3/16.
  if (!plain) return /^[+-]?\d+[ -](\d{1,2})?$/.test(text) ? { is: "unfinished" } : { is: "nonsense" };
  const [, sign, whole, part] = plain;
  if (!whole && !part) return { is: "unfinished" };
  const value = Number(`${whole || 0}.${part || 0}`);
  return { is: "number", value: sign === "-" ? -value : value, unit };
}

/** The plain number that was typed; not one while it is none. */
export function numberOf(typed: string): number {
  const read = readNumber(typed);
  return read.is === "number" ? read.value : Number.NaN;
}
