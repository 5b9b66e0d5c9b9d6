import { useEffect, useState } from "react";
import { Outlet, useLocation, useNavigate, useOutletContext } from "react-router";
import { type Job, Refused } from "../api/client";
import { NotThere } from "../app/NotThere";
import { KeysDialog } from "../shared/Dialog";
import { type KeyBinding, useKeys } from "../shared/keys";
import { useUnits } from "../shared/units";
import { Damaged } from "./Damaged";
import { SetAside } from "./SetAside";
import { StageStrip } from "./StageStrip";
import { StaleNotice } from "./StaleNotice";
import { STAGES } from "./stages";
import { TitleBlock } from "./TitleBlock";
import { Unreadable } from "./Unreadable";
import { type OpenJob, useJob, useJobAt } from "./useJob";

export type SheetContext = {
  open: OpenJob;
  /** A view adds its own keys to the sheet's, and to the list under `?`. */
  setViewKeys: (keys: KeyBinding[]) => void;
};

export const useSheet = () => useOutletContext<SheetContext>();

/** The sheet of the job at a number. Another job there, of another file, has a sheet of its own: nothing of one reaches another. */
export function JobSheet({ id }: { id: number }) {
  const { data: job, error: failure } = useJobAt(id);
  if (job) return <Sheet key={job.uid} first={job} />;
  if (failure instanceof Refused && failure.problem.status === 404) return <NotThere what="job" />;
  if (failure instanceof Refused) return <Damaged id={id} why={failure.problem.detail} />;
  return (
    <main className="p-6">
      <p role="status">{failure ? "The program does not answer. Trying again…" : "Opening the sheet…"}</p>
      {failure && (
        <button type="button" className="btn btn-sm mt-3" onClick={() => window.location.reload()}>
          Try now
        </button>
      )}
    </main>
  );
}

/** A job's sheet: the stages along its top, the view in the middle, the title block at its foot. */
function Sheet({ first }: { first: Job }) {
  const { id } = first;
  const state = useJob(first);
  const { job, content } = state;
  const [viewKeys, setViewKeys] = useState<KeyBinding[]>([]);
  const [showsKeys, setShowsKeys] = useState(false);
  const { next: nextUnits } = useUnits();
  const navigate = useNavigate();
  const view = useLocation().pathname.split("/").at(-1);

  const toggleCompare = () => navigate(`/jobs/${id}/${view === "compare" ? "bench" : "compare"}`);
  const sheetKeys: KeyBinding[] = [
    {
      keys: STAGES.flatMap(({ path }, at) => (path ? [String(at + 1)] : [])),
      shown: `1…${STAGES.filter(({ path }) => path).length}`,
      does: "the screen of a stage of the work",
      run: (key) => navigate(`/jobs/${id}/${STAGES[Number(key) - 1]?.path}`),
    },
    {
      keys: ["c"],
      shown: "c",
      does: "compare, and back to the bench",
      run: toggleCompare,
    },
    {
      keys: ["o"],
      shown: "o",
      does: "the plan in motion, and back to the bench",
      run: () => navigate(`/jobs/${id}/${view === "motion" ? "bench" : "motion"}`),
    },
    { keys: ["k"], shown: "k", does: "keep the plan as a candidate", run: state.keep },
    { keys: ["z"], shown: "z", does: "undo", run: state.undo },
    { keys: ["Shift+z"], shown: "Shift z", does: "redo", run: state.redo },
    { keys: ["u"], shown: "u", does: "units", run: nextUnits },
    { keys: ["p"], shown: "p", does: "print sheet", run: () => navigate(`/jobs/${id}/sheet`) },
    { keys: ["0"], shown: "0", does: "to the counter", run: () => navigate("/") },
    { keys: ["?", "Shift+?"], shown: "?", does: "these keys", run: () => setShowsKeys(true) },
  ];
  useKeys([...viewKeys, ...sheetKeys]);
  useEffect(() => {
    document.title = content ? `${content.car_label} · Dimensione` : "Dimensione";
  }, [content]);

  if (!job || !content) {
    return (
      <main className="p-6">
        <p role="status">Opening the sheet…</p>
      </main>
    );
  }
  const open: OpenJob = { ...state, job, content };
  const context: SheetContext = { open, setViewKeys };
  if (view === "sheet" || view === "bay-sheet" || view === "trial-sheet") return <Outlet context={context} />;
  return (
    <div className="flex min-h-dvh flex-col p-[10px] min-[1100px]:h-dvh">
      <div className="sheet flex min-h-0 flex-1 flex-col">
        <StageStrip
          open={open}
          view={view ?? ""}
          onCompare={toggleCompare}
          onKeys={() => setShowsKeys(true)}
        />
        <StaleNotice open={open} />
        <Unreadable open={open} />
        <SetAside open={open} />
        <Outlet context={context} />
        <TitleBlock open={open} />
      </div>
      <p className="sr-only" role="status">
        {state.message}
      </p>
      {showsKeys && (
        <KeysDialog
          groups={[
            { title: "On this screen", keys: viewKeys },
            { title: "Everywhere on the sheet", keys: sheetKeys },
          ].filter((group) => group.keys.length > 0)}
          onClose={() => setShowsKeys(false)}
        />
      )}
    </div>
  );
}
