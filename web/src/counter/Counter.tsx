import { useInfiniteQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { answer, api, type JobSummary } from "../api/client";
import { keys } from "../api/keys";
import { SetAside } from "../job/SetAside";
import { useChanges } from "../job/useChanges";
import { Fault } from "../shared/Caution";
import { KeysDialog } from "../shared/Dialog";
import { type KeyBinding, useKeys } from "../shared/keys";
import { useTheme } from "../shared/theme";
import { useUnits } from "../shared/units";
import { JobRow } from "./JobRow";
import { NewJob, type NewJobHandle } from "./NewJob";

/** A page of the jobs, and how many there are in all. */
async function pageOfJobs(find: string, put_away: boolean, from: number) {
  let total = 0;
  const call = api.GET("/api/v1/jobs", { params: { query: { find, put_away, from } } });
  const jobs: JobSummary[] = await answer(
    call.then((outcome) => {
      total = Number(outcome.response.headers.get("x-total-count") ?? 0);
      return outcome;
    }),
  );
  return { jobs, total };
}

/** The counter: find a job, open one, start a new one. */
export function Counter() {
  const [find, setFind] = useState("");
  const [putAway, setPutAway] = useState(false);
  const [showsKeys, setShowsKeys] = useState(false);
  const { units, next } = useUnits();
  const { isDark, toggle } = useTheme();
  const findField = useRef<HTMLInputElement>(null);
  const newJob = useRef<NewJobHandle>(null);
  const query = useInfiniteQuery({
    queryKey: keys.jobs(find, putAway),
    queryFn: ({ pageParam }) => pageOfJobs(find, putAway, pageParam),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const seen = pages.reduce((count, page) => count + page.jobs.length, 0);
      return last.jobs.length > 0 && seen < last.total ? seen : undefined;
    },
    placeholderData: (before) => before,
  });
  const queries = useQueryClient();
  useChanges(() => void queries.invalidateQueries({ queryKey: keys.allJobs() }));
  const shortcuts: KeyBinding[] = [
    { keys: ["/"], shown: "/", does: "find a job", run: () => findField.current?.focus() },
    { keys: ["n"], shown: "n", does: "new job", run: () => newJob.current?.focus() },
    { keys: ["u"], shown: "u", does: "units", run: next },
    { keys: ["?", "Shift+?"], shown: "?", does: "these keys", run: () => setShowsKeys(true) },
  ];
  useKeys(shortcuts);
  useEffect(() => {
    document.title = "Counter · Dimensione";
  }, []);
  const jobs = query.data?.pages.flatMap((page) => page.jobs) ?? [];
  const total = query.data?.pages[0]?.total ?? 0;
  return (
    <div className="min-h-dvh p-[10px]">
      <div className="sheet flex min-h-[calc(100dvh-20px)] flex-col">
        <header className="border-base-300 flex flex-wrap items-stretch border-b">
          <p className="bg-primary text-primary-content flex items-center px-3 py-2 text-lead font-semibold tracking-wide">
            Dimensione
          </p>
          <h1 className="flex items-center px-3 text-lead">Counter</h1>
          <label className="ml-auto flex items-center gap-2 px-3">
            <span className="label-small">Find</span>
            <input
              ref={findField}
              type="search"
              className="input input-sm w-[260px] text-body"
              placeholder="number, car, wish or size"
              value={find}
              onChange={(event) => setFind(event.target.value)}
            />
            <span className="key">/</span>
          </label>
          <button
            type="button"
            className="plain-button"
            aria-pressed={putAway}
            onClick={() => setPutAway(!putAway)}
          >
            {putAway ? "Open jobs" : "Put away"}
          </button>
          <Link
            to="/house"
            className="plain-button flex items-center"
            title="Limits, instruments, people, units"
          >
            House
          </Link>
          <button type="button" className="plain-button" onClick={next}>
            {units.length} · {units.speed} · {units.pressure}
          </button>
          <button type="button" className="plain-button" onClick={toggle}>
            {isDark ? "Light" : "Dark"}
          </button>
          <button
            type="button"
            className="plain-button"
            onClick={() => setShowsKeys(true)}
            aria-label="All keys"
          >
            <span className="key">?</span>
          </button>
        </header>
        <main className="flex flex-1 flex-col">
          <NewJob ref={newJob} />
          <SetAside />
          {query.error && (
            <Fault className="px-4 py-2 text-body">
              The program does not answer, so this list may be old.{" "}
              <button type="button" className="cursor-pointer underline" onClick={() => query.refetch()}>
                Try again
              </button>
            </Fault>
          )}
          {jobs.length > 0 ? (
            <ul aria-label={putAway ? "Jobs put away" : "Open jobs"}>
              {jobs.map((job) => (
                <JobRow key={job.id} job={job} />
              ))}
              {query.hasNextPage && (
                <li className="px-4 py-2 text-body">
                  {jobs.length} of {total} jobs.{" "}
                  <button
                    type="button"
                    className="plain-button text-accent font-medium"
                    disabled={query.isFetchingNextPage}
                    onClick={() => void query.fetchNextPage()}
                  >
                    Show more
                  </button>
                </li>
              )}
            </ul>
          ) : (
            query.data && (
              <p className="px-4 py-6 text-lead">
                {find
                  ? `No ${putAway ? "job put away" : "open job"} has “${find}” in its number, car, wish, notes or setups.`
                  : putAway
                    ? "Nothing is put away."
                    : "No jobs yet. Name the car and say what is fitted in the line above: that is enough to start."}
              </p>
            )
          )}
          <p className="mt-auto px-4 py-2 text-small opacity-85">
            Figures here plan; they do not replace a trial fit. Local codes and licensed inspectors have the
            last word.
          </p>
        </main>
      </div>
      {showsKeys && (
        <KeysDialog
          groups={[{ title: "At the counter", keys: shortcuts }]}
          onClose={() => setShowsKeys(false)}
        />
      )}
    </div>
  );
}
