import { useCallback, useRef } from "react";

/** A function that stays the same and does what the latest one does: what it is handed to is not drawn again. */
export function useLatest<A extends unknown[]>(run: (...args: A) => void): (...args: A) => void {
  const latest = useRef(run);
  latest.current = run;
  return useCallback((...args: A) => latest.current(...args), []);
}
