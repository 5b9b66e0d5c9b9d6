import type { Schemas } from "../api/client";

type Tire = Schemas["TireLog"];

const PLOT = { width: 1100, height: 170, left: 44, right: 60, bottom: 24, top: 12 };
const STROKES: Record<string, { dash?: string; width: number }> = {
  fl: { width: 2.2 },
  fr: { width: 2.2, dash: "9 4" },
  rr: { width: 1.4, dash: "5 3" },
  rl: { width: 1.4 },
};

/** The four on the car together: the least depth of each over what it was driven. */
export function SetPlot({ tires, limit }: { tires: Tire[]; limit: number }) {
  const lines = tires.map((tire) => ({
    position: tire.position,
    points: (tire.readings ?? []).map((one) => ({
      at: one.runs ?? one.distance_km ?? 0,
      mm: Math.min(one.inner_mm, one.middle_mm, one.outer_mm),
    })),
  }));
  const all = lines.flatMap(({ points }) => points);
  if (all.length === 0) return null;
  const most = Math.max(1, ...all.map(({ at }) => at));
  const deepest = Math.max(2, ...all.map(({ mm }) => mm));
  const x = (at: number) => PLOT.left + (at / most) * (PLOT.width - PLOT.left - PLOT.right);
  const y = (mm: number) =>
    PLOT.height - PLOT.bottom - (mm / deepest) * (PLOT.height - PLOT.bottom - PLOT.top);
  // Names at the lines' ends stand apart, however near the ends are.
  const ends = lines
    .flatMap(({ position, points }) => {
      const last = points.at(-1);
      return last ? [{ position, x: x(last.at), y: y(last.mm) }] : [];
    })
    .toSorted((a, b) => a.y - b.y);
  for (const [at, end] of ends.entries()) {
    const above = ends[at - 1];
    if (above) end.y = Math.max(end.y, above.y + 14);
  }
  return (
    <svg
      className="drawing block w-full max-w-[1100px]"
      viewBox={`0 0 ${PLOT.width} ${PLOT.height}`}
      role="img"
      aria-label="Least depth of the four tires over what they were driven"
      data-set-plot
    >
      <path
        d={`M${PLOT.left} ${y(limit)}H${PLOT.width - PLOT.right}`}
        stroke="var(--brass)"
        strokeDasharray="6 4"
      />
      <text className="note" x={PLOT.left - 5} y={y(deepest) + 5} textAnchor="end">
        {deepest.toFixed(1)}
      </text>
      <text className="note" x={PLOT.left - 5} y={y(limit) + 5} textAnchor="end">
        {limit.toFixed(1)}
      </text>
      <text className="note" x={PLOT.left} y={PLOT.height - 4}>
        least depth, mm
      </text>
      <text className="note" x={PLOT.width - PLOT.right} y={PLOT.height - 4} textAnchor="end">
        {most} driven
      </text>
      {lines.map(({ position, points }) => (
        <path
          key={position}
          d={points
            .map(({ at, mm }, index) => `${index === 0 ? "M" : "L"}${x(at).toFixed(1)} ${y(mm).toFixed(1)}`)
            .join("")}
          fill="none"
          stroke="var(--scribe)"
          strokeWidth={STROKES[position]?.width}
          strokeDasharray={STROKES[position]?.dash}
        />
      ))}
      {ends.map((end) => (
        <text key={end.position} className="note" x={end.x + 6} y={end.y + 5}>
          {end.position}
        </text>
      ))}
    </svg>
  );
}
