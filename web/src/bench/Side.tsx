import type { ReactNode } from "react";
import type { Bench } from "../api/client";
import { Tabs } from "../shared/Tabs";
import { Verdict } from "./Ledger";

export type SideView = "ledger" | "window" | "measure";

type Props = { view: SideView; bench: Bench | null; onView: (view: SideView) => void; children: ReactNode };

/** Beside the drawing: the verdict always, and below it ledger, fit window or measure list. */
export function Side({ view, bench, onView, children }: Props) {
  const asked = (bench?.measure ?? []).filter((group) => group.told_first).length;
  const tabs = [
    { code: "ledger", name: "Ledger", key: null },
    { code: "window", name: "Fit window", key: "l" },
    { code: "measure", name: asked > 0 ? `Measure ${asked}` : "Measure", key: "m" },
  ] as const;
  return (
    <aside
      className={`border-base-300 flex min-h-0 flex-col border-t min-[1100px]:border-t-0 min-[1100px]:border-l ${
        view === "window" ? "min-[1100px]:w-[440px]" : "min-[1100px]:w-[352px]"
      }`}
      aria-label="Ledger"
    >
      <div className="px-3 pt-1.5">
        <Verdict bench={bench} />
      </div>
      <Tabs label="Beside the drawing" value={view} tabs={tabs} onShow={onView} />
      <div className="min-h-0 flex-1 overflow-y-auto" role="tabpanel" aria-label={view}>
        {children}
      </div>
    </aside>
  );
}
