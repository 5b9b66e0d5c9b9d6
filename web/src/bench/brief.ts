/** A drag asks only for what moves with it: the rest of the last whole answer stays. */
import type { Bench, Schemas } from "../api/client";

type Brief = Schemas["BenchBrief"];

/** Each of the things that stood before with what moved of it, by its key; nothing when they are not the same things any more. */
function moved<Thing, Moved>(
  before: Thing[],
  now: Moved[],
  keyOf: (one: Thing | Moved) => string,
): (Thing & Moved)[] | null {
  const byKey = new Map(now.map((one) => [keyOf(one), one]));
  const all = before.flatMap((one) => {
    const found = byKey.get(keyOf(one));
    return found ? [{ ...one, ...found }] : [];
  });
  return all.length === before.length && byKey.size === before.length ? all : null;
}

type OfLine = { code: string; axle?: string | null };
type OfPart = { feature: string };

/** The last whole answer with what moved put in; nothing when more changed than figures, and the whole must be asked. */
export function withBrief(bench: Bench, brief: Brief): Bench | null {
  const lines = moved(bench.ledger, brief.ledger, (one: OfLine) => `${one.code} ${one.axle ?? ""}`);
  if (!lines) return null;
  // A sentence belongs to its word: beside another word nothing is said until the whole is there again.
  const ledger = lines.map((line, at) =>
    line.word === bench.ledger[at]?.word ? line : { ...line, says: [] },
  );
  const axle = (of: "front" | "rear") => {
    const [before, now] = [bench.axles[of], brief.axles[of]];
    if (!before.fit || !now) return before.fit || now ? null : before;
    const clearances = moved(before.fit.clearances, now.clearances, (one: OfPart) => one.feature);
    return clearances && { ...before, fit: { ...before.fit, ...now, clearances } };
  };
  const [front, rear] = [axle("front"), axle("rear")];
  if (!front || !rear) return null;
  const conditions = bench.headline.causes.filter((cause) => cause.kind === "condition");
  const headline = { ...brief.headline, causes: [...brief.headline.causes, ...conditions] };
  return { ...bench, headline, work: brief.work, ledger, axles: { front, rear } };
}
