/**
 * Readings on their way to the program, without a screen: sent as they are taken, in order, by the job's lane. They
 * are kept in the browser until the program has them; their ids see to it that none is kept twice. One that is refused
 * stays with the reason, and holds back none of the others.
 */
import { Away, type Axle, type Job, type NewReading, Refused } from "../api/client";

/** Readings sent at once: the program takes 200. */
const MOST_AT_ONCE = 100;
const keptAs = (id: number) => `dimensione.readings.${id}`;

/** A reading that the program does not have yet; with why, when it was refused. */
export type Queued = NewReading & { refused?: string };

/** How readings reach the program: [`take`] goes on until it answers, the others say at once that it is away. */
export type Reach = {
  take: (readings: NewReading[], isAway: () => void) => Promise<Job>;
  remove: (reading: string) => Promise<Job>;
  copyOver: (axle: Axle, from: "left" | "right") => Promise<Job>;
};

export type ReadingsState = { queue: Queued[]; isAway: boolean; trouble: string };

function readKept(id: number): Queued[] {
  try {
    return JSON.parse(localStorage.getItem(keptAs(id)) ?? "[]") as Queued[];
  } catch {
    return [];
  }
}

/** Why each of the readings that were sent was refused, by its id; nothing when the refusal names none of them. */
function refusedBy(error: Refused, sent: Queued[]): Map<string, string> {
  const why = new Map<string, string>();
  for (const { pointer, detail } of error.problem.errors) {
    const one = sent[Number(/^\/readings\/(\d+)/.exec(pointer)?.[1])];
    if (one && !why.has(one.id)) why.set(one.id, detail);
  }
  return why;
}

export class ReadingsQueue {
  state: ReadingsState;
  private isSending = false;
  private atOnce = MOST_AT_ONCE;
  private listeners = new Set<() => void>();

  constructor(
    readonly id: number,
    private readonly reach: Reach,
    private readonly onJob: (job: Job) => void,
  ) {
    this.state = { queue: readKept(id), isAway: false, trouble: "" };
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => {
      this.listeners.delete(listener);
    };
  };
  snapshot = () => this.state;

  private say(trouble: string) {
    this.put({ ...this.state, trouble });
  }
  private put(state: ReadingsState) {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
  /** Changes the queue, and what the browser keeps of it: that may hold what another window took. */
  private keep(change: (queue: Queued[]) => Queued[]) {
    this.put({ ...this.state, queue: change(this.state.queue) });
    const kept = change(readKept(this.id));
    try {
      if (kept.length > 0) localStorage.setItem(keptAs(this.id), JSON.stringify(kept));
      else localStorage.removeItem(keptAs(this.id));
    } catch {
      this.say("This browser keeps nothing: stay on this page until the readings are sent.");
    }
  }

  /** Sends what waits; what is refused is left. */
  send = async (): Promise<void> => {
    if (this.isSending) return;
    this.isSending = true;
    try {
      for (;;) {
        const sent = this.state.queue.filter((one) => !one.refused).slice(0, this.atOnce);
        if (sent.length === 0) return;
        try {
          const plain = sent.map(({ refused: _, ...reading }) => reading);
          const job = await this.reach.take(plain, () => this.put({ ...this.state, isAway: true }));
          this.onJob(job);
          this.keep((queue) => queue.filter((one) => !sent.some((other) => other.id === one.id)));
          this.atOnce = MOST_AT_ONCE;
          this.say("");
        } catch (error) {
          if (!(error instanceof Refused)) return;
          this.wasRefused(sent, error);
        }
      }
    } finally {
      this.isSending = false;
      this.put({ ...this.state, isAway: false });
    }
  };

  /** Nothing is thrown away: a refused reading stays in the list until it is taken out by hand. */
  private wasRefused(sent: Queued[], error: Refused) {
    const why = refusedBy(error, sent);
    if (why.size === 0 && sent.length > 1) {
      // Which of them it is can only be found out one by one.
      this.atOnce = 1;
      return;
    }
    if (why.size === 0 && sent[0]) why.set(sent[0].id, error.message);
    this.keep((queue) => queue.map((one) => ({ ...one, refused: why.get(one.id) ?? one.refused })));
  }

  take = (reading: NewReading) => {
    this.keep((queue) => [...queue, reading]);
    void this.send();
  };

  /** Takes a reading away: out of the queue, or out of the job (undo brings that back). */
  remove = async (reading: string) => {
    if (this.state.queue.some((one) => one.id === reading)) {
      this.keep((queue) => queue.filter((one) => one.id !== reading));
      this.say("");
      return;
    }
    await this.attempt(
      () => this.reach.remove(reading),
      "The program does not answer: a reading that it has can be taken away when it is back.",
    );
  };

  copyOver = (axle: Axle, from: "left" | "right") =>
    this.attempt(() => this.reach.copyOver(axle, from), "The program does not answer; try again.");

  private async attempt(ask: () => Promise<Job>, whenAway: string) {
    try {
      this.onJob(await ask());
      this.say("");
    } catch (error) {
      this.say(error instanceof Away ? whenAway : (error as Error).message);
    }
  }
}
