import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Job, Refused } from "../api/client";
import { asLine, contentOf, isEmpty } from "../job/content";
import { stageName } from "../job/stages";
import { signedBy } from "../job/unsaved";

/** One job on the counter: what is fitted, what is planned, where it stands. */
export function JobRow({ job }: { job: Job }) {
  const queries = useQueryClient();
  const move = useMutation({
    mutationFn: (put_away: boolean) =>
      answer(
        api.PUT("/api/v1/jobs/{id}", {
          params: { path: { id: job.id } },
          body: { ...contentOf(job), put_away, based_on_revision: job.revision, signed_by: signedBy() },
        }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: ["jobs"] }),
  });
  return (
    <li className="border-base-300 hover:bg-base-200 relative grid grid-cols-[58px_minmax(180px,1fr)_minmax(0,2.2fr)_96px_auto] items-center gap-x-4 border-b px-4 py-2 has-[a:focus-visible]:outline-2">
      <span className="text-[17px] font-semibold">{job.number}</span>
      <span className="min-w-0">
        <Link
          to={`/jobs/${job.id}/bench`}
          className="block truncate text-[18px] leading-6 font-semibold after:absolute after:inset-0 focus:outline-none"
        >
          {job.car_label}
        </Link>
        <span className="block truncate text-[14px] opacity-85">{job.wish || "no wish noted"}</span>
      </span>
      <span className="min-w-0 text-[15px]">
        <Line label="fitted" text={asLine(job.fitted) || "not stated"} isDashed />
        <Line label="planned" text={isEmpty(job.planned) ? "nothing yet" : asLine(job.planned)} />
      </span>
      <span className="text-[15px]">
        <span className="block">{stageName(job.stage)}</span>
        <span className="block text-[13px] opacity-85">
          {job.candidates.length > 0 ? `${job.candidates.length} kept` : ""}
        </span>
      </span>
      <span className="relative z-10 text-right text-[14px]">
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
          <span role="alert" className="text-error block">
            {move.error instanceof Refused
              ? "Changed elsewhere: look again."
              : "The program does not answer."}
          </span>
        )}
      </span>
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
