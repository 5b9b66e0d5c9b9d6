import type { Axle, Step } from "../api/client";
import type { KeyBinding } from "../shared/keys";

/** What the bench's keys do. */
type Deeds = {
  toLine: () => void;
  /** The axle that line and keys act on; the same again for both. */
  toAxle: (axle: Axle) => void;
  step: (change: Partial<Step>) => void;
  toggle: (view: "window" | "measure") => void;
  toggleWorking: () => void;
};

/** The keys of the bench. */
export function benchKeys({ toLine, toAxle, step, toggle, toggleWorking }: Deeds): KeyBinding[] {
  return [
    { keys: ["/"], shown: "/", does: "setup line", run: toLine },
    {
      keys: ["f"],
      shown: "f",
      does: "front axle, again for both",
      run: () => toAxle("front"),
    },
    {
      keys: ["r"],
      shown: "r",
      does: "rear axle, again for both",
      run: () => toAxle("rear"),
    },
    {
      keys: ["ArrowLeft", "ArrowRight"],
      shown: "← →",
      does: "wheel in, out by 1 mm of offset",
      run: (key) => step({ offset_mm: key === "ArrowLeft" ? 1 : -1 }),
    },
    {
      keys: ["Shift+ArrowLeft", "Shift+ArrowRight"],
      shown: "Shift ← →",
      does: "by 5 mm",
      run: (key) => step({ offset_mm: key.endsWith("Left") ? 5 : -5 }),
    },
    {
      keys: ["ArrowUp", "ArrowDown"],
      shown: "↑ ↓",
      does: "rim width by ½ in",
      run: (key) => step({ rim_width_quarter_in: key === "ArrowUp" ? 2 : -2 }),
    },
    {
      keys: ["[", "]"],
      shown: "[ ]",
      does: "spacer by 1 mm",
      run: (key) => step({ spacer_mm: key === "]" ? 1 : -1 }),
    },
    { keys: ["l"], shown: "l", does: "fit window and levers", run: () => toggle("window") },
    { keys: ["m"], shown: "m", does: "measure list", run: () => toggle("measure") },
    {
      keys: ["w"],
      shown: "w",
      does: "working of the marked line",
      run: toggleWorking,
    },
  ];
}
