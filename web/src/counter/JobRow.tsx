import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { Away, answer, api, type JobSummary, matching, Refused } from "../api/client";
import { keys } from "../api/keys";
import { keyed } from "../api/upload";
import { asLine, contentOf, isEmpty } from "../job/content";
import { stageName } from "../job/stages";
import { signedBy } from "../job/unsaved";
import { InlineFault } from "../shared/Caution";

/** One job on the counter: what is fitted, what is planned, where it stands. */
export function JobRow({ job }: { job: JobSummary }) {
  const queries = useQueryClient();
  const move = useMutation({
    mutationFn: async (put_away: boolean) => {
      const path = { id: job.id };
      const whole = await answer(api.GET("/api/v1/jobs/{id}", { params: { path } }));
      const body = { ...contentOf(whole), put_away, based_on_revision: job.revision, signed_by: signedBy() };
      if (whole.uid !== job.uid) throw new Away("The list is of another file.");
      const params = { path, header: keyed() };
      return answer(api.PUT("/api/v1/jobs/{id}", { params, headers: matching(whole), body }));
    },
    onSettled: () => queries.invalidateQueries({ queryKey: keys.allJobs() }),
  });
  if (job.damaged) return <DamagedRow job={job} />;
  return (
    <li className="border-base-300 hover:bg-base-200 relative grid grid-cols-[58px_minmax(180px,1fr)_minmax(0,2.2fr)_96px_auto] items-center gap-x-4 border-b px-4 py-2 has-[a:focus-visible]:outline-2">
      <span className="text-lead font-semibold">{job.number}</span>
      <span className="min-w-0">
        <Link
          to={`/jobs/${job.id}/bench`}
          className="block truncate text-lead leading-6 font-semibold after:absolute after:inset-0 focus:outline-none"
        >
          {job.car_label}
        </Link>
        <span className="block truncate text-small opacity-85">{job.wish || "no wish noted"}</span>
      </span>
      <span className="min-w-0 text-body">
        <Line label="fitted" text={asLine(job.fitted) || "not stated"} isDashed />
        <Line label="planned" text={isEmpty(job.planned) ? "nothing yet" : asLine(job.planned)} />
      </span>
      <span className="text-body">
        <span className="block">{job.stage && stageName(job.stage)}</span>
        <span className="block text-note opacity-85">
          {job.candidates > 0 ? `${job.candidates} kept` : ""}
        </span>
      </span>
      <span className="relative z-10 text-right text-small">
        <time dateTime={job.updated_at} className="block opacity-85">
          {changed(job.updated_at)}
        </time>
        <button
          type="button"
          className="plain-button -mr-2"
          onClick={() => move.mutate(!job.put_away)}
          aria-label={`${job.put_away ? "Take out" : "Put away"} ${job.car_label}`}
        >
          {job.put_away ? "Take out" : "Put away"}
        </button>
        {move.error && (
          <InlineFault className="block">
            {move.error instanceof Refused
              ? "Changed elsewhere: look again."
              : "The program does not answer."}
          </InlineFault>
        )}
      </span>
    </li>
  );
}

/** A job that cannot be read: what of it, and what can be done. */
function DamagedRow({ job }: { job: JobSummary }) {
  const queries = useQueryClient();
  const mend = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/v1/jobs/{id}/mend", {
          params: { path: { id: job.id }, query: { signed_by: signedBy() } },
        }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.allJobs() }),
  });
  return (
    <li className="border-base-300 flex items-center gap-x-4 border-b px-4 py-2" data-damaged={job.id}>
      <span className="w-[58px] text-lead font-semibold">{job.number}</span>
      <span className="alert caution alert-error min-w-0 flex-1">
        <span className="block text-lead leading-6 font-semibold">{job.car_label}</span>
        <span className="block text-body">
          Damaged: {job.damaged}. Its journal still knows it; the other jobs are not touched.
        </span>
        {mend.error && <InlineFault className="block text-small">{mend.error.message}</InlineFault>}
      </span>
      <button
        type="button"
        className="btn btn-sm"
        disabled={mend.isPending}
        onClick={() => mend.mutate()}
        aria-label={`Put ${job.car_label} back from its journal`}
      >
        Put back from its journal
      </button>
    </li>
  );
}

function Line({ label, text, isDashed }: { label: string; text: string; isDashed?: boolean }) {
  return (
    <span className="flex items-baseline gap-2">
      <span className="label-small w-[54px] shrink-0">{label}</span>
      <span className={`truncate ${isDashed ? "" : "font-medium"}`} title={text}>
        {text}
      </span>
    </span>
  );
}

function changed(at: string): string {
  const time = new Date(at);
  const isToday = time.toDateString() === new Date().toDateString();
  return isToday
    ? time.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hour12: false })
    : time.toLocaleDateString([], { day: "numeric", month: "short" });
}
