import { memo, type PointerEvent, useMemo } from "react";
import type { Motion, MotionPart, Pose } from "./useMotion";

type Props = {
  motion: Motion;
  /** The part whose room is shown; null for the tightest of all. */
  part: MotionPart | null;
  pose: Pose;
  width: number;
  height: number;
  onPose: (pose: Pose) => void;
};

const ROOM = { left: 58, right: 12, top: 12, bottom: 34 };

/** How a cell stands: the tightest part over its own limit. */
function standingAt(parts: MotionPart[], at: number): "touches" | "tight" | "clears" {
  let worst: "touches" | "tight" | "clears" = "clears";
  for (const part of parts) {
    const room = part.map_mm[at] ?? Number.POSITIVE_INFINITY;
    if (room <= 0) return "touches";
    if (room < part.clears_from_mm) worst = "tight";
  }
  return worst;
}

/** Where the tightest part has just the house's least gap: a line through the map, cell by cell (marching squares). */
function contour(
  parts: MotionPart[],
  columns: number,
  rows: number,
  at: (column: number, row: number) => string,
) {
  const over = (column: number, row: number) =>
    Math.min(...parts.map((part) => (part.map_mm[row * columns + column] ?? 0) - part.limit_mm));
  let path = "";
  for (let row = 0; row + 1 < rows; row++) {
    for (let column = 0; column + 1 < columns; column++) {
      const corners: [number, number, number][] = [
        [column, row, over(column, row)],
        [column + 1, row, over(column + 1, row)],
        [column + 1, row + 1, over(column + 1, row + 1)],
        [column, row + 1, over(column, row + 1)],
      ];
      const crossed = corners.flatMap((from, side) => {
        const to = corners[(side + 1) % 4];
        if (!to || from[2] < 0 === to[2] < 0) return [];
        const share = from[2] / (from[2] - to[2]);
        return [at(from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1]))];
      });
      for (let pair = 0; pair + 1 < crossed.length; pair += 2)
        path += `M${crossed[pair]}L${crossed[pair + 1]}`;
    }
  }
  return path;
}

