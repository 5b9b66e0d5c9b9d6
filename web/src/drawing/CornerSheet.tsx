import { memo, useId } from "react";
import type { Axle, Bench } from "../api/client";
import { Corner } from "./Corner";
import { Hatches } from "./Hatches";
import { places, ROOM_ON_PAPER } from "./scale";
import { useSize } from "./useSize";

type Props = {
  bench: Bench | null;
  chosen?: Axle | "both";
  /** The wheel was moved outboard by so many millimetres since the last call. */
  onDrag?: (axle: Axle, out: number) => void;
  onHold?: (held: boolean) => void;
};

/** The corner sheet: both corners cut through the axle, seen along the car, to one scale. */
export const CornerSheet = memo(function CornerSheet({ bench, chosen = "both", onDrag, onHold }: Props) {
  const [frame, size] = useSize({ width: 880, height: 500 });
  const hatch = useId().replaceAll(":", "");
  const { width, height } = size;
  const place = bench && places(bench, width, height, onDrag ? undefined : ROOM_ON_PAPER);
  const isDrawn =
    bench &&
    (["front", "rear"] as const).some(
      (axle) => bench.axles[axle].fitted_drawing || bench.axles[axle].planned_drawing,
    );
  return (
    <div ref={frame} className="drawing h-full w-full overflow-hidden">
      <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-label="Corner sheet">
        <Hatches id={hatch} />
        {place && isDrawn ? (
          <>
            <line x1={width / 2} x2={width / 2} y1={14} y2={height - 30} stroke="var(--scribe-faint)" />
            {(["front", "rear"] as const).map((axle) => (
              <Corner
                key={axle}
                axle={axle}
                data={bench.axles[axle]}
                place={place[axle]}
                hatch={hatch}
                isChosen={chosen === "both" || chosen === axle}
                onDrag={onDrag}
                onHold={onHold}
              />
            ))}
            <Scale k={place.front.k} x={14} y={height - 12} />
            <text className="note" x={width - 12} y={height - 10} textAnchor="end">
              fitted in chain line · planned hatched · dotted edges not measured
              {onDrag ? " · drag a wheel in or out" : ""}
            </text>
          </>
        ) : (
          bench && (
            <text x={width / 2} y={height / 2} textAnchor="middle">
              Name a wheel with its offset, as in 18x8.5 ET35, and the corner is drawn.
            </text>
          )
        )}
      </svg>
    </div>
  );
});

function Scale({ k, x, y }: { k: number; x: number; y: number }) {
  return (
    <g stroke="var(--scribe-dim)">
      <path d={`M${x} ${y - 5}V${y}H${x + 100 * k}V${y - 5}M${x + 50 * k} ${y - 4}V${y}`} fill="none" />
      <text className="note" x={x + 100 * k + 8} y={y} stroke="none">
        100 mm, both corners
      </text>
    </g>
  );
}
