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

/** Steer across, travel up: every pose with its word, what the use reaches drawn in, and the pose in hand. */
export const MotionMap = memo(function MotionMap({ motion, part, pose, width, height, onPose }: Props) {
  const steers = motion.map_steer_deg;
  const travels = motion.map_travel_mm;
  const [inward, outward] = [-motion.lock_inward_deg, motion.lock_outward_deg];
  const spanX = Math.max(outward - inward, 1);
  const spanY = Math.max(motion.bump_mm + motion.droop_mm, 1);
  const plot = { w: width - ROOM.left - ROOM.right, h: height - ROOM.top - ROOM.bottom };
  const x = (steer: number) => ROOM.left + ((steer - inward) / spanX) * plot.w;
  const y = (travel: number) => ROOM.top + ((motion.bump_mm - travel) / spanY) * plot.h;
  const shown = part ? [part] : motion.parts;
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
      {outline.length > 0 && <path className="map-envelope" d={`M${outline.join("L")}Z`} />}
      <line className="axis" x1={x(0)} x2={x(0)} y1={ROOM.top} y2={ROOM.top + plot.h} />
      <line className="axis" x1={ROOM.left} x2={ROOM.left + plot.w} y1={y(0)} y2={y(0)} />
      <circle className="mark-planned" cx={x(pose.steer)} cy={y(pose.travel)} r={7} data-pose />
      <text x={ROOM.left} y={height - 10}>
        {steers.length > 1 ? `${Math.round(-inward)}° inward` : ""}
      </text>
      <text x={x(0)} y={height - 10} textAnchor="middle">
        straight
      </text>
      <text x={width - ROOM.right} y={height - 10} textAnchor="end">
        {steers.length > 1 ? `${Math.round(outward)}° outward` : ""}
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
