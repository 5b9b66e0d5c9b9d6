import type { Column, SetupView } from "../api/client";

type Props = { column: Column; fitted: Column; columns: Column[] };

const HEIGHT = 132;
const WIDTH = 210;
const GROUND = HEIGHT - 16;

const diameters = (column: Column) =>
  [column.setups.front, column.setups.rear].map((setup) => setup?.overall_diameter_mm ?? 0);

/**
 * A setup from the side, standing on the ground: the rear wheel behind the front one, as one walks up to the
 * car. Every column has the same scale, and the fitted heights run through them all as chain lines.
 */
export function Silhouettes({ column, fitted, columns }: Props) {
  const tallest = Math.max(1, ...columns.flatMap(diameters));
  const k = (GROUND - 10) / tallest;
  const { front, rear } = column.setups;
  const [oldFront = 0, oldRear = 0] = diameters(fitted);
  const words = [front, rear].map(
    (setup, at) =>
      `${at === 0 ? "front" : "rear"} ${setup?.overall_diameter_mm?.toFixed(1) ?? "not known"} mm`,
  );
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block h-[150px] w-full"
      preserveAspectRatio="xMidYMax meet"
      role="img"
      aria-label={`Side view: ${words.join(", ")}`}
    >
      <line x1="0" x2={WIDTH} y1={GROUND} y2={GROUND} stroke="currentColor" strokeWidth="1.4" />
      {rear && <Wheel setup={rear} x={WIDTH * 0.66} k={k} className="fill-secondary" />}
      {front && <Wheel setup={front} x={WIDTH * 0.36} k={k} className="fill-primary" />}
      {[oldFront, oldRear]
        .filter((height, at, both) => height > 0 && both.indexOf(height) === at)
        .map((height) => (
          <line
            key={height}
            x1="0"
            x2={WIDTH}
            y1={GROUND - height * k}
            y2={GROUND - height * k}
            className="stroke-accent"
            strokeWidth="1.2"
            strokeDasharray="10 3 2 3"
          />
        ))}
      <text x={WIDTH * 0.36} y={HEIGHT - 3} textAnchor="middle" fontSize="11" fill="currentColor">
        front
      </text>
      <text x={WIDTH * 0.66} y={HEIGHT - 3} textAnchor="middle" fontSize="11" fill="currentColor">
        rear
      </text>
    </svg>
  );
}

function Wheel({ setup, x, k, className }: { setup: SetupView; x: number; k: number; className: string }) {
  const outer = ((setup.overall_diameter_mm ?? 0) / 2) * k;
  const rim = ((setup.rim_diameter_mm ?? 0) / 2) * k;
  const center = GROUND - outer;
  const spokes = [0, 1, 2, 3, 4].map((n) => -90 + n * 72);
  return (
    <g>
      <circle
        cx={x}
        cy={center}
        r={outer}
        className={className}
        stroke="var(--color-base-100)"
        strokeWidth="1.5"
      />
      <circle cx={x} cy={center} r={rim} className="fill-base-100" />
      {spokes.map((turn) => (
        <path
          key={turn}
          className={className}
          d={`M-2.2 0L-3.4 ${rim}H3.4L2.2 0Z`}
          transform={`translate(${x} ${center}) rotate(${turn + 180})`}
        />
      ))}
      <circle cx={x} cy={center} r={rim * 0.17} className={className} />
    </g>
  );
}
