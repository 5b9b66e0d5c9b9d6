import { useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";
import { Fault } from "../shared/Caution";
import { useDeed } from "../shared/useDeed";
import { signedBy } from "./unsaved";

/** A job that cannot be opened: why, and the one thing that helps. */
export function Damaged({ id, why }: { id: number; why: string }) {
  const queries = useQueryClient();
  const { run, says, isBusy } = useDeed();
  const mend = () =>
    run(async () => {
      const job = await answer(
        api.POST("/api/v1/jobs/{id}/mend", { params: { path: { id }, query: { signed_by: signedBy() } } }),
      );
      queries.setQueryData(keys.job(id), job);
    });
  return (
    <div className="min-h-dvh p-[10px]">
      <main className="sheet min-h-[calc(100dvh-20px)] p-6 text-lead">
        <h1 className="text-head">This job cannot be opened</h1>
        <p className="mt-1" role="alert">
          {why}
        </p>
        <p className="mt-2">
          The journal notes every change of a job. Put back from it, the job is as it was after the last
          change that can be read; undo begins anew from there.
        </p>
        <p className="mt-3 flex items-center gap-3">
          <button type="button" className="btn btn-primary btn-sm" disabled={isBusy} onClick={mend}>
            Put back from its journal
          </button>
          <Link to="/" className="plain-button">
            ‹ Counter
          </Link>
        </p>
        {says && <Fault className="mt-2">{says}</Fault>}
      </main>
    </div>
  );
}
