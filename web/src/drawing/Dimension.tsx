import type { ReactNode } from "react";

type HorizontalProps = {
  x1: number;
  x2: number;
  y: number;
  /** Where the extension lines start, for each end. */
  from?: [number, number];
  children: ReactNode;
  /** Where the figure stands: over the line, or beside one end. */
  label?: "over" | "right" | "left" | "under" | "none";
  moved?: boolean;
  name?: string;
};

const HEAD = 7;

function Head({ x, y, turn }: { x: number; y: number; turn: number }) {
  return (
    <path className="head" d={`M0 0L${-HEAD} 2.6V-2.6Z`} transform={`translate(${x} ${y}) rotate(${turn})`} />
  );
}

/** A horizontal dimension. When the ends lie close the arrows stand outside, as on paper. */
export function Horizontal({ x1, x2, y, from, children, label = "over", moved, name }: HorizontalProps) {
  const [left, right] = x1 < x2 ? [x1, x2] : [x2, x1];
  const isTight = right - left < 4 * HEAD;
  const outer = 20;
  const at =
    label === "over" || label === "under"
      ? { x: (left + right) / 2, y: label === "over" ? y - 6 : y + 18, textAnchor: "middle" as const }
      : label === "right"
        ? { x: right + (isTight ? outer + 4 : 8), y: y + 5, textAnchor: "start" as const }
        : { x: left - (isTight ? outer + 4 : 8), y: y + 5, textAnchor: "end" as const };
  return (
    <g className={`dim ${moved ? "moved" : ""}`} data-dimension={name}>
      {from && (
        <>
          <line className="ext" x1={x1} x2={x1} y1={from[0]} y2={y + (from[0] < y ? 5 : -5)} />
          <line className="ext" x1={x2} x2={x2} y1={from[1]} y2={y + (from[1] < y ? 5 : -5)} />
        </>
      )}
      {isTight ? (
        <>
          <line x1={left - outer} x2={left} y1={y} y2={y} />
          <line x1={right} x2={right + outer} y1={y} y2={y} />
          <line x1={left} x2={right} y1={y} y2={y} />
          <Head x={left} y={y} turn={0} />
          <Head x={right} y={y} turn={180} />
        </>
      ) : (
        <>
          <line x1={left} x2={right} y1={y} y2={y} />
          <Head x={left} y={y} turn={180} />
          <Head x={right} y={y} turn={0} />
        </>
      )}
      {label !== "none" && <text {...at}>{children}</text>}
    </g>
  );
}

type VerticalProps = {
  x: number;
  y1: number;
  y2: number;
  /** Where the extension lines start, for each end. */
  from?: [number | null, number | null];
  /** The figure stands below this, as far as the line goes: above it are others. */
  under?: number;
  children: ReactNode;
  name?: string;
};

/** Half of the length of a figure that is written upright. */
const HALF_A_FIGURE = 48;

/** A vertical dimension, its figure along the line. */
export function Vertical({ x, y1, y2, from, under = y1, children, name }: VerticalProps) {
  const low = Math.max(y1, y2);
  const middle = Math.min(
    Math.max(low - Math.abs(y2 - y1) * 0.3, under + HALF_A_FIGURE),
    low - HALF_A_FIGURE,
  );
  return (
    <g className="dim" data-dimension={name}>
      {from?.[0] != null && (
        <line className="ext" x1={from[0]} x2={x + (from[0] < x ? 5 : -5)} y1={y1} y2={y1} />
      )}
      {from?.[1] != null && (
        <line className="ext" x1={from[1]} x2={x + (from[1] < x ? 5 : -5)} y1={y2} y2={y2} />
      )}
      <line x1={x} x2={x} y1={y1} y2={y2} />
      <Head x={x} y={Math.min(y1, y2)} turn={-90} />
      <Head x={x} y={Math.max(y1, y2)} turn={90} />
      <text x={x} y={middle} textAnchor="middle" transform={`rotate(-90 ${x} ${middle})`} dy={-6}>
        {children}
      </text>
    </g>
  );
}
