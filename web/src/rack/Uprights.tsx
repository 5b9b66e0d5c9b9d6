import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, percent, useUnits } from "../shared/units";

type Rung = Schemas["RungView"];
type Props = { ladder: Schemas["LadderView"]; rungs: Rung[]; marked: Rung };

const MOST = 7;

/** One size of each rim code, smallest rim first: what can be ordered, then what is nearest to the marked one. */
export function uprights(sizes: Rung[], marked: Rung): Rung[] {
  const far = (rung: Rung) =>
    ((rung.tires_that_carry ?? rung.tires_in_catalogue) > 0 ? 0 : 1000) +
    Math.abs(rung.section_width_mm - marked.section_width_mm);
  const byRim = new Map<number, Rung>();
  for (const rung of sizes) {
    const known = byRim.get(rung.plus_in);
    if (!known || far(rung) < far(known)) byRim.set(rung.plus_in, rung);
  }
  byRim.set(marked.plus_in, marked);
  const order = [...byRim.values()].sort((a, b) => a.plus_in - b.plus_in);
  const at = order.indexOf(marked);
  const from = Math.max(0, Math.min(at - (MOST >> 1), order.length - MOST));
  return order.slice(from, from + MOST);
}

const WIDTH = 420;
const HEIGHT = 320;
const HUB = 286;

/** Upper halves of tires cut through the axle, all on one hub line and to one scale, under the arch as it was read. */
export function Uprights({ ladder, rungs, marked }: Props) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  const arch = ladder.arch_above_hub_mm ?? null;
  const tallest = Math.max(arch ?? 0, ...rungs.map((rung) => rung.overall_diameter_mm / 2));
  const k = (HUB - 44) / tallest;
  const pitch = (WIDTH - 24) / rungs.length;
  const y = (above: number) => HUB - above * k;
  return (
    <div data-uprights={rungs.length}>
      <svg
        className="drawing"
        width="100%"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Sizes on one hub line, to scale: ${rungs.map((rung) => rung.size).join(", ")}`}
      >
        <line className="axis" x1={8} x2={WIDTH - 8} y1={HUB} y2={HUB} />
        {arch != null && (
          <>
            <path d={`M8 ${y(arch)} H${WIDTH - 8}`} stroke="var(--scribe)" strokeWidth={2.5} />
            {ladder.arch_least_mm != null && (
              <line
                className="phantom"
                x1={8}
                x2={WIDTH - 8}
                y1={y(arch - ladder.arch_least_mm)}
                y2={y(arch - ladder.arch_least_mm)}
              />
            )}
            <text className="note" x={12} y={y(arch) - 7}>
              arch lip; chain line: the house's least gap
            </text>
          </>
        )}
        {rungs.map((rung, at) => {
          const x = 12 + pitch * (at + 0.5);
          const half = Math.min((rung.section_width_mm / 2) * k, pitch / 2 - 3);
          const top = y(rung.overall_diameter_mm / 2);
          const rim = y(rung.overall_diameter_mm / 2 - rung.sidewall_mm);
          const isMarked = rung === marked;
          const round = Math.min(9, half / 2);
          return (
            <g key={rung.size}>
              <path
                d={`M${x - half} ${rim} V${top + round} Q${x - half} ${top} ${x - half + round} ${top} H${x + half - round} Q${x + half} ${top} ${x + half} ${top + round} V${rim} Z`}
                fill="var(--rubber)"
                fillOpacity={isMarked ? 0.7 : 0.35}
                stroke={isMarked ? "var(--brass)" : "var(--scribe)"}
                strokeWidth={isMarked ? 2 : 1.2}
              />
              <path
                d={`M${x - half + 2} ${rim} V${HUB} M${x + half - 2} ${rim} V${HUB}`}
                stroke="var(--scribe)"
                strokeWidth={1}
              />
              <text className={isMarked ? "figure" : ""} x={x} y={HUB + 15} textAnchor="middle" fontSize={11}>
                {rung.size.split("R")[0]}
              </text>
              <text x={x} y={HUB + 29} textAnchor="middle" fontSize={11}>
                R{rung.size.split("R")[1]}
              </text>
              <text x={x} y={(rim + HUB) / 2} textAnchor="middle" fontSize={11}>
                {percent(rung.change_pct)}
              </text>
            </g>
          );
        })}
      </svg>
      {marked.arch_gap_mm != null && marked.arch_verdict && (
        <p className="mt-1 flex items-center gap-1 text-body">
          <Mark standing={verdict(marked.arch_verdict).standing} size={13} />
          {marked.size}: {inWords(formatLength(marked.arch_gap_mm, units))} under the arch
        </p>
      )}
    </div>
  );
}