/** Steer across, travel up: every pose with its word, what the use reaches drawn in, and the pose in hand. */
export const MotionMap = memo(function MotionMap({ motion, part, pose, width, height, onPose }: Props) {
  const steers = motion.map_steer_deg;
  const travels = motion.map_travel_mm;
  const [inward, outward] = [-motion.lock_inward_deg, motion.lock_outward_deg];
  const spanX = Math.max(outward - inward, 1);
  const spanY = Math.max(motion.bump_mm + motion.droop_mm, 1);
  const plot = { w: width - ROOM.left - ROOM.right, h: height - ROOM.top - ROOM.bottom };
  const steersAtAll = steers.length > 1;
  const x = (steer: number) => ROOM.left + (steersAtAll ? ((steer - inward) / spanX) * plot.w : plot.w / 2);
  const y = (travel: number) => ROOM.top + ((motion.bump_mm - travel) / spanY) * plot.h;
  // What steers and travels along is the same in every cell: it is shown when it is asked for.
  const shown = useMemo(() => (part ? [part] : motion.parts.filter((one) => one.moves)), [part, motion]);
  const cells = useMemo(() => {
    const paths = { touches: "", tight: "", clears: "" };
    const [w, h] = [plot.w / steers.length, plot.h / travels.length];
    travels.forEach((_, row) => {
      const top = ROOM.top + plot.h - (row + 1) * h;
      // One stretch for neighbours that stand alike.
      let from = 0;
      let was = standingAt(shown, row * steers.length);
      for (let column = 1; column <= steers.length; column++) {
        const is = column < steers.length ? standingAt(shown, row * steers.length + column) : null;
        if (is === was) continue;
        const [left, right] = [ROOM.left + from * w, ROOM.left + column * w];
        paths[was] +=
          `M${left.toFixed(1)} ${top.toFixed(1)}H${right.toFixed(1)}v${(h + 0.4).toFixed(1)}H${left.toFixed(1)}Z`;
        from = column;
        if (is) was = is;
      }
    });
    return paths;
  }, [shown, steers, travels, plot.w, plot.h]);
  const limit = useMemo(() => {
    const [w, h] = [plot.w / steers.length, plot.h / travels.length];
    return contour(
      shown,
      steers.length,
      travels.length,
      (column, row) =>
        `${(ROOM.left + (column + 0.5) * w).toFixed(1)} ${(ROOM.top + plot.h - (row + 0.5) * h).toFixed(1)}`,
    );
  }, [shown, steers, travels, plot.w, plot.h]);
  const bounds = motion.envelopes.find((one) => one.code === motion.envelope)?.bounds ?? [];
  const outline = bounds.map(([steer = 0, travel = 0]) => `${x(steer).toFixed(1)} ${y(travel).toFixed(1)}`);
  const toPose = (event: PointerEvent<SVGSVGElement>) => {
    if (event.buttons !== 1) return;
    const box = event.currentTarget.getBoundingClientRect();
    const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
    onPose({
      steer: clamp(inward + ((event.clientX - box.left - ROOM.left) / plot.w) * spanX, inward, outward),
      travel: clamp(
        motion.bump_mm - ((event.clientY - box.top - ROOM.top) / plot.h) * spanY,
        -motion.droop_mm,
        motion.bump_mm,
      ),
    });
  };
  return (
    <svg
      className="drawing motion-map block touch-none"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label="Steer across, travel up: where the plan clears, is tight, touches"
      data-motion-map
      onPointerDown={toPose}
      onPointerMove={toPose}
    >
      <defs>
        <pattern id="motion-tight" width="7" height="7" patternUnits="userSpaceOnUse">
          <path className="hatch" d="M0 7 7 0" />
        </pattern>
        <pattern id="motion-touches" width="6" height="6" patternUnits="userSpaceOnUse">
          <path className="hatch" d="M0 6 6 0M0 0 6 6" />
        </pattern>
      </defs>
      <path className="map-clears" d={cells.clears} />
      <path className="map-tight" d={cells.tight} />
      <path fill="url(#motion-tight)" d={cells.tight} />
      <path className="map-touches" d={cells.touches} />
      <path fill="url(#motion-touches)" d={cells.touches} />
      <path className="map-limit" d={limit} data-map-limit />
      {outline.length > 0 && <path className="map-envelope" d={`M${outline.join("L")}Z`} />}
      {steersAtAll && <line className="axis" x1={x(0)} x2={x(0)} y1={ROOM.top} y2={ROOM.top + plot.h} />}
      <line className="axis" x1={ROOM.left} x2={ROOM.left + plot.w} y1={y(0)} y2={y(0)} />
      <circle className="mark-planned" cx={x(pose.steer)} cy={y(pose.travel)} r={7} data-pose />
      <text x={(ROOM.left + x(0)) / 2} y={height - 10} textAnchor="middle">
        {steersAtAll ? "thin line: house minimum" : ""}
      </text>
      <text x={ROOM.left} y={height - 10}>
        {steersAtAll ? `${Math.round(-inward)}° inward` : ""}
      </text>
      <text x={x(0)} y={height - 10} textAnchor="middle">
        {steersAtAll ? "straight" : "this axle does not steer"}
      </text>
      <text x={width - ROOM.right} y={height - 10} textAnchor="end">
        {steersAtAll ? `${Math.round(outward)}° outward` : ""}
      </text>
      <text x={ROOM.left - 6} y={ROOM.top + 10} textAnchor="end">
        bump
      </text>
      <text x={ROOM.left - 6} y={y(0) + 4} textAnchor="end">
        stands
      </text>
      <text x={ROOM.left - 6} y={ROOM.top + plot.h} textAnchor="end">
        droop
      </text>
    </svg>
  );
});
