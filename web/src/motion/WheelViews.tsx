import { type PointerEvent, useRef } from "react";
import { useVerdicts } from "../shared/registry";
import { carrying, type Place, placing } from "./pose";
import type { Motion, MotionPart, Pose } from "./useMotion";

type Props = {
  motion: Motion;
  pose: Pose;
  marked: string | null;
  width: number;
  height: number;
  onPose: (pose: Pose) => void;
};

type View = "above" | "side" | "cut";
type Seen = (place: Place) => [number, number];

/** Which two of a place each view shows: right and up on the paper, in mm. Outboard is to the right from above and in the cut. */
const SEEN: Record<View, Seen> = {
  above: ([x, y]) => [y, x],
  side: ([x, , z]) => [-x, z],
  cut: ([, y, z]) => [y, z],
};
const NAMES: Record<View, string> = {
  above: "from above",
  side: "from outboard",
  cut: "cut through the axle",
};
const GAP_CLASS = {
  clears: "gap-clears",
  tight: "gap-tight",
  touches: "gap-touches",
  measure_first: "gap-measure-first",
} as const;

/** Places of one edge follow each other within this; further on another edge of the part begins. */
const NEXT_MM = 45;

function isNextTo(last: Place | undefined, place: Place): boolean {
  return last !== undefined && Math.hypot(...place.map((one, axis) => one - (last[axis] ?? 0))) < NEXT_MM;
}

/** The wheel seen from above, from the side and cut, all to one scale, with the parts where they stand. */
export function WheelViews({ motion, pose, marked, width, height, onPose }: Props) {
  const crown = Math.max(...motion.outline_mm.map(([, r = 0]) => r));
  const parts = motion.parts.map((part) => ({ part, points: part.points_mm as Place[] }));
  const places = parts.flatMap(({ points }) => points);
  const far = (at: 0 | 1 | 2, base: number) =>
    places.reduce((most, place) => Math.max(most, Math.min(Math.abs(place[at]), crown * 1.4)), base);
  const lock = Math.sin((Math.max(motion.lock_inward_deg, motion.lock_outward_deg) * Math.PI) / 180);
  const [inmost, outmost] = places.reduce(
    ([least, most], [, y]) => [Math.min(least, y), Math.max(most, y)],
    [Math.min(...motion.outline_mm.map(([y = 0]) => y)), Math.max(...motion.outline_mm.map(([y = 0]) => y))],
  );
  // One scale for all three: widths and heights are what a wheel needs at lock and at full travel.
  const ROOM = 24;
  const spans: Record<View, [number, number]> = {
    above: [inmost - crown * lock * 0.55, outmost + crown * lock * 0.55],
    side: [-far(0, crown), far(0, crown)],
    cut: [inmost - 10, outmost + 10],
  };
  const views = ["above", "side", "cut"] as const;
  const wide = views.reduce((sum, view) => sum + spans[view][1] - spans[view][0], 0);
  const up = Math.max(far(2, crown), far(0, crown));
  const scale = Math.min((width - 4 * ROOM) / wide, (height - 56) / (up + crown + 20));
  const middle = 28 + up * scale;
  let left = (width - wide * scale - 2 * ROOM) / 2;
  const centers = { above: 0, side: 0, cut: 0 };
  for (const view of views) {
    centers[view] = left - spans[view][0] * scale;
    left += (spans[view][1] - spans[view][0]) * scale + ROOM;
  }
  const bar = 100 * scale;
  return (
    <svg
      className="drawing block"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label="The wheel in its pose, from above, from the side and cut"
      data-wheel-views
    >
      {views.map((view) => (
        <OneView
          key={view}
          view={view}
          motion={motion}
          parts={parts}
          pose={pose}
          marked={marked}
          scale={scale}
          center={[centers[view], middle]}
          title={centers[view] + ((spans[view][0] + spans[view][1]) / 2) * scale}
          crown={crown}
          onPose={onPose}
        />
      ))}
      <g className="dim">
        <line x1={width - 14 - bar} x2={width - 14} y1={height - 12} y2={height - 12} />
        <text x={width - 14 - bar / 2} y={height - 17} textAnchor="middle">
          100 mm
        </text>
      </g>
    </svg>
  );
}

