import { type ReactNode, useId } from "react";
import type { Axle, Bench, Drawing, Registry } from "../api/client";
import { Hatches } from "../drawing/Hatches";
import { type Place, path, places } from "../drawing/scale";
import { useSize } from "../drawing/useSize";
import { useRegistry } from "../shared/registry";

type Props = {
  bench: Bench | null;
  axle: Axle;
  lit: string;
  done: Set<string>;
  /** What is read on this axle, in bay order. */
  codes: string[];
  /** Whether something of it is read at lock. */
  steers: boolean;
  /** On paper each place has the number of its row. */
  isNumbered?: boolean;
  onLight: (code: string) => void;
};

/** Where the gauge goes, on the sheet: two ends of a short line. */
type Spot = { code: string; from: [number, number]; to: [number, number] };

const ROOM = { side: 84, top: 100, bottom: 26 };

/** The fitted corner in section with every place for a reading, and the wheel from above for those at lock. */
export function BayDrawing({ bench, axle, lit, done, codes, steers, isNumbered, onLight }: Props) {
  const [frame, size] = useSize({ width: 780, height: 360 });
  const hatch = useId().replaceAll(":", "");
  const gauges = (spots: Spot[]) =>
    spots
      .filter((spot) => codes.includes(spot.code))
      .map((spot) => (
        <Gauge
          key={spot.code}
          spot={spot}
          isLit={spot.code === lit}
          isDone={done.has(spot.code)}
          number={isNumbered ? codes.indexOf(spot.code) + 1 : null}
          onLight={onLight}
        />
      ));
  const registry = useRegistry();
  const drawing = bench?.axles[axle].fitted_drawing ?? null;
  const { width, height } = size;
  // On an axle that does not steer nothing is read at lock: the section has the whole sheet.
  const half = Math.round(width * (steers ? 0.62 : 1));
  const place = bench && drawing ? places(bench, half * 2, height, ROOM)[axle] : null;
  const shift = place && axle === "rear" ? -half : 0;
  return (
    <div ref={frame} className="drawing h-full w-full overflow-hidden" data-lit={lit}>
      <svg
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        aria-label="Where to put the gauge"
      >
        <Hatches id={hatch} />
        {place && drawing ? (
          <>
            <g transform={`translate(${shift} 0)`}>
              <Section place={place} drawing={drawing} hatch={hatch} />
              {gauges([
                ...spotsInSection(drawing, place),
                ...registeredSpots(registry?.parts ?? [], drawing, place),
              ])}
            </g>
            {steers && <FromAbove left={half} width={width - half} height={height} gauges={gauges} />}
          </>
        ) : (
          <text x={width / 2} y={height / 2} textAnchor="middle">
            State what is fitted, with its offset, and the corner is drawn here.
          </text>
        )}
      </svg>
    </div>
  );
}

function Section({ place, drawing, hatch }: { place: Place; drawing: Drawing; hatch: string }) {
  const [inner = 0, outer = 0] = drawing.reach_y_mm;
  const top = drawing.tire?.crown_r_mm ?? drawing.flange_top_r_mm;
  const strut = place.x(inner) - 46;
  const lip = { x: place.x(outer) + 34, y: place.y(top) - 52 };
  return (
    <g>
      <text className="note" x={place.left + 14} y={22}>
        cut through the axle, outside to the right
      </text>
      <line className="axis" x1={place.left + 8} x2={place.right - 8} y1={place.y(0)} y2={place.y(0)} />
      {drawing.tire && (
        <path className="rubber" d={path(drawing.tire.outline, place)} fill={`url(#${hatch}-rubber)`} />
      )}
      <path className="rim" d={path(drawing.rim, place)} fill={`url(#${hatch}-metal)`} />
      <path
        className="obstacle"
        d={`M${strut} ${place.y(top + 40)}V${place.y(top * 0.86)}h14v10h-14V${place.y(40)}`}
        fill="none"
      />
      <path className="obstacle" d={`M${lip.x} ${lip.y - 46}q2 30 -6 40q-20 10 -70 2`} fill="none" />
      <path
        className="obstacle"
        d={`M${strut - 26} ${place.y(top + 22)}L${place.x(inner) + 20} ${place.y(top + 30)}`}
        fill="none"
      />
    </g>
  );
}

