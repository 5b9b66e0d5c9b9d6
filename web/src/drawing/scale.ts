import type { Bench, BenchAxle, Drawing } from "../api/client";

/** Where a corner's millimetres lie on the sheet, in pixels. Both corners share one scale. */
export type Place = {
  /** Pixels to the millimetre. */
  k: number;
  /** Outboard position to the sheet's x. */
  x: (y_mm: number) => number;
  /** Radius to the sheet's y. */
  y: (r_mm: number) => number;
  left: number;
  right: number;
  top: number;
  bottom: number;
};

const drawings = (axle: BenchAxle): Drawing[] =>
  [axle.fitted_drawing, axle.planned_drawing].filter((d) => d != null);

const top = (drawing: Drawing) => drawing.tire?.crown_r_mm ?? drawing.flange_top_r_mm;

/** Room round the drawn parts, in pixels: for dimensions, edges not measured, titles, and the ruler. */
const ROOM = { side: 88, top: 108, bottom: 146 };
/** The same where there is no ruler. */
export const ROOM_ON_PAPER = { ...ROOM, bottom: 76 };

/**
 * Fits both corners side by side. The extent follows what is drawn in coarse steps, so that the sheet stays
 * still under a dragged wheel.
 */
export function places(
  bench: Bench,
  width: number,
  height: number,
  room = ROOM,
): { front: Place; rear: Place } {
  const all = [...drawings(bench.axles.front), ...drawings(bench.axles.rear)];
  const coarse = (mm: number) => Math.ceil(mm / 25) * 25;
  const inboard = coarse(Math.max(150, ...all.map((drawing) => -(drawing.reach_y_mm[0] ?? 0))));
  const outboard = coarse(Math.max(100, ...all.map((drawing) => drawing.reach_y_mm[1] ?? 0)));
  const high = coarse(Math.max(300, ...all.map(top)));
  const half = width / 2;
  const k = Math.max(
    0.2,
    Math.min((half - 2 * room.side) / (inboard + outboard), (height - room.top - room.bottom) / high),
  );
  const place = (left: number): Place => {
    const middle = left + half / 2 + ((inboard - outboard) / 2) * k;
    const axis = height - room.bottom - Math.max(0, height - room.top - room.bottom - high * k) / 2;
    return {
      k,
      x: (y_mm) => middle + y_mm * k,
      y: (r_mm) => axis - r_mm * k,
      left,
      right: left + half,
      top: 0,
      bottom: height,
    };
  };
  return { front: place(0), rear: place(half) };
}

/** A profile as an SVG path. */
export function path(points: number[][], place: Place): string {
  return `M${points.map(([y = 0, r = 0]) => `${place.x(y).toFixed(1)} ${place.y(r).toFixed(1)}`).join("L")}Z`;
}
