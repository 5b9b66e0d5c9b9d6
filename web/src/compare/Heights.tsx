import type { Axle, Column } from "../api/client";
import { formatLength, inWords, useUnits } from "../shared/units";

type Shown = { title: string; column: Column; isFitted: boolean };
type Props = { axle: Axle; shown: Shown[] };

const WIDTH = 470;
const HEIGHT = 168;
const ARCS = { left: 196, top: 20, bottom: HEIGHT - 22 };
/** How much of the tires below their crowns is drawn, in millimetres. */
const BELOW_MM = 60;
const LABEL_PX = 15;

/** Label heights with room between them, each as near to its own as that leaves. */
export function spread(wanted: number[], room: number, top: number, bottom: number): number[] {
  const order = wanted.map((_, at) => at).sort((a, b) => (wanted[a] ?? 0) - (wanted[b] ?? 0));
  const placed = [...wanted];
  let last = top - room;
  for (const at of order) {
    last = Math.max(last + room, wanted[at] ?? 0);
    placed[at] = last;
  }
  let next = bottom + room;
  for (const at of [...order].reverse()) {
    next = Math.min(next - room, placed[at] ?? 0);
    placed[at] = next;
  }
  return placed;
}

/**
 * Crowns over one ground: every setup of an axle stands on the same spot, so the tires nest, and the upper quarter of
 * each is drawn from its crown outward; a staff names the heights. What is fitted is the phantom.
 */
export function Heights({ axle, shown }: Props) {
  const { units } = useUnits();
  const there = shown.flatMap(({ title, column, isFitted }) => {
    const height = column.setups[axle]?.overall_diameter_mm;
    return height == null ? [] : [{ title, isFitted, height }];
  });
  const words = there.map(({ title, height }) => `${title} ${inWords(formatLength(height, units))}`);
  if (there.length === 0) return <p className="text-small">No tire of this axle is stated.</p>;
  const heights = there.map(({ height }) => height);
  const [low, high] = [Math.min(...heights) - BELOW_MM, Math.max(...heights)];
  const k = (ARCS.bottom - ARCS.top) / (high - low);
  const y = (mm: number) => ARCS.top + (high - mm) * k;
  const labels = spread(heights.map(y), LABEL_PX, ARCS.top, ARCS.bottom);
  const ticks = Array.from(
    { length: Math.floor((high - low) / 10) + 1 },
    (_, at) => Math.ceil(low / 10) * 10 + at * 10,
  );
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="drawing block w-full"
      role="img"
      aria-label={`Heights over the ground, ${axle}: ${words.join(", ")}`}
    >
      <text x="10" y={HEIGHT - 7} className="note">
        {axle.toUpperCase()} · crowns over one ground
      </text>
      <line
        x1={ARCS.left}
        x2={ARCS.left}
        y1={ARCS.top - 8}
        y2={ARCS.bottom}
        stroke="var(--scribe)"
        strokeWidth="1.4"
      />
      {ticks
        .filter((mm) => mm <= high)
        .map((mm) => (
          <line
            key={mm}
            x1={ARCS.left - (mm % 50 === 0 ? 9 : 4)}
            x2={ARCS.left}
            y1={y(mm)}
            y2={y(mm)}
            stroke="var(--scribe)"
            strokeWidth="0.8"
          />
        ))}
      {there.map(({ title, isFitted, height }, at) => {
        const radius = height / 2;
        const across = Math.sqrt(Math.max(0, radius ** 2 - (low - radius) ** 2));
        const end = ARCS.left + Math.min(across * k, WIDTH - ARCS.left - 8);
        // Where the sheet ends before the arc does, it is cut there.
        const cut = (end - ARCS.left) / k;
        const endY = y(radius + Math.sqrt(Math.max(0, radius ** 2 - cut ** 2)));
        const label = labels[at] ?? y(height);
        return (
          <g key={title} data-height={title}>
            <path
              d={`M${ARCS.left} ${y(height)}A${radius * k} ${radius * k} 0 0 1 ${end} ${endY}`}
              fill="none"
              className={isFitted ? "phantom" : undefined}
              stroke={isFitted ? undefined : "var(--scribe)"}
              strokeWidth={isFitted ? undefined : 1.8}
            />
            <path
              d={`M${ARCS.left} ${y(height)}L${ARCS.left - 14} ${label}H${ARCS.left - 20}`}
              fill="none"
              stroke="var(--scribe)"
              strokeWidth="0.7"
            />
            <text x={ARCS.left - 24} y={label + 4} textAnchor="end" className="note">
              {isFitted ? "fitted" : title} {inWords(formatLength(height, units))}
            </text>
          </g>
        );
      })}
      <text x={ARCS.left} y={HEIGHT - 7} className="note">
        lower part left out; marks every 10 mm
      </text>
    </svg>
  );
}
