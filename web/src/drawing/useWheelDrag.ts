import { type PointerEvent, useRef } from "react";
import type { Axle } from "../api/client";

export type DragProps = {
  axle: Axle;
  /** The wheel was moved outboard by so many millimetres since the last call. */
  onDrag?: (axle: Axle, out: number) => void;
  onHold?: (held: boolean) => void;
};

/** The hand on the wheel: whole millimetres, counted from where it took hold; `k` pixels to the millimetre. */
export function useWheelDrag({ axle, onDrag, onHold }: DragProps, k: number) {
  const held = useRef<{ x: number; sent: number } | null>(null);
  const release = () => {
    if (held.current) onHold?.(false);
    held.current = null;
  };
  return {
    onPointerDown: (event: PointerEvent<SVGGElement>) => {
      if (event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { x: event.clientX, sent: 0 };
      onHold?.(true);
    },
    onPointerMove: (event: PointerEvent<SVGGElement>) => {
      const hold = held.current;
      if (!hold) return;
      const out = Math.round((event.clientX - hold.x) / k);
      if (out !== hold.sent) {
        onDrag?.(axle, out - hold.sent);
        hold.sent = out;
      }
    },
    onPointerUp: release,
    onPointerCancel: release,
  };
}