type OneProps = {
  view: View;
  motion: Motion;
  parts: { part: MotionPart; points: Place[] }[];
  pose: Pose;
  marked: string | null;
  scale: number;
  center: [number, number];
  title: number;
  crown: number;
  onPose: (pose: Pose) => void;
};

function OneView({ view, motion, parts, pose, marked, scale, center, title, crown, onPose }: OneProps) {
  const verdict = useVerdicts();
  const grabbed = useRef<{ at: [number, number]; pose: Pose } | null>(null);
  const seen = SEEN[view];
  const onPaper = (place: Place) => {
    const [right, up] = seen(place);
    return `${(center[0] + right * scale).toFixed(1)} ${(center[1] - up * scale).toFixed(1)}`;
  };
  const path = (points: Place[]) => `M${points.map(onPaper).join("L")}`;
  const edges = (points: Place[]) =>
    points.map((place, at) => (isNextTo(points[at - 1], place) ? "L" : "M") + onPaper(place)).join("");
  const place = placing(motion, pose);
  const carried = carrying(motion, pose);
  const atRest = placing(motion, { steer: 0, travel: 0 });
  // Seen from the side a wheel is its circles; from above and in the cut, both halves of its section.
  const halves = (to: (place: Place) => Place): Place[][] => {
    if (view === "side") {
      return [crown, motion.flange_top_mm].map((radius) =>
        Array.from({ length: 73 }, (_, at) => {
          const angle = (at / 36) * Math.PI;
          return to([radius * Math.cos(angle), 0, radius * Math.sin(angle)]);
        }),
      );
    }
    return [1, -1].map((side) =>
      motion.outline_mm.map(([y = 0, r = 0]) => to(view === "above" ? [side * r, y, 0] : [0, y, side * r])),
    );
  };
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (event.type === "pointerdown") {
      event.currentTarget.setPointerCapture(event.pointerId);
      grabbed.current = { at: [event.clientX, event.clientY], pose };
      return;
    }
    if (event.buttons !== 1 || !grabbed.current) return;
    const { at, pose: from } = grabbed.current;
    const [right, down] = [event.clientX - at[0], event.clientY - at[1]];
    const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
    // From above the wheel is turned by the hand, from the side and in the cut it is lifted.
    onPose({
      steer:
        view === "above"
          ? clamp(from.steer + right / 3, -motion.lock_inward_deg, motion.lock_outward_deg)
          : from.steer,
      travel:
        view === "above" ? from.travel : clamp(from.travel - down / scale, -motion.droop_mm, motion.bump_mm),
    });
  };
  return (
    <g data-view={view}>
      <text x={title} y={16} textAnchor="middle">
        {NAMES[view]}
      </text>
      {halves(atRest).map((points, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two halves in their order
        <path key={at} className="phantom" d={`${path(points)}Z`} fill="none" />
      ))}
      <g
        className={view === "above" ? "cursor-ew-resize" : "cursor-ns-resize"}
        onPointerDown={drag}
        onPointerMove={drag}
        onPointerUp={() => {
          grabbed.current = null;
        }}
      >
        {halves(place).map((points, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two halves in their order
          <path key={at} className="wheel" d={`${path(points)}Z`} />
        ))}
      </g>
      {parts.map(({ part, points }) => (
        <g
          key={part.code}
          className={`motion-part ${GAP_CLASS[part.verdict]} ${marked === part.code ? "marked" : ""}`}
          data-part={part.code}
        >
          <title>{`${part.name}: ${verdict(part.verdict).word}`}</title>
          <path d={edges(part.moves ? points : points.map(carried))} fill="none" />
        </g>
      ))}
    </g>
  );
}
