import { useEffect, useRef } from "react";
import type { KeyBinding } from "./keys";

/** Registers a view's keys once; each binding runs what it is now. */
export function useViewKeys(keys: KeyBinding[], setViewKeys: (keys: KeyBinding[]) => void) {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    setViewKeys(
      latest.current.map((binding, at) => ({
        ...binding,
        run: (key) => latest.current[at]?.run(key),
      })),
    );
    return () => setViewKeys([]);
  }, [setViewKeys]);
}