function spotsInSection(drawing: Drawing, place: Place): Spot[] {
  const [inner = 0, outer = 0] = drawing.reach_y_mm;
  const tire = drawing.tire;
  const top = tire?.crown_r_mm ?? drawing.flange_top_r_mm;
  const widest = tire?.widest_r_mm ?? drawing.flange_top_r_mm;
  const x = (y: number) => place.x(y);
  const strut = x(inner) - 46;
  const middle = x(drawing.center_y_mm);
  const seat = drawing.bead_seat_r_mm;
  const level = (code: string, from: number, to: number, r: number): Spot => ({
    code,
    from: [from, place.y(r)],
    to: [to, place.y(r)],
  });
  return [
    level("strut", strut, x(inner), widest - 6),
    level("spring_perch", strut + 14, x(inner) + 12, top * 0.86 - 4),
    level("knuckle", strut, x(drawing.flange_edges_y_mm[0] ?? 0), seat * 0.72),
    { code: "upper_arm", from: [x(inner) - 4, place.y(top + 27)], to: [x(inner) + 14, place.y(top - 16)] },
    level("fender_lateral", x(outer), x(outer) + 34, widest + 8),
    { code: "arch", from: [middle, place.y(top)], to: [middle, place.y(top) - 50] },
    {
      code: "caliper_radial",
      from: [middle - 20, place.y(seat - 62)],
      to: [middle - 20, place.y(seat - 18)],
    },
    level("caliper_face", x(drawing.center_y_mm) + 4, x(drawing.pad_y_mm) + 14, seat * 0.55),
    { code: "fitted_section", from: [x(inner), place.y(top) - 14], to: [x(outer), place.y(top) - 14] },
  ];
}

/** Parts that the registry says where to draw: inboard, at a share of the tire's radius. */
function registeredSpots(parts: Registry["parts"], drawing: Drawing, place: Place): Spot[] {
  const top = drawing.tire?.crown_r_mm ?? drawing.flange_top_r_mm;
  const inner = place.x(drawing.reach_y_mm[0] ?? 0);
  return parts.flatMap(({ code, drawn_at: at }) =>
    at == null ? [] : [{ code, from: [inner - 74, place.y(top * at)], to: [inner - 6, place.y(top * at)] }],
  );
}

type GaugeProps = {
  spot: Spot;
  isLit: boolean;
  isDone: boolean;
  number: number | null;
  onLight: (code: string) => void;
};

/** A place to read: lit while it is asked for, with a tick once it was read. */
function Gauge({ spot, isLit, isDone, number, onLight }: GaugeProps) {
  const { from, to, code } = spot;
  const middle = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2] as const;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the list beside the drawing is what the keyboard uses
    <g className={`gauge ${isLit ? "lit" : ""}`} onClick={() => onLight(code)} data-place={code}>
      <circle cx={middle[0]} cy={middle[1]} r={20} fill="transparent" />
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} />
      <circle cx={from[0]} cy={from[1]} r={isLit ? 4.5 : 2.6} />
      <circle cx={to[0]} cy={to[1]} r={isLit ? 4.5 : 2.6} />
      {isDone && <path className="tick" d={`M${middle[0] - 6} ${middle[1] - 9}l4 5l8 -10`} fill="none" />}
      {number != null && (
        <text className="number" x={middle[0] + 5} y={middle[1] - 5}>
          {number}
        </text>
      )}
      {isLit && (
        <circle
          className="ring"
          fill="none"
          cx={middle[0]}
          cy={middle[1]}
          r={Math.hypot(to[0] - from[0], to[1] - from[1]) / 2 + 9}
        />
      )}
    </g>
  );
}

type FromAboveProps = {
  left: number;
  width: number;
  height: number;
  gauges: (spots: Spot[]) => ReactNode;
};

/** The wheel from above, turned, with what is ahead, behind and inboard of it. */
function FromAbove({ left, width, height, gauges }: FromAboveProps) {
  const x = left + width * 0.56;
  const y = height / 2 + 8;
  const long = Math.min(height * 0.3, 118);
  const wide = long * 0.4;
  const inner = x - wide - 40;
  const spots: Spot[] = [
    { code: "liner_ahead", from: [x + 12, y - long - 22], to: [x + 12, y - long + 2] },
    { code: "sill_behind", from: [x - 12, y + long + 22], to: [x - 12, y + long - 2] },
    { code: "frame", from: [inner, y + long * 0.52], to: [x - wide * 0.98, y + long * 0.52] },
    { code: "sway_bar", from: [inner, y], to: [x - wide * 0.78, y] },
    { code: "inner_liner", from: [inner, y - long * 0.52], to: [x - wide * 0.5, y - long * 0.52] },
  ];
  return (
    <g>
      <line x1={left} x2={left} y1={14} y2={height - 14} stroke="var(--scribe-faint)" />
      <text className="note" x={left + 12} y={22}>
        from above, at full lock
      </text>
      <text className="note" x={x} y={44} textAnchor="middle">
        ahead
      </text>
      <rect
        className="rubber"
        x={x - wide / 2}
        y={y - long}
        width={wide}
        height={long * 2}
        rx={10}
        fill="var(--rubber)"
        fillOpacity={0.45}
        transform={`rotate(14 ${x} ${y})`}
      />
      <path className="obstacle" d={`M${x - wide * 1.2} ${y - long - 24}h${wide * 2.3}`} fill="none" />
      <path className="obstacle" d={`M${x - wide * 1.2} ${y + long + 24}h${wide * 2.3}`} fill="none" />
      <path className="obstacle" d={`M${inner} ${y - long * 0.8}V${y + long * 0.8}`} fill="none" />
      {gauges(spots)}
    </g>
  );
}
