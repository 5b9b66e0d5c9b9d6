import { useQueryClient } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";
import { Fault } from "../shared/Caution";
import { useDeed } from "../shared/useDeed";
import { signedBy } from "./unsaved";
import type { OpenJob } from "./useJob";

const WHERE: Record<string, string> = { road: "Road & track", wishes: "the finder" };

/** What stands with the job and cannot be read: shown as it is, kept, and taken off only by hand. */
export function Unreadable({ open }: { open: OpenJob }) {
  const queries = useQueryClient();
  const { run, says, isBusy } = useDeed();
  const takeOff = (what: string) =>
    run(async () => {
      const job = await answer(
        api.DELETE("/api/v1/jobs/{id}/unreadable/{what}", {
          params: { path: { id: open.id, what }, query: { signed_by: signedBy() } },
        }),
      );
      queries.setQueryData(keys.job(open.id), job);
    });
  return open.job.unreadable.map((one) => (
    <div
      key={one.what}
      role="alert"
      className="alert caution alert-warning m-2 text-body"
      data-unreadable={one.what}
    >
      <div className="min-w-0 flex-1">
        <p>
          On this job {one.why}. It stays as it stands, and {WHERE[one.what] ?? one.what} keeps nothing new
          here until it is taken off. Undo brings it back.
        </p>
        <details className="mt-1 text-small">
          <summary>What stands there</summary>
          <pre className="max-h-40 overflow-auto whitespace-pre-wrap">{one.text}</pre>
        </details>
        {says && <Fault className="mt-1">{says}</Fault>}
      </div>
      <button type="button" className="btn btn-sm" disabled={isBusy} onClick={() => takeOff(one.what)}>
        Take it off this job
      </button>
    </div>
  ));
}
