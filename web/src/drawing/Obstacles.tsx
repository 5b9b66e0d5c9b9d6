import type { AxleFit, Clearance, Drawing, Verdict } from "../api/client";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import { Horizontal } from "./Dimension";
import type { Place } from "./scale";

type Props = { fit: AxleFit | null; drawings: Drawing[]; place: Place };

const measured = (fit: AxleFit | null, code: string) =>
  fit?.clearances.find((line) => line.feature === code && line.place && line.nominal_mm != null);
const unread = (fit: AxleFit | null, code: string) =>
  fit?.clearances.find((line) => line.feature === code && line.nominal_mm == null);

/** Length of a nose as it is drawn, and of the longest figure beside one. */
const NOSE = 44;
const WIDEST_FIGURE = 70;

/** What the figure of a gap says: value, ±, and the verdict's word where it is not a good one. */
function GapFigure({ line, x }: { line: Clearance; x: number }) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  const gap = formatLength(line.nominal_mm ?? 0, units);
  const band = formatLength(line.plus_minus_mm ?? 0, units);
  return (
    <>
      <tspan className="figure">{gap.figure}</tspan>
      <tspan> ±{band.figure}</tspan>
      {line.verdict !== "clears" && (
        <tspan x={x} dy={15}>
          {verdict(line.verdict).word}
        </tspan>
      )}
    </>
  );
}

/**
 * What bounds the wheel from inboard. Strut, spring perch, knuckle and arm move with the wheel and are drawn in its own
 * frame; frame, sway bar and inner liner are of the body and stand still while it leans.
 */
