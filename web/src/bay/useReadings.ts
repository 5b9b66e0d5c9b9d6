import { useCallback, useEffect, useRef, useState } from "react";
import { Away, type Axle, answer, api, type NewReading, Refused } from "../api/client";
import { keyed } from "../api/upload";
import { signedBy } from "../job/unsaved";
import type { OpenJob } from "../job/useJob";

const TRY_AGAIN_MS = 2000;
/** Readings sent at once: the program takes 200. */
const MOST_AT_ONCE = 100;
const keptAs = (id: number) => `dimensione.readings.${id}`;

/** A reading that the program does not have yet; with why, when it was refused. */
export type Queued = NewReading & { refused?: string };

function readQueue(id: number): Queued[] {
  try {
    return JSON.parse(localStorage.getItem(keptAs(id)) ?? "[]") as Queued[];
  } catch {
    return [];
  }
}

/** Why each of the readings that were sent was refused, by its place; nothing when the refusal names none. */
function refusedBy(error: Refused): Map<number, string> {
  const refused = new Map<number, string>();
  for (const { pointer, detail } of error.problem.errors) {
    const at = /^\/readings\/(\d+)/.exec(pointer)?.[1];
    if (at && !refused.has(Number(at))) refused.set(Number(at), detail);
  }
  return refused;
}

/**
 * Readings go to the program as they are taken. Away from it they are kept in the browser, in order, and sent when
 * it answers again; their ids see to it that none is kept twice. One that is refused stays here with the reason, and
 * holds back none of the others.
 */
export function useReadings(open: OpenJob) {
  const { id, adopt } = open;
  const [queue, setQueue] = useState<Queued[]>(() => readQueue(id));
  const [trouble, setTrouble] = useState("");
  const state = useRef({ queue, busy: false, timer: 0, gone: false, atOnce: MOST_AT_ONCE });

  const keep = useCallback(
    (next: Queued[]) => {
      state.current.queue = next;
      if (next.length > 0) localStorage.setItem(keptAs(id), JSON.stringify(next));
      else localStorage.removeItem(keptAs(id));
      setQueue(next);
    },
    [id],
  );

  const send = useCallback(async () => {
    const now = state.current;
    window.clearTimeout(now.timer);
    const sent = now.queue.filter((one) => !one.refused).slice(0, now.atOnce);
    if (now.busy || now.gone || sent.length === 0) return;
    now.busy = true;
    try {
      const job = await answer(
        api.POST("/api/v1/jobs/{id}/readings", {
          params: { path: { id } },
          body: { signed_by: signedBy(), readings: sent.map(({ refused: _, ...reading }) => reading) },
        }),
      );
      now.busy = false;
      adopt(job);
      keep(now.queue.filter((one) => !sent.some((other) => other.id === one.id)));
      now.atOnce = MOST_AT_ONCE;
      setTrouble("");
      void send();
    } catch (error) {
      now.busy = false;
      if (error instanceof Refused) {
        // Nothing is thrown away: a refused reading stays in the list until it is taken out by hand.
        let refused = refusedBy(error);
        if (refused.size === 0 && sent.length > 1) {
          // Which of them it is can only be found out one by one.
          now.atOnce = 1;
        } else {
          if (refused.size === 0) refused = new Map([[0, error.message]]);
          const why = new Map([...refused].map(([at, detail]) => [sent[at]?.id, detail]));
          keep(now.queue.map((one) => ({ ...one, refused: why.get(one.id) ?? one.refused })));
        }
        void send();
      } else if (error instanceof Away && !now.gone) {
        now.timer = window.setTimeout(send, TRY_AGAIN_MS);
      }
    }
  }, [adopt, id, keep]);

  useEffect(() => {
    const now = state.current;
    now.gone = false;
    void send();
    const again = () => void send();
    window.addEventListener("online", again);
    return () => {
      now.gone = true;
      window.clearTimeout(now.timer);
      window.removeEventListener("online", again);
    };
  }, [send]);

  const take = useCallback(
    (reading: NewReading) => {
      keep([...state.current.queue, reading]);
      void send();
    },
    [keep, send],
  );

  /** Takes a reading away: out of the queue, or out of the job (undo brings that back). */
  const remove = useCallback(
    async (reading: string) => {
      if (state.current.queue.some((one) => one.id === reading)) {
        keep(state.current.queue.filter((one) => one.id !== reading));
        setTrouble("");
        void send();
        return;
      }
      try {
        adopt(
          await answer(
            api.DELETE("/api/v1/jobs/{id}/readings/{reading}", {
              params: { path: { id, reading }, query: { signed_by: signedBy() } },
            }),
          ),
        );
        setTrouble("");
      } catch (error) {
        setTrouble(
          error instanceof Away
            ? "The program does not answer: a reading that it has can be taken away when it is back."
            : (error as Error).message,
        );
      }
    },
    [adopt, id, keep, send],
  );

  const copyOver = useCallback(
    async (axle: Axle, from: "left" | "right") => {
      try {
        adopt(
          await answer(
            api.POST("/api/v1/jobs/{id}/readings/copy", {
              params: { path: { id }, header: keyed() },
              body: { axle, from, signed_by: signedBy() },
            }),
          ),
        );
        setTrouble("");
      } catch (error) {
        setTrouble(
          error instanceof Away ? "The program does not answer; try again." : (error as Error).message,
        );
      }
    },
    [adopt, id],
  );
  return { queue, trouble, setTrouble, take, remove, copyOver };
}
