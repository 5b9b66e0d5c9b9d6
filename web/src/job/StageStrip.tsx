import { Link } from "react-router";
import { useTheme } from "../shared/theme";
import { useUnits } from "../shared/units";
import { SaveMark } from "./SaveMark";
import { STAGES } from "./stages";
import type { OpenJob } from "./useJob";

type Props = { open: OpenJob; view: string; onCompare: () => void; onKeys: () => void };

/** The order of the work with where the job stands, the views of the sheet, and what the sheet's state is. */
export function StageStrip({ open, view, onCompare, onKeys }: Props) {
  const { content, job } = open;
  const { units, next } = useUnits();
  const { isDark, toggle } = useTheme();
  const here = STAGES.findIndex((stage) => stage.code === content.stage);
  return (
    <header className="border-base-300 flex flex-wrap items-stretch border-b">
      <Link to="/" className="plain-button flex items-center font-medium" title="To the counter (0)">
        ‹ Counter
      </Link>
      <nav className="border-base-300 flex flex-wrap items-stretch border-l" aria-label="Stages of the work">
        {STAGES.map((stage, at) => {
          const standing = at < here ? "done" : at === here ? "here" : "to come";
          const look = `flex items-center gap-1.5 px-2 py-2 text-small ${at === here ? "font-semibold" : ""}`;
          return stage.path ? (
            <Link
              key={stage.code}
              to={`/jobs/${open.id}/${stage.path}`}
              aria-current={view === stage.path ? "page" : undefined}
              className={`${look} hover:bg-base-300/60 cursor-pointer aria-[current]:bg-primary aria-[current]:text-primary-content`}
            >
              <StageMark is={standing} />
              {stage.name}
            </Link>
          ) : (
            <span key={stage.code} className={`${look} opacity-85`} title="Has no screen yet">
              <StageMark is={standing} />
              {stage.name}
            </span>
          );
        })}
      </nav>
      <nav className="border-base-300 ml-auto flex items-stretch border-l" aria-label="Views">
        <Link
          to={`/jobs/${open.id}/motion`}
          aria-current={view === "motion" ? "page" : undefined}
          className="plain-button aria-[current]:bg-primary aria-[current]:text-primary-content flex items-center px-3"
        >
          Motion
        </Link>
        <Link
          to={`/jobs/${open.id}/compare`}
          aria-current={view === "compare" ? "page" : undefined}
          className="plain-button aria-[current]:bg-primary aria-[current]:text-primary-content flex items-center px-3"
          onClick={(event) => {
            if (view === "compare") {
              event.preventDefault();
              onCompare();
            }
          }}
        >
          Compare
        </Link>
        <Link to={`/jobs/${open.id}/sheet`} className="plain-button flex items-center px-3">
          Print
        </Link>
      </nav>
      <div className="border-base-300 flex items-center border-l pl-2">
        <SaveMark open={open} />
        <button
          type="button"
          className="plain-button"
          disabled={!job.can_undo}
          onClick={open.undo}
          title={job.undoes ? `Undo ${job.undoes} (z)` : "Nothing to undo"}
        >
          Undo
        </button>
        <button type="button" className="plain-button" onClick={next} title="Units (u)">
          {units.length} · {units.speed} · {units.pressure}
        </button>
        <button type="button" className="plain-button" onClick={toggle} title="Light or dark shop">
          {isDark ? "Light" : "Dark"}
        </button>
        <button type="button" className="plain-button" onClick={onKeys} title="All keys (?)">
          <span className="key">?</span>
        </button>
      </div>
    </header>
  );
}

/** Done, here, to come: three shapes. */
function StageMark({ is }: { is: "done" | "here" | "to come" }) {
  return (
    <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden="true">
      {is === "done" && <path d="M1.5 5.4 4 8 8.5 2" fill="none" stroke="currentColor" strokeWidth="1.8" />}
      {is === "here" && <path d="M1 1h8L5 9Z" className="fill-accent" />}
      {is === "to come" && (
        <circle cx="5" cy="5" r="3" fill="none" stroke="currentColor" strokeDasharray="1.6 1.6" />
      )}
    </svg>
  );
}
