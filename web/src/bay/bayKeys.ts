import type { KeyBinding } from "../shared/keys";
import type { EntryHandle } from "./Entry";

/** What the bay's keys do. */
type Deeds = {
  entry: () => EntryHandle | null;
  go: (to: Record<string, string>) => void;
  /** So many readings on, or back. */
  goBy: (by: number) => void;
};

/** The keys of the bay. */
export function bayKeys({ entry, go, goBy }: Deeds): KeyBinding[] {
  return [
    { keys: ["g"], shown: "g", does: "take what the gauge shows", run: () => entry()?.takeGauge() },
    {
      keys: [..."0123456789.,-"],
      shown: "0…9",
      does: "the figure",
      takesFigures: true,
      run: (key) => entry()?.type(key),
    },
    { keys: ["/"], shown: "/", does: "type a figure", run: () => entry()?.focus() },
    { keys: ["f"], shown: "f", does: "front axle", run: () => go({ axle: "front" }) },
    { keys: ["r"], shown: "r", does: "rear axle", run: () => go({ axle: "rear" }) },
    {
      keys: ["ArrowLeft", "ArrowRight"],
      shown: "← →",
      does: "left side, right side",
      run: (key) => go({ side: key === "ArrowLeft" ? "left" : "right" }),
    },
    {
      keys: ["ArrowUp", "ArrowDown"],
      shown: "↑ ↓",
      does: "the reading before, the next one",
      run: (key) => goBy(key === "ArrowUp" ? -1 : 1),
    },
  ];
}
