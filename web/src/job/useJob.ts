import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { Away, answer, api, type Job, Refused } from "../api/client";
import { keys } from "../api/keys";
import type { Content } from "./content";
import { type Step, useLane } from "./lane";
import { ReadingsQueue } from "./readings";
import { JobSaver } from "./saver";
import { calledOf } from "./unsaved";
import { useChanges } from "./useChanges";

const TRY_AGAIN_MS = 2000;

/** The job at a number, as the program has it. */
export function useJobAt(id: number) {
  return useQuery({
    queryKey: keys.job(id),
    queryFn: () => loadJob(id),
    // A sheet that could not be opened is tried again; one that is not there is not.
    refetchInterval: ({ state }) => (!state.data && state.error instanceof Away ? TRY_AGAIN_MS : false),
  });
}

/**
 * One job, edited here and saved by itself: the sheet by [`JobSaver`], readings by [`ReadingsQueue`], one [`Lane`]. It is this
 * very job, by its uid: another of the same number has a sheet of its own.
 */
export function useJob(first: Job) {
  const { id, uid } = first;
  const queries = useQueryClient();
  const query = useJobAt(id);
  const lane = useLane(id);
  const saver = useMemo(
    () =>
      new JobSaver(
        uid,
        lane.put,
        (job) => {
          queries.setQueryData(keys.job(id), job);
          queries.invalidateQueries({ queryKey: keys.sideBySideOf(id) });
        },
        () => {
          const again = async () => {
            try {
              const job = await loadJob(id);
              queries.setQueryData(keys.job(id), job);
              saver.receive(job);
            } catch (error) {
              if (error instanceof Away) setTimeout(again, TRY_AGAIN_MS);
            }
          };
          void again();
        },
      ),
    [id, uid, lane, queries],
  );
  const begun = useRef(first);
  const readings = useMemo(() => {
    const now = () => {
      const job = saver.state.base ?? begun.current;
      return { tag: { uid, token: job.token }, called: calledOf(job) };
    };
    return new ReadingsQueue(uid, lane, saver.adopt, now);
  }, [uid, lane, saver]);
  const { queue, isAway: areKept, trouble } = useSyncExternalStore(readings.subscribe, readings.snapshot);
  // On any of the job's screens, not only where they were taken.
  useEffect(() => void readings.send(), [readings]);
  const { base, content, save, message } = useSyncExternalStore(saver.subscribe, saver.snapshot);

  /** Who changed it last, as the program told it. */
  const lastBy = useRef("");
  const isConnected = useChanges((change) => {
    if (change && change.job !== id) return;
    const isOurs = change?.uid === uid && change.revision <= (saver.state.base?.revision ?? 0);
    if (isOurs) return;
    lastBy.current = change ? ` by ${change.who || "somebody who did not sign"}: ${change.what}` : "";
    void queries.invalidateQueries({ queryKey: keys.job(id) });
  });
  useEffect(() => {
    // A sheet of another job is made anew: see `JobSheet`.
    if (query.data) saver.receive(query.data, lastBy.current);
  }, [query.data, saver]);
  useEffect(() => {
    saver.start();
    return saver.stop;
  }, [saver]);

  const step = useCallback(
    async (does: Step["does"]) => {
      if (saver.state.save.is === "away") {
        saver.say("The program does not answer; try again when it is back.");
        return;
      }
      if (!(await saver.flush())) return;
      const { base } = saver.state;
      if (!base) return;
      try {
        const job = await lane.step({ does, base });
        saver.adopt(job);
        const kept = job.candidates.at(-1)?.letter ?? "";
        saver.say(
          does === "undo"
            ? `Undone: ${base.undoes}.`
            : does === "redo"
              ? `Done again: ${base.redoes}.`
              : `Kept as ${kept}.`,
        );
      } catch (error) {
        if (error instanceof Refused && error.problem.current) saver.receive(error.problem.current);
        else if (error instanceof Away) saver.say("The program does not answer; try again.");
        else saver.say((error as Error).message);
      }
    },
    [saver, lane],
  );

  return useMemo(
    () => ({
      id,
      /** As the program has it. */
      job: base,
      failure: query.error,
      /** As it is edited here. */
      content,
      save,
      message,
      isConnected,
      setMessage: saver.say,
      edit: saver.edit,
      adopt: saver.adopt,
      hold: saver.hold,
      settle: saver.settle,
      /** Sends what is on its way; whether the program then has all of it. */
      flush: saver.flush,
      undo: () => void step("undo"),
      redo: () => void step("redo"),
      keep: () => void step("candidates"),
      readings: {
        /** Taken, and not with the program yet. */
        queue,
        trouble,
        waiting: queue.filter((one) => !one.refused).length,
        /** The program is away, and they wait for it in the browser. */
        areKept,
        take: readings.take,
        remove: readings.remove,
        copyOver: readings.copyOver,
      },
    }),
    [
      id,
      base,
      query.error,
      content,
      save,
      message,
      isConnected,
      saver,
      step,
      queue,
      areKept,
      trouble,
      readings,
    ],
  );
}

async function loadJob(id: number): Promise<Job> {
  return answer(api.GET("/api/v1/jobs/{id}", { params: { path: { id } } }));
}

export type JobState = ReturnType<typeof useJob>;
/** A job that has arrived. */
export type OpenJob = JobState & { job: Job; content: Content };
