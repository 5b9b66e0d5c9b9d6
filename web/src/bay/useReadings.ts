import { useCallback, useEffect, useRef, useState } from "react";
import { Away, type Axle, answer, api, type NewReading, Refused } from "../api/client";
import { signedBy } from "../job/unsaved";
import type { OpenJob } from "../job/useJob";

const TRY_AGAIN_MS = 2000;
const keptAs = (id: number) => `dimensione.readings.${id}`;

function readQueue(id: number): NewReading[] {
  try {
    return JSON.parse(localStorage.getItem(keptAs(id)) ?? "[]") as NewReading[];
  } catch {
    return [];
  }
}

/**
 * Readings go to the program as they are taken. Away from it they are kept in the browser, in order, and sent when
 * it answers again; their ids see to it that none is kept twice.
 */
export function useReadings(open: OpenJob) {
  const { id, adopt } = open;
  const [queue, setQueue] = useState<NewReading[]>(() => readQueue(id));
  const [trouble, setTrouble] = useState("");
  const state = useRef({ queue, busy: false, timer: 0, gone: false });

  const keep = useCallback(
    (next: NewReading[]) => {
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
    if (now.busy || now.gone || now.queue.length === 0) return;
    const sent = now.queue;
    now.busy = true;
    try {
      const job = await answer(
        api.POST("/api/v1/jobs/{id}/readings", {
          params: { path: { id } },
          body: { signed_by: signedBy(), readings: sent },
        }),
      );
      now.busy = false;
      adopt(job);
      keep(now.queue.filter((one) => !sent.some((other) => other.id === one.id)));
      setTrouble("");
      void send();
    } catch (error) {
      now.busy = false;
      if (error instanceof Refused) {
        // Nothing is thrown away: the reading stays in the list until it is taken out by hand.
        setTrouble(`Not taken: ${error.message}`);
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
              params: { path: { id } },
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
