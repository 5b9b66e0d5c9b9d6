import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { useSheet } from "../job/JobSheet";
import { Proven } from "../proven/Proven";
import { Tabs } from "../shared/Tabs";
import { Conclusions } from "./Conclusions";
import { TrialEntry } from "./TrialEntry";
import { TrialLog } from "./TrialLog";
import { useTrials } from "./useTrials";

const VIEWS = [
  { code: "trials", name: "Trials" },
  { code: "proven", name: "Proven fits" },
] as const;

/** The trial fit: what was tried on, what that says, and what proved itself on other cars. */
export function Trial() {
  const { open, setViewKeys } = useSheet();
  const { content, edit, id } = open;
  const [asked, setAsked] = useSearchParams();
  const isProven = asked.get("view") === "proven";
  useEffect(() => setViewKeys([]), [setViewKeys]);
  const { data: trials } = useTrials(open);
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <h1 className="sr-only">Trial fit: {content.car_label}</h1>
      <div className="relative">
        <Tabs
          label="At the trial fit"
          value={isProven ? "proven" : "trials"}
          tabs={VIEWS}
          onShow={(code) => setAsked(code === "proven" ? { view: code } : {}, { replace: true })}
        />
        <Link className="plain-button absolute top-0.5 right-2" to={`/jobs/${id}/trial-sheet`}>
          Print the day
        </Link>
      </div>
      {isProven ? (
        <Proven open={open} />
      ) : (
        <div className="flex min-h-0 flex-1 flex-col overflow-y-auto min-[1000px]:flex-row min-[1000px]:overflow-hidden">
          <TrialEntry open={open} onAdd={(trial) => edit({ trials: [...content.trials, trial] })} />
          <TrialLog open={open} trials={trials} />
          <Conclusions trials={trials} />
        </div>
      )}
    </main>
  );
}
