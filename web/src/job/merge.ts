/**
 * Two versions of one job brought together, field by field, and the refused fields left out of one. Pure: the saving
 * machine asks, and its tests ask the same.
 */

type Thing = Record<string, unknown>;

export const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

const isThing = (value: unknown): value is Thing =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** What tells the members of a job's lists apart: a trial's id, a candidate's letter, a fact and its axle. */
export function identity(member: unknown): string | null {
  if (!isThing(member)) return null;
  const { id, letter, fact, axle } = member;
  const named = id ?? letter ?? (fact === undefined ? null : `${fact} ${axle ?? ""}`);
  return named == null ? null : String(named);
}

/** A list by its members' identities; nothing when they have none or share one. */
function byIdentity(list: unknown): Map<string, unknown> | null {
  if (!Array.isArray(list)) return null;
  const members = new Map<string, unknown>();
  for (const member of list) {
    const name = identity(member);
    if (name === null || members.has(name)) return null;
    members.set(name, member);
  }
  return members;
}

export type Merged<T> = {
  /** Both changes; where they meet in one field, mine. */
  content: T;
  /** The fields in which they meet, as paths. */
  conflicts: string[];
};

/** What both sides made of a common beginning. */
export function merge<T>(base: T, mine: T, theirs: T): Merged<T> {
  const conflicts: string[] = [];
  const content = merged(base, mine, theirs, "", conflicts) as T;
  return { content, conflicts };
}

function merged(base: unknown, mine: unknown, theirs: unknown, path: string, conflicts: string[]): unknown {
  if (same(mine, base)) return theirs;
  if (same(theirs, base) || same(mine, theirs)) return mine;
  if (isThing(mine) && isThing(theirs)) {
    const before = isThing(base) ? base : {};
    const names = new Set([...Object.keys(theirs), ...Object.keys(mine)]);
    const made: Thing = {};
    for (const name of names) {
      const value = merged(before[name], mine[name], theirs[name], `${path}/${name}`, conflicts);
      if (value !== undefined) made[name] = value;
    }
    return made;
  }
  const lists = [byIdentity(base ?? []), byIdentity(mine), byIdentity(theirs)];
  const [before, ours, others] = lists;
  if (before && ours && others) {
    const names = new Set([...others.keys(), ...ours.keys()]);
    return [...names].flatMap((name) => {
      const member = merged(before.get(name), ours.get(name), others.get(name), `${path}/${name}`, conflicts);
      return member === undefined ? [] : [member];
    });
  }
  conflicts.push(path);
  return mine;
}

/** A pointer into what was sent with the places in lists replaced by their members' names: it stays right when they move. */
export function lastingPointer(sent: unknown, pointer: string): string {
  let at = sent;
  const steps = pointer.split("/").slice(1);
  const lasting = steps.map((step) => {
    const inside = (at as Thing | null | undefined)?.[step];
    const name = Array.isArray(at) ? (identity(inside) ?? step) : step;
    at = inside;
    return name;
  });
  return ["", ...lasting].join("/");
}

/** What stands at a lasting pointer. */
export function at(content: unknown, pointer: string): unknown {
  return pointer
    .split("/")
    .slice(1)
    .reduce<unknown>((inside, step) => {
      if (Array.isArray(inside)) {
        return inside.find((member, place) => (identity(member) ?? String(place)) === step);
      }
      return (inside as Thing | null | undefined)?.[step];
    }, content);
}

/**
 * What was sent without the fields that were refused: in their place stands what the program has. Nothing when the
 * refusal names no field of it. The pointers are lasting ones ([`lastingPointer`]).
 */
export function withoutRefused<T extends object>(sent: T, base: T, pointers: string[]): T | null {
  const paths = pointers.map((pointer) => pointer.split("/").slice(1));
  const known = paths.filter(([name]) => name !== undefined && name in sent);
  if (known.length === 0 || known.length < paths.length) return null;
  const held = heldBack(sent, base, known) as T;
  return same(held, sent) ? null : held;
}

function heldBack(value: unknown, base: unknown, paths: string[][]): unknown {
  if (paths.some((path) => path.length === 0)) return base;
  const under = (name: string) => paths.filter((path) => path[0] === name).map((path) => path.slice(1));
  if (Array.isArray(value)) {
    const kept = byIdentity(base ?? []);
    return value.flatMap((member, at) => {
      const name = identity(member) ?? String(at);
      if (under(name).length === 0) return [member];
      const before = kept?.get(name);
      return before === undefined ? [] : [before];
    });
  }
  if (!isThing(value)) return base;
  const before = isThing(base) ? base : {};
  const made: Thing = { ...value };
  for (const name of new Set(paths.map((path) => path[0] ?? ""))) {
    made[name] = heldBack(value[name], before[name], under(name));
  }
  return made;
}