export function InboardObstacles({ fit, drawings, place, ofTheBody }: Props & { ofTheBody: boolean }) {
  const { units } = useUnits();
  if (drawings.length === 0) return null;
  const there = (fit?.clearances ?? []).filter(
    (line) =>
      line.is_inboard &&
      line.is_of_the_body === ofTheBody &&
      line.place?.y_mm != null &&
      line.nominal_mm != null,
  );
  const high = Math.max(...drawings.map((d) => d.tire?.crown_r_mm ?? d.flange_top_r_mm));
  const drawn = drawings.at(-1);
  // Walls are dimensioned below the rim, clear of the figures there and of what was read at a height.
  const below = place.y(drawn?.bead_seat_r_mm ?? high) + 70;
  const strut = measured(fit, "strut");
  const asked = unread(fit, "strut");
  const inner = place.x(Math.min(...drawings.map((d) => d.reach_y_mm[0] ?? 0)));
  return (
    <g>
      {!ofTheBody && !strut && (
        <OpenStrut x={inner - 60} high={place.y(high)} low={place.y(110)} asked={asked} units={units} />
      )}
      {there.map((line, at) => {
        const y = line.place?.y_mm ?? 0;
        const height = line.place?.height_mm;
        const x = place.x(y);
        const level = height == null ? below + at * 40 : place.y(height);
        // Beside a nose where there is room: above and below it the next one's figures stand.
        const beside = height != null && x - NOSE - place.left > WIDEST_FIGURE ? x - NOSE - 6 : null;
        return (
          <g key={`${line.feature}-${line.side}`} data-obstacle={line.feature}>
            {height == null ? (
              <Wall x={x} top={place.y(high + 34)} bottom={place.y(110)} />
            ) : (
              <Nose x={x} y={level} far={place.left + 12} />
            )}
            <Gap
              line={line}
              x={x}
              y={level}
              toward={1}
              place={place}
              under={beside != null ? 12 : height == null ? 10 : 30}
              at={beside}
            />
            <text
              className="note"
              textAnchor="end"
              x={beside ?? x - 14}
              y={level - (beside != null ? 4 : height == null ? 8 : 16)}
            >
              {line.name}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Fender lip and arch: parts of the body. */
export function BodyObstacles({ fit, drawings, place }: Props) {
  const { units } = useUnits();
  if (drawings.length === 0) return null;
  const lip = measured(fit, "fender_lateral");
  const arch = measured(fit, "arch");
  const high = Math.max(...drawings.map((d) => d.tire?.crown_r_mm ?? d.flange_top_r_mm));
  const outer = place.x(Math.max(...drawings.map((d) => d.reach_y_mm[1] ?? 0)));
  const x = lip?.place?.y_mm != null ? place.x(lip.place.y_mm) : outer + 30;
  // A wheel well taller than the sheet is drawn at the sheet's edge; its figure says how far it is.
  const y = arch?.place?.height_mm != null ? Math.max(84, place.y(arch.place.height_mm)) : place.y(high) - 48;
  const missing = [
    { what: "fender lip", line: unread(fit, "fender_lateral"), known: lip },
    { what: "arch", line: unread(fit, "arch"), known: arch },
  ].filter(({ known }) => !known);
  return (
    <g>
      <path
        className={lip ? "obstacle" : "open-edge"}
        d={`M${x + 9} ${y - 46}q-1 26 -9 40v6`}
        data-obstacle={lip ? "fender_lateral" : undefined}
      />
      <path
        className={arch ? "obstacle" : "open-edge"}
        d={`M${x} ${y}h-9q-26 -12 -58 -15`}
        data-obstacle={arch ? "arch" : undefined}
      />
      {lip && <Gap line={lip} x={x} y={y + 16} toward={-1} place={place} />}
      {arch && <ArchGap line={arch} x={x - 30} y={y} bottom={place.y(high)} place={place} />}
      {missing.map(({ what, line }, at) => (
        <text key={what} className="note" textAnchor="end" x={place.right - 10} y={24 + at * 16}>
          {what}:{" "}
          {line?.must_find_mm == null
            ? "not measured"
            : `not measured, find ${inWords(formatLength(line.must_find_mm, units))}`}
        </text>
      ))}
    </g>
  );
}

const gapClass = (verdict: Verdict) => `gap gap-${verdict.replace("_", "-")}`;

/** The gap sideways: from the part toward the wheel by what the program found. */
function Gap({
  line,
  x,
  y,
  toward,
  place,
  under = 5,
  at: given,
}: {
  line: Clearance;
  x: number;
  y: number;
  toward: 1 | -1;
  place: Place;
  under?: number;
  /** Where the figure ends; beside the part by itself. */
  at?: number | null;
}) {
  const end = x + toward * (line.nominal_mm ?? 0) * place.k;
  const at = given ?? (toward === 1 ? x - 14 : Math.min(Math.max(x, end) + 24, place.right - 64));
  return (
    <g className={gapClass(line.verdict)} data-gap={line.feature}>
      <Horizontal x1={x} x2={end} y={y} label="none" name={`gap-${line.feature}`}>
        {null}
      </Horizontal>
      <text x={at} y={y + under} textAnchor={toward === 1 ? "end" : "start"}>
        <GapFigure line={line} x={at} />
      </text>
    </g>
  );
}

/** The gap upward, under the arch. */
function ArchGap({
  line,
  x,
  y,
  bottom,
  place,
}: {
  line: Clearance;
  x: number;
  y: number;
  bottom: number;
  place: Place;
}) {
  const end = y + (line.nominal_mm ?? 0) * place.k;
  const from = Math.min(end, bottom);
  return (
    <g className={`dim ${gapClass(line.verdict)}`} data-gap="arch">
      <line x1={x} x2={x} y1={y} y2={from} />
      <path className="head" d={`M${x} ${y}l-2.6 7h5.2z`} />
      <path className="head" d={`M${x} ${from}l-2.6 -7h5.2z`} />
      <text x={x - 8} y={(y + from) / 2 + 5} textAnchor="end">
        <GapFigure line={line} x={x - 8} />
      </text>
    </g>
  );
}

/** A part whose height nobody noted: taken for a wall. */
function Wall({ x, top, bottom }: { x: number; top: number; bottom: number }) {
  const ticks = Math.max(0, Math.floor((bottom - top) / 12));
  return (
    <g className="obstacle">
      <path d={`M${x} ${top}V${bottom}`} />
      <path
        className="ground"
        d={Array.from({ length: ticks }, (_, at) => `M${x} ${top + at * 12 + 4}l-9 9`).join("")}
      />
    </g>
  );
}

/** A part read at a height: its nearest edge, broken off toward the middle of the car. */
function Nose({ x, y, far }: { x: number; y: number; far: number }) {
  const back = Math.max(far, x - NOSE);
  return (
    <path className="obstacle" d={`M${back} ${y - 10}H${x - 4}q4 0 4 4v12q0 4 -4 4H${back}l4 -7l-6 -6z`} />
  );
}

type OpenStrutProps = {
  x: number;
  high: number;
  low: number;
  asked: Clearance | undefined;
  units: Parameters<typeof formatLength>[1];
};

/** The strut nobody has measured: an open edge that says what must be found. */
function OpenStrut({ x, high, low, asked, units }: OpenStrutProps) {
  return (
    <g>
      <path className="open-edge" d={`M${x} ${high - 14}V${low}`} />
      {/* Under its line: along it stand the parts that were read. */}
      <text className="note" textAnchor="middle" x={x} y={low + 16}>
        strut: not measured
        {asked?.must_find_mm != null && (
          <tspan x={x} dy={15}>
            find {inWords(formatLength(asked.must_find_mm, units))}
          </tspan>
        )}
      </text>
    </g>
  );
}
