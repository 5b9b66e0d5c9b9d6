import { useMutation } from "@tanstack/react-query";
import { useMemo, useRef } from "react";
import {
  Away,
  type Axle,
  answer,
  api,
  type Job,
  matching,
  type NewReading,
  Refused,
  type Tag,
} from "../api/client";
import { keyed } from "../api/upload";
import type { Reach } from "./readings";
import type { Send } from "./saver";
import { signedBy } from "./unsaved";

const TRY_AGAIN_MS = 2000;

/**
 * Asks for what goes with any revision of the job: a reading never conflicts with what others changed meanwhile. Said to be
 * for an earlier revision of this very job it is asked again for the present one; of another job or file it is refused.
 */
async function ofAnyRevision(tag: Tag, ask: (tag: Tag) => Promise<Job>): Promise<Job> {
  for (let of = tag; ; ) {
    try {
      return await ask(of);
    } catch (error) {
      const now = error instanceof Refused && error.problem.status === 412 && error.problem.current;
      if (!now || now.uid !== tag.uid || now.token === of.token) throw error;
      of = now;
    }
  }
}

export type Step = { does: "undo" | "redo" | "candidates"; base: Job };
type Change = { ask: () => Promise<Job>; isAway?: () => void };

/** What changes one job: each says what the program then has, `Refused`, or `Away`. */
export type Lane = Reach & { put: Send; step: (step: Step) => Promise<Job> };

/**
 * The one way by which a job is changed: everything goes through the query library's mutations, one after the other
 * for each job. What must not be lost goes again until the program answers; what a hand asked for is told at once that
 * the program is away. The sheet's saver and the readings' queue decide what to send; neither waits, repeats or
 * watches the network by itself.
 */
export function useLane(id: number): Lane {
  const change = {
    scope: { id: `job-${id}` },
    mutationFn: ({ ask, isAway }: Change) =>
      ask().catch((error) => {
        if (error instanceof Away) isAway?.();
        throw error;
      }),
  };
  const { mutateAsync: untilAnswered } = useMutation({
    ...change,
    retry: (_, error) => error instanceof Away,
    retryDelay: TRY_AGAIN_MS,
  });
  const { mutateAsync: once } = useMutation({ ...change, retry: false });
  const go = useRef({ untilAnswered, once });
  go.current = { untilAnswered, once };
  /** Whether what must not be lost waits for the program: behind it a hand would wait without a word. */
  const isAway = useRef(false);

  return useMemo(() => {
    const path = { id };
    const lasting = async (ask: () => Promise<Job>, tell: () => void) => {
      const away = () => {
        isAway.current = true;
        tell();
      };
      try {
        return await go.current.untilAnswered({ ask, isAway: away });
      } finally {
        isAway.current = false;
      }
    };
    const asked = async (ask: () => Promise<Job>) => {
      if (isAway.current) throw new Away();
      return go.current.once({ ask });
    };
    return {
      put: (sent, tell) =>
        lasting(
          () =>
            answer(
              api.PUT("/api/v1/jobs/{id}", {
                params: { path, header: keyed(sent.key) },
                headers: matching(sent.tag),
                body: { ...sent.content, based_on_revision: sent.basedOn, signed_by: signedBy() },
              }),
            ),
          tell,
        ),
      take: (readings: NewReading[], of: Tag, tell) =>
        lasting(
          () =>
            ofAnyRevision(of, (tag) =>
              answer(
                api.POST("/api/v1/jobs/{id}/readings", {
                  params: { path },
                  headers: matching(tag),
                  body: { signed_by: signedBy(), readings },
                }),
              ),
            ),
          tell,
        ),
      remove: (reading: string, of: Tag) =>
        asked(() =>
          ofAnyRevision(of, (tag) =>
            answer(
              api.DELETE("/api/v1/jobs/{id}/readings/{reading}", {
                params: { path: { id, reading }, query: { signed_by: signedBy() } },
                headers: matching(tag),
              }),
            ),
          ),
        ),
      copyOver: (axle: Axle, from: "left" | "right", of: Tag) =>
        asked(() =>
          ofAnyRevision(of, (tag) =>
            answer(
              api.POST("/api/v1/jobs/{id}/readings/copy", {
                params: { path, header: keyed() },
                headers: matching(tag),
                body: { axle, from, signed_by: signedBy() },
              }),
            ),
          ),
        ),
      step: ({ does, base }) => {
        const options = {
          params: { path, header: keyed() },
          headers: matching(base),
          body: { based_on_revision: base.revision, signed_by: signedBy() },
        };
        return asked(() =>
          answer(
            does === "undo"
              ? api.POST("/api/v1/jobs/{id}/undo", options)
              : does === "redo"
                ? api.POST("/api/v1/jobs/{id}/redo", options)
                : api.POST("/api/v1/jobs/{id}/candidates", options),
          ),
        );
      },
    };
  }, [id]);
}
