import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { useSheet } from "../job/JobSheet";
import { Proven } from "../proven/Proven";
import { Conclusions } from "./Conclusions";
import { TrialEntry } from "./TrialEntry";
import { TrialLog } from "./TrialLog";
import { useTrials } from "./useTrials";

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
      <nav className="border-base-300 flex items-center border-b px-2" aria-label="At the trial fit">
        {[
          { code: "", name: "Trials" },
          { code: "proven", name: "Proven fits" },
        ].map((one) => (
          <button
            key={one.code}
            type="button"
            aria-current={isProven === (one.code === "proven") ? "page" : undefined}
            className="plain-button aria-[current]:border-accent border-b-3 border-transparent aria-[current]:font-semibold"
            onClick={() => setAsked(one.code ? { view: one.code } : {}, { replace: true })}
          >
            {one.name}
          </button>
        ))}
        <Link className="plain-button ml-auto" to={`/jobs/${id}/trial-sheet`}>
          Print the day
        </Link>
      </nav>
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
