import type { Schemas } from "../api/client";

type Tire = Schemas["TireLog"];

const PLOT = { width: 560, height: 130, left: 34, bottom: 22, top: 10 };

/** Depths over what was driven, a line for each place of the tread. */
export function SeasonPlot({
  readings,
  leftOut,
  limit,
}: {
  readings: NonNullable<Tire["readings"]>;
  leftOut: number[];
  limit: number;
}) {
  const driven = readings.map((one) => one.runs ?? one.distance_km ?? 0);
  const most = Math.max(1, ...driven);
  const deepest = Math.max(...readings.flatMap((one) => [one.inner_mm, one.middle_mm, one.outer_mm]), 2);
  const x = (at: number) => PLOT.left + (at / most) * (PLOT.width - PLOT.left - 10);
  const y = (mm: number) =>
    PLOT.height - PLOT.bottom - (mm / deepest) * (PLOT.height - PLOT.bottom - PLOT.top);
  const kept = readings.flatMap((one, at) => (leftOut.includes(at) ? [] : [{ one, at: driven[at] ?? 0 }]));
  const line = (of: (one: (typeof readings)[number]) => number) =>
    kept
      .map(({ one, at }, index) => `${index === 0 ? "M" : "L"}${x(at).toFixed(1)} ${y(of(one)).toFixed(1)}`)
      .join("");
  return (
    <svg
      className="drawing mt-1 block w-full"
      viewBox={`0 0 ${PLOT.width} ${PLOT.height}`}
      role="img"
      aria-label="Depths at inner, middle and outer over what was driven"
    >
      <path d={`M${PLOT.left} ${y(limit)}H${PLOT.width - 10}`} stroke="var(--brass)" strokeDasharray="6 4" />
      <text className="note" x={PLOT.left - 4} y={y(deepest) + 8} textAnchor="end">
        {deepest.toFixed(1)}
      </text>
      <text className="note" x={PLOT.width - 10} y={PLOT.height - 3} textAnchor="end">
        {most} driven
      </text>
      <path
        d={line((one) => (one.turned_over ? one.outer_mm : one.inner_mm))}
        fill="none"
        stroke="var(--scribe)"
        strokeWidth="2"
      />
      <path
        d={line((one) => one.middle_mm)}
        fill="none"
        stroke="var(--scribe)"
        strokeWidth="1.4"
        strokeDasharray="7 4"
      />
      <path
        d={line((one) => (one.turned_over ? one.inner_mm : one.outer_mm))}
        fill="none"
        stroke="var(--scribe)"
        strokeWidth="1.4"
        strokeDasharray="2 3"
      />
      <text className="note" x={PLOT.left + 6} y={PLOT.height - 3}>
        inner solid · middle dashed · outer dotted
      </text>
    </svg>
  );
}
