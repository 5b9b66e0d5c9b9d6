import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { Away, answer, api, type Job, Refused } from "../api/client";
import { keyed } from "../api/upload";
import type { Content } from "./content";
import { JobSaver } from "./saver";
import { type Sent, signedBy } from "./unsaved";
import { useChanges } from "./useChanges";

const TRY_AGAIN_MS = 2000;

type Change = { sent: Sent; isAway: () => void };
type Step = { does: "undo" | "redo" | "candidates"; base: Job };

/** One job, edited here and saved by itself: [`JobSaver`] on the query library's mutations. */
export function useJob(id: number) {
  const queries = useQueryClient();
  const query = useQuery({
    queryKey: ["job", id],
    queryFn: () => loadJob(id),
    // A sheet that could not be opened is tried again; one that is not there is not.
    refetchInterval: ({ state }) => (!state.data && state.error instanceof Away ? TRY_AGAIN_MS : false),
  });
  // One after the other for each job, and again until the program answers.
  const { mutateAsync: putJob } = useMutation({
    scope: { id: `job-${id}` },
    mutationFn: ({ sent, isAway }: Change) =>
      answer(
        api.PUT("/api/v1/jobs/{id}", {
          params: { path: { id }, header: keyed(sent.key) },
          body: { ...sent.content, based_on_revision: sent.basedOn, signed_by: signedBy() },
        }),
      ).catch((error) => {
        if (error instanceof Away) isAway();
        throw error;
      }),
    retry: (_, error) => error instanceof Away,
    retryDelay: TRY_AGAIN_MS,
  });
  const { mutateAsync: takeStep } = useMutation({
    scope: { id: `job-${id}` },
    mutationFn: ({ does, base }: Step) => {
      const options = {
        params: { path: { id }, header: keyed() },
        body: { based_on_revision: base.revision, signed_by: signedBy() },
      };
      return answer(
        does === "undo"
          ? api.POST("/api/v1/jobs/{id}/undo", options)
          : does === "redo"
            ? api.POST("/api/v1/jobs/{id}/redo", options)
            : api.POST("/api/v1/jobs/{id}/candidates", options),
      );
    },
    retry: false,
  });
  const put = useRef(putJob);
  put.current = putJob;
  const saver = useMemo(
    () =>
      new JobSaver(
        id,
        (sent, isAway) => put.current({ sent, isAway }),
        (job) => {
          queries.setQueryData(["job", id], job);
          queries.invalidateQueries({ queryKey: ["side-by-side", id] });
        },
      ),
    [id, queries],
  );
  const { base, content, save, message } = useSyncExternalStore(saver.subscribe, saver.snapshot);

  /** Who changed it last, as the program told it. */
  const lastBy = useRef("");
  const isConnected = useChanges((change) => {
    if (change && change.job !== id) return;
    if (change && change.revision <= (saver.state.base?.revision ?? 0)) return;
    lastBy.current = change ? ` by ${change.who || "somebody who did not sign"}: ${change.what}` : "";
    void queries.invalidateQueries({ queryKey: ["job", id] });
  });
  useEffect(() => {
    if (query.data) saver.receive(query.data, lastBy.current);
  }, [query.data, saver]);
  useEffect(() => () => saver.stop(), [saver]);

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
        const job = await takeStep({ does, base });
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
    [saver, takeStep],
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
    }),
    [id, base, query.error, content, save, message, isConnected, saver, step],
  );
}

async function loadJob(id: number): Promise<Job> {
  return answer(api.GET("/api/v1/jobs/{id}", { params: { path: { id } } }));
}

export type JobState = ReturnType<typeof useJob>;
/** A job that has arrived. */
export type OpenJob = JobState & { job: Job; content: Content };
