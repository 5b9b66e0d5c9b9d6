import { type PointerEvent, useRef } from "react";
import type { Schemas } from "../api/client";
import { formatLength, inWords, useUnits } from "../shared/units";

type Bench = Schemas["BrakeBench"];
type Point = number[];
type Props = {
  bench: Bench;
  width: number;
  height: number;
  /** The template whose points can be dragged. */
  edited: string | null;
  onDrag: (id: string, points: Point[]) => void;
};

const ROOM = 26;
const GAP_CLASS = {
  clears: "gap-clears",
  tight: "gap-tight",
  touches: "gap-touches",
  measure_first: "gap-measure-first",
} as const;

/** The cut through wheel and brake above the axle, outboard to the right, with both gaps where they are smallest. */
export function BrakeSection({ bench, width, height, edited, onDrag }: Props) {
  const { units } = useUnits();
  const svg = useRef<SVGSVGElement>(null);
  const wheel = bench.wheel;
  const points = [
    ...bench.parts.flatMap((part) => part.points),
    ...(wheel ? [...wheel.barrel, ...wheel.spoke_back] : []),
    [0, 40],
  ];
  const ys = points.map(([y = 0]) => y);
  const rs = points.map(([, r = 0]) => r);
  // The lower half of the spokes says nothing here: the drawing begins under the lowest part.
  const floor = Math.max(
    0,
    Math.min(...bench.parts.flatMap((part) => part.points.map(([, r = 0]) => r)), 999) - 26,
  );
  const [least, most] = [Math.min(...ys, -20) - 4, Math.max(...ys, 20) + 4];
  const top = Math.max(...rs) + 6;
  const from = floor > 900 ? 0 : floor;
  const k = Math.min((width - 2 * ROOM) / (most - least), (height - 2 * ROOM) / (top - from));
  const left = (width - k * (most - least)) / 2;
  const x = (y: number) => left + (y - least) * k;
  const h = (r: number) => height - ROOM - (r - from) * k;
  const path = (line: Point[]) =>
    line.map(([y = 0, r = 0], at) => `${at === 0 ? "M" : "L"}${x(y).toFixed(1)} ${h(r).toFixed(1)}`).join("");
  const drag = (part: Bench["parts"][number], at: number) => (event: PointerEvent<SVGCircleElement>) => {
    if (event.buttons !== 1 || !svg.current) return;
    const box = svg.current.getBoundingClientRect();
    const y = Math.round(((event.clientX - box.left - left) / k + least) * 10) / 10;
    const r = Math.round(((height - ROOM - (event.clientY - box.top)) / k + from) * 10) / 10;
    onDrag(
      part.id,
      part.points.map((point, index) => (index === at ? [y, Math.max(0, r)] : point)),
    );
  };
  return (
    <svg
      ref={svg}
      className="drawing block"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${wheel?.line ?? "no wheel"} over the brake, in section`}
      data-brake-section
    >
      <clipPath id="brake-room">
        <rect x={0} y={0} width={width} height={height - ROOM + 10} />
      </clipPath>
      <g clipPath="url(#brake-room)">
        <line className="axis" x1={x(0)} x2={x(0)} y1={8} y2={height - ROOM} />
        {bench.parts.map((part) => (
          <g key={part.id} data-part={part.part}>
            <path className="hub" d={`${path(part.points)}`} fillOpacity={0.9} />
            <path className="obstacle" d={path(part.points)} />
          </g>
        ))}
        {wheel && (
          <g fill="none" strokeDasharray={wheel.source === "estimate" ? "9 4" : undefined}>
            <path className="rim inside" d={path(wheel.barrel)} />
            <path className="rim inside" d={path(wheel.spoke_back)} />
          </g>
        )}
        {bench.parts.map((part) => (
          <g key={part.id} className={`gap ${GAP_CLASS[part.verdict]}`}>
            {part.radial && (
              <Dimension
                from={[x(part.radial.at[0] ?? 0), h(part.radial.at[1] ?? 0)]}
                to={[x(part.radial.at[0] ?? 0), h((part.radial.at[1] ?? 0) + part.radial.mm)]}
                text={inWords(formatLength(part.radial.mm, units, part.radial.mm < 0))}
                name="radial"
                width={width}
              />
            )}
            {part.axial && (
              <Dimension
                from={[x(part.axial.at[0] ?? 0), h(part.axial.at[1] ?? 0)]}
                to={[x((part.axial.at[0] ?? 0) + part.axial.mm), h(part.axial.at[1] ?? 0)]}
                text={inWords(formatLength(part.axial.mm, units, part.axial.mm < 0))}
                name="axial"
                width={width}
              />
            )}
          </g>
        ))}
        {bench.parts
          .filter((part) => part.id === edited)
          .flatMap((part) =>
            part.points.map(([y = 0, r = 0], at) => (
              <circle
                // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place in the line
                key={at}
                className="mark-planned"
                cx={x(y)}
                cy={h(r)}
                r={6}
                style={{ cursor: "move", touchAction: "none" }}
                onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
                onPointerMove={drag(part, at)}
              />
            )),
          )}
      </g>
      <text className="note" x={x(0) + 5} y={height - 8}>
        hub face
      </text>
      <text className="note" x={width - 8} y={height - 8} textAnchor="end">
        outboard →
      </text>
      <text className="note" x={10} y={20}>
        {wheel ? wheel.line : "State the wheel with its offset."}
      </text>
      <text className="note" x={10} y={37}>
        {wheel
          ? wheel.source === "estimate"
            ? `drawn from its size, ± ${wheel.plus_minus_mm} mm: not measured`
            : `inside as measured, ± ${wheel.plus_minus_mm} mm`
          : ""}
      </text>
    </svg>
  );
}

type DimensionProps = {
  from: [number, number];
  to: [number, number];
  text: string;
  name: "radial" | "axial";
  width: number;
};

/** A gap with its figure beside it, ringed where the two are nearest. */
function Dimension({ from, to, text, name, width }: DimensionProps) {
  const middle = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2] as const;
  const radial = name === "radial";
  // The radial figure stands inside the brake, the axial one outboard of the spokes where there is room.
  const hasRoom = middle[0] + 130 < width;
  const label = radial
    ? { x: middle[0] - 6, y: middle[1] + 56, anchor: "end" as const }
    : hasRoom
      ? { x: middle[0] + 24, y: middle[1] - 4, anchor: "start" as const }
      : { x: middle[0] - 26, y: middle[1] - 4, anchor: "end" as const };
  return (
    <g data-gap={name}>
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} strokeWidth={3} />
      <circle cx={middle[0]} cy={middle[1]} r={13} fill="none" stroke="var(--verdict)" strokeWidth={1.4} />
      <text className="figure" x={label.x} y={label.y} textAnchor={label.anchor}>
        {text}
      </text>
      <text x={label.x} y={label.y + 15} textAnchor={label.anchor} fontSize={13}>
        {radial ? "to the barrel" : "to the spokes"}
      </text>
    </g>
  );
}
