import { useEffect, useState } from "react";
import type { Schemas } from "../api/client";
import { isAnother } from "../api/file";
import { useLatest } from "../shared/useLatest";

export type JobChange = Schemas["JobChanged"];

/**
 * What the program tells of jobs as they change, on any screen; nothing as a change means that some were missed.
 * Whether the program can be heard. A page that nobody sees does not listen: a browser has six connections for all of
 * its windows.
 */
export function useChanges(onChange: (change: JobChange | null) => void): boolean {
  const [isConnected, setConnected] = useState(true);
  const told = useLatest(onChange);
  useEffect(() => {
    let events: EventSource | null = null;
    let again: ReturnType<typeof setTimeout> | undefined;
    let wasLost = false;
    const listen = () => {
      clearTimeout(again);
      events?.close();
      events = new EventSource("/api/v1/changes");
      events.onopen = () => {
        setConnected(true);
        // It was stopped meanwhile, and may have come back over another file.
        if (wasLost) isAnother();
        if (wasLost) told(null);
        wasLost = false;
      };
      events.addEventListener("job", (event) => told(JSON.parse(event.data) as JobChange));
      events.addEventListener("missed", () => told(null));
      events.onerror = () => {
        setConnected(false);
        wasLost = true;
        events?.close();
        again = setTimeout(listen, 1000);
      };
    };
    const seen = () => {
      if (document.visibilityState === "visible") {
        // The queries ask again by themselves when a page is looked at.
        listen();
      } else {
        clearTimeout(again);
        events?.close();
      }
    };
    seen();
    document.addEventListener("visibilitychange", seen);
    return () => {
      document.removeEventListener("visibilitychange", seen);
      clearTimeout(again);
      events?.close();
    };
  }, [told]);
  return isConnected;
}
