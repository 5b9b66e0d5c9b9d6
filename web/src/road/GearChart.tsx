import type { Schemas } from "../api/client";
import { formatSpeed, inWords, useUnits } from "../shared/units";

type Gearing = Schemas["RoadView"];
type Props = { before: Gearing; after: Gearing; limiter: number };

const WIDTH = 470;
const HEIGHT = 250;
const ROOM = { left: 66, right: 14, top: 14, bottom: 40 };

/** Speed over engine speed in every gear: the planned tire solid, the reference tire as a chain line. */
export function GearChart({ before, after, limiter }: Props) {
  const { units } = useUnits();
  const most = Math.max(
    ...before.gears.map((one) => one.limiter_kmh),
    ...after.gears.map((one) => one.limiter_kmh),
  );
  const x = (rpm: number) => ROOM.left + (rpm / limiter) * (WIDTH - ROOM.left - ROOM.right);
  const y = (kmh: number) => HEIGHT - ROOM.bottom - (kmh / most) * (HEIGHT - ROOM.top - ROOM.bottom);
  const step = most > 160 ? 50 : 25;
  const speeds = Array.from({ length: Math.floor(most / step) }, (_, at) => (at + 1) * step);
  const turns = Array.from({ length: Math.floor(limiter / 1000) }, (_, at) => (at + 1) * 1000);
  return (
    <svg
      className="drawing block"
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label="Speed over engine speed in every gear, planned tire against reference tire"
      data-gear-chart
    >
      {speeds.map((kmh) => (
        <g key={kmh}>
          <path className="grid" d={`M${ROOM.left} ${y(kmh)}H${WIDTH - ROOM.right}`} />
          <text className="note" x={ROOM.left - 6} y={y(kmh) + 4} textAnchor="end">
            {inWords(formatSpeed(kmh, units))}
          </text>
        </g>
      ))}
      {turns.map((rpm) => (
        <text key={rpm} className="note" x={x(rpm)} y={HEIGHT - 16} textAnchor="middle">
          {rpm / 1000}
        </text>
      ))}
      <text className="note" x={WIDTH - ROOM.right} y={HEIGHT - 3} textAnchor="end">
        thousand turns a minute
      </text>
      {after.gears.map((gear, at) => (
        <g key={gear.ratio}>
          <path
            className="phantom"
            d={`M${x(0)} ${y(0)}L${x(limiter)} ${y(before.gears[at]?.limiter_kmh ?? 0)}`}
          />
          <path
            d={`M${x(0)} ${y(0)}L${x(limiter)} ${y(gear.limiter_kmh)}`}
            stroke="var(--brass)"
            strokeWidth="2"
            fill="none"
          />
          <text className="note" x={x(limiter) - 6} y={y(gear.limiter_kmh) - 4} textAnchor="end">
            {at + 1}
          </text>
        </g>
      ))}
      <path
        d={`M${ROOM.left} ${ROOM.top}V${HEIGHT - ROOM.bottom}H${WIDTH - ROOM.right}`}
        fill="none"
        stroke="var(--scribe)"
      />
    </svg>
  );
}
