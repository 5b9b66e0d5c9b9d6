/** A drag asks only for what moves with it: the rest of the last whole answer stays. */
import type { Bench, Schemas } from "../api/client";

type Brief = Schemas["BenchBrief"];

/** The last whole answer with what moved put in; nothing when more changed than figures, and the whole must be asked. */
export function withBrief(bench: Bench, brief: Brief): Bench | null {
  const lines = brief.ledger.map((line, at) => {
    const before = bench.ledger[at];
    return before && before.code === line.code && (before.axle ?? null) === (line.axle ?? null)
      ? { ...before, standing: line.standing, word: line.word, figure: line.figure }
      : null;
  });
  const ledger = lines.filter((line) => line !== null);
  if (ledger.length !== bench.ledger.length || lines.includes(null)) return null;
  const axle = (of: "front" | "rear") => {
    const [before, moved] = [bench.axles[of], brief.axles[of]];
    if (!before.fit || !moved) return before.fit || moved ? null : before;
    const clearances = before.fit.clearances.map((one, at) => {
      const line = moved.clearances[at];
      return line && line.feature === one.feature ? { ...one, ...line } : null;
    });
    const kept = clearances.filter((one) => one !== null);
    if (kept.length !== moved.clearances.length || clearances.includes(null)) return null;
    const { verdict, style, camber_deg, window, window_says } = moved;
    const fit = { ...before.fit, verdict, style, camber_deg, window, window_says, clearances: kept };
    return { ...before, fit };
  };
  const [front, rear] = [axle("front"), axle("rear")];
  if (!front || !rear) return null;
  return { ...bench, headline: brief.headline, work: brief.work, ledger, axles: { front, rear } };
}
