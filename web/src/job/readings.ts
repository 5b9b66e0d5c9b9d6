/**
 * Readings on their way to the program, without a screen: sent as they are taken, in order, by the job's lane. They
 * are kept in the browser until the program has them; their ids see to it that none is kept twice. One that is refused
 * stays with the reason, and holds back none of the others.
 */
import { Away, type Axle, type Job, type NewReading, Refused, type Tag } from "../api/client";
import { kept } from "../shared/kept";
import { type KeptReadings, READINGS, setAside } from "./setAside";
import type { Called } from "./unsaved";

/** Readings sent at once: the program takes 200. */
const MOST_AT_ONCE = 100;

/** A reading that the program does not have yet; with why, when it was refused. */
export type Queued = NewReading & { tag?: Tag; refused?: string };

/** How readings reach the program: [`take`] goes on until it answers, the others say at once that it is away. */
export type Reach = {
  take: (readings: NewReading[], of: Tag, isAway: () => void) => Promise<Job>;
  remove: (reading: string, of: Tag) => Promise<Job>;
  copyOver: (axle: Axle, from: "left" | "right", of: Tag) => Promise<Job>;
};

export type ReadingsState = { queue: Queued[]; isAway: boolean; trouble: string };

const readKept = (uid: string): Queued[] => kept.read<KeptReadings>(READINGS + uid)?.queue ?? [];

const isOf = (tag: Tag, one: Queued) => !one.tag || one.tag.token === tag.token;

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
    readonly uid: string,
    private readonly reach: Reach,
    private readonly onJob: (job: Job) => void,
    /** The job's present revision, and what it is called. */
    private readonly now: () => { tag: Tag; called: Called },
  ) {
    this.state = { queue: readKept(uid), isAway: false, trouble: "" };
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
    const queue = change(readKept(this.uid));
    const name = READINGS + this.uid;
    if (queue.length > 0) kept.write(name, { called: this.now().called, queue } satisfies KeptReadings);
    else kept.drop(name);
  }

  /** Sends what waits; what is refused is left. */
  send = async (): Promise<void> => {
    if (this.isSending) return;
    this.isSending = true;
    try {
      for (;;) {
        const waiting = this.state.queue.filter((one) => !one.refused);
        const [first] = waiting;
        if (!first) return;
        const of = first.tag ?? this.now().tag;
        // What was taken on one revision goes together.
        const sent = waiting.filter((one) => isOf(of, one)).slice(0, this.atOnce);
        try {
          const plain = sent.map(({ refused: _, tag: __, ...reading }) => reading);
          const job = await this.reach.take(plain, of, () => this.put({ ...this.state, isAway: true }));
          this.onJob(job);
          this.keep((queue) => queue.filter((one) => !sent.some((other) => other.id === one.id)));
          this.atOnce = MOST_AT_ONCE;
          this.say("");
        } catch (error) {
          if (!(error instanceof Refused)) return;
          if (error.problem.status === 412) this.giveUp(sent, of);
          else this.wasRefused(sent, error);
        }
      }
    } finally {
      this.isSending = false;
      this.put({ ...this.state, isAway: false });
    }
  };

  /** They were taken on a revision that the program's file does not have: set aside, and shown. */
  private giveUp(sent: Queued[], tag: Tag) {
    const readings = sent.map(({ refused: _, tag: __, ...reading }) => reading);
    const at = new Date().toISOString();
    setAside(
      { what: "readings", tag, called: this.now().called, at, readings },
      sent.map((one) => one.id).join(),
    );
    this.keep((queue) => queue.filter((one) => !sent.some((other) => other.id === one.id)));
  }

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
    this.keep((queue) => [...queue, { ...reading, tag: this.now().tag }]);
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
      () => this.reach.remove(reading, this.now().tag),
      "The program does not answer: a reading that it has can be taken away when it is back.",
    );
  };

  copyOver = (axle: Axle, from: "left" | "right") =>
    this.attempt(
      () => this.reach.copyOver(axle, from, this.now().tag),
      "The program does not answer; try again.",
    );

  private async attempt(ask: () => Promise<Job>, whenAway: string) {
    try {
      this.onJob(await ask());
      this.say("");
    } catch (error) {
      this.say(error instanceof Away ? whenAway : (error as Error).message);
    }
  }
}
