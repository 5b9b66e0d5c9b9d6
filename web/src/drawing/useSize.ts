import { type RefObject, useEffect, useRef, useState } from "react";

export type Size = { width: number; height: number };

/** The size of the frame a drawing has, in whole pixels; `start` until it is known. */
export function useSize(start: Size): [RefObject<HTMLDivElement | null>, Size] {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState(start);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry)
        setSize({ width: Math.round(entry.contentRect.width), height: Math.round(entry.contentRect.height) });
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return [frame, size];
}
