import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Away, answer, api, type Job, type Problem, Refused } from "../api/client";
import { keyed, newKey } from "../api/upload";
import { type Content, contentOf, same } from "./content";
import { forgetUnsaved, keepUnsaved, readUnsaved, type Sent, signedBy } from "./unsaved";

export type SaveState =
  | { is: "saved"; at: string }
  | { is: "saving" }
  | { is: "away" }
  | { is: "refused"; why: string; errors: Problem["errors"] }
  | { is: "stale"; current: Job };

const SAVE_AFTER_MS = 500;
const TRY_AGAIN_MS = 2000;

/**
 * One job, edited here and saved by itself.
 *
 * Edits go into `content` at once and to the program half a second after the last one. While the program does
 * not answer they are kept in the browser and tried again. A revision made elsewhere is never written over in
 * silence: the state turns `stale` and the person chooses.
 */
export function useJob(id: number) {
  const queries = useQueryClient();
  const query = useQuery({
    queryKey: ["job", id],
    queryFn: () => loadJob(id),
    // A sheet that could not be opened is tried again; one that is not there is not.
    refetchInterval: ({ state }) => (!state.data && state.error instanceof Away ? TRY_AGAIN_MS : false),
  });
  const [content, setContent] = useState<Content | null>(null);
  const [save, setSave] = useState<SaveState>({ is: "saving" });
  const [message, setMessage] = useState("");

  // What the saver works from, outside of rendering.
  const now = useRef<{
    base: Job | null;
    content: Content | null;
    busy: boolean;
    held: boolean;
    timer: number;
    sent: Sent | null;
  }>({ base: null, content: null, busy: false, held: false, timer: 0, sent: null });

  const show = useCallback((next: Content) => {
    now.current.content = next;
    setContent(next);
  }, []);

  const takeOver = useCallback(
    (job: Job) => {
      now.current.base = job;
      queries.setQueryData(["job", id], job);
      queries.invalidateQueries({ queryKey: ["side-by-side", id] });
      setSave({ is: "saved", at: job.updated_at });
    },
    [id, queries],
  );

  /** Sends what is unsaved; true when nothing is left to save. */
  const flush = useCallback(async (): Promise<boolean> => {
    const state = now.current;
    window.clearTimeout(state.timer);
    while (state.busy) await new Promise((done) => setTimeout(done, 20));
    const { base, content: wanted } = state;
    if (!base || !wanted) return true;
    if (!state.sent && same(contentOf(base), wanted)) {
      forgetUnsaved(id);
      return true;
    }
    state.busy = true;
    setSave({ is: "saving" });
    // A change whose answer was lost may be applied already. It goes first, as it was, under its own key: so it is
    // never taken for somebody else's, and what was typed since follows on top of it.
    const sent = state.sent ?? { content: wanted, basedOn: base.revision, key: newKey() };
    state.sent = sent;
    keepUnsaved(id, { basedOn: base.revision, content: wanted, sent });
    try {
      const job = await answer(
        api.PUT("/api/v1/jobs/{id}", {
          params: { path: { id }, header: keyed(sent.key) },
          body: { ...sent.content, based_on_revision: sent.basedOn, signed_by: signedBy() },
        }),
      );
      state.sent = null;
      state.busy = false;
      const isOurs = job.revision <= sent.basedOn + 1 || same(contentOf(job), sent.content);
      if (state.content === sent.content) {
        takeOver(job);
        forgetUnsaved(id);
        // The program tidies texts; what was typed since is left alone.
        show(contentOf(job));
        if (!isOurs) setMessage(`Brought up to revision ${job.revision}, changed elsewhere.`);
        return true;
      }
      keepUnsaved(id, { basedOn: job.revision, content: state.content ?? wanted });
      if (!isOurs) {
        // Ours was applied, and somebody changed it since: what was typed meanwhile is not put on top unasked.
        queries.setQueryData(["job", id], job);
        setSave({ is: "stale", current: job });
        return false;
      }
      takeOver(job);
      return flush();
    } catch (error) {
      state.busy = false;
      // Only what got no answer is kept to be sent again.
      if (!(error instanceof Away)) state.sent = null;
      const current = error instanceof Refused ? error.problem.current : null;
      if (current && same(contentOf(current), contentOf(base))) {
        // Only readings were added meanwhile: what is changed here goes on top of them.
        state.base = current;
        queries.setQueryData(["job", id], current);
        return flush();
      }
      if (current) {
        setSave({ is: "stale", current });
      } else if (error instanceof Refused) {
        setSave({ is: "refused", why: error.message, errors: error.problem.errors });
      } else {
        setSave({ is: "away" });
        state.timer = window.setTimeout(flush, TRY_AGAIN_MS);
      }
      return false;
    }
  }, [id, queries, show, takeOver]);

  const later = useCallback(() => {
    window.clearTimeout(now.current.timer);
    if (!now.current.held) now.current.timer = window.setTimeout(flush, SAVE_AFTER_MS);
  }, [flush]);

  const edit = useCallback(
    (change: Partial<Content>) => {
      const { base, content: before } = now.current;
      if (!base || !before) return;
      const next = { ...before, ...change };
      if (same(next, before)) return;
      show(next);
      keepUnsaved(id, { basedOn: base.revision, content: next, sent: now.current.sent });
      later();
    },
    [id, later, show],
  );

  /** While the hand is on the wheel nothing is saved: one drag is one step to undo. */
  const hold = useCallback(
    (held: boolean) => {
      now.current.held = held;
      if (!held) later();
    },
    [later],
  );

  /** Takes over a job that the program changed by another way: readings were added or taken away. */
  const adopt = useCallback(
    (job: Job) => {
      const state = now.current;
      if (state.base && job.revision <= state.base.revision) return;
      const isClean = !state.base || same(contentOf(state.base), state.content);
      state.base = job;
      queries.setQueryData(["job", id], job);
      if (isClean) {
        show(contentOf(job));
        setSave({ is: "saved", at: job.updated_at });
      }
    },
    [id, queries, show],
  );

  // What the program answers: the first time, and whenever the window comes back.
  useEffect(() => {
    const job = query.data;
    const state = now.current;
    // While a change waits for its answer, whose revision this is cannot be told yet.
    if (!job || state.busy || state.sent) return;
    if (!state.base) {
      const unsaved = readUnsaved(id);
      state.base = job;
      // What an older page kept knows nothing of what came since.
      const kept = unsaved && { ...contentOf(job), ...unsaved.content };
      if (unsaved?.sent && kept) {
        // The page went away before it was answered: asked again under its key, it is answered as it went.
        state.sent = unsaved.sent;
        show(kept);
        later();
        return;
      }
      if (unsaved && kept && !same(kept, contentOf(job))) {
        show(kept);
        if (unsaved.basedOn === job.revision) later();
        else setSave({ is: "stale", current: job });
        return;
      }
      show(contentOf(job));
      setSave({ is: "saved", at: job.updated_at });
    } else if (job.revision > state.base.revision) {
      const clean = same(contentOf(state.base), state.content);
      if (!clean && same(contentOf(job), contentOf(state.base))) {
        state.base = job;
      } else if (clean) {
        state.base = job;
        show(contentOf(job));
        setSave({ is: "saved", at: job.updated_at });
        setMessage(`Brought up to revision ${job.revision}, changed elsewhere.`);
      } else {
        setSave({ is: "stale", current: job });
      }
    }
  }, [query.data, id, later, show]);

  useEffect(() => () => window.clearTimeout(now.current.timer), []);

  /** Settles a change made elsewhere: theirs replaces ours, or ours is put on top of theirs. */
  const settle = useCallback(
    (whose: "theirs" | "ours", current: Job) => {
      now.current.base = current;
      queries.setQueryData(["job", id], current);
      if (whose === "theirs") {
        forgetUnsaved(id);
        show(contentOf(current));
        setSave({ is: "saved", at: current.updated_at });
      } else {
        void flush();
      }
    },
    [flush, id, queries, show],
  );

  const step = useCallback(
    async (does: "undo" | "redo" | "candidates") => {
      if (!(await flush())) return;
      const { base } = now.current;
      if (!base) return;
      const options = {
        params: { path: { id }, header: keyed() },
        body: { based_on_revision: base.revision, signed_by: signedBy() },
      };
      try {
        const call =
          does === "undo"
            ? api.POST("/api/v1/jobs/{id}/undo", options)
            : does === "redo"
              ? api.POST("/api/v1/jobs/{id}/redo", options)
              : api.POST("/api/v1/jobs/{id}/candidates", options);
        const job = await answer(call);
        takeOver(job);
        show(contentOf(job));
        const kept = job.candidates.at(-1)?.letter ?? "";
        setMessage(does === "undo" ? "Undone." : does === "redo" ? "Done again." : `Kept as ${kept}.`);
      } catch (error) {
        if (error instanceof Refused && error.problem.current) {
          setSave({ is: "stale", current: error.problem.current });
        } else {
          setMessage(
            error instanceof Away ? "The program does not answer; try again." : (error as Error).message,
          );
        }
      }
    },
    [flush, id, show, takeOver],
  );

  return useMemo(
    () => ({
      id,
      job: query.data ?? null,
      failure: query.error,
      content,
      save,
      message,
      setMessage,
      edit,
      adopt,
      hold,
      settle,
      undo: () => void step("undo"),
      redo: () => void step("redo"),
      keep: () => void step("candidates"),
    }),
    [id, query.data, query.error, content, save, message, edit, adopt, hold, settle, step],
  );
}

async function loadJob(id: number): Promise<Job> {
  return answer(api.GET("/api/v1/jobs/{id}", { params: { path: { id } } }));
}

export type JobState = ReturnType<typeof useJob>;
/** A job that has arrived. */
export type OpenJob = JobState & { job: Job; content: Content };
