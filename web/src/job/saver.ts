/**
 * One job, edited here and saved by itself: the machine behind `useJob`, without a screen.
 *
 * Edits stand at once and go to the program half a second after the last one. A change made elsewhere is brought
 * together with what is edited here, field by field; only where both changed one field is the person asked. A field
 * that the program refuses is held back, and holds back nothing else. What is not with the program yet is kept in the
 * browser, and a change whose answer was lost goes again under its key, so that it is done once.
 *
 * It works for one job, by its uid, and says with every change on which revision it was typed. What was typed on a revision
 * that the program's file does not have is set aside and shown; it is never applied by itself.
 */
import { type Job, type Problem, Refused } from "../api/client";
import { newKey } from "../api/upload";
import { type Content, contentOf } from "./content";
import { at, lastingPointer, merge, same, withoutRefused } from "./merge";
import { setAside } from "./setAside";
import { calledOf, forgetUnsaved, keepUnsaved, readUnsaved, type Sent, type Unsaved } from "./unsaved";

export type Faults = Problem["errors"];

export type SaveState =
  | { is: "saved"; at: string }
  | { is: "saving" }
  | { is: "away" }
  /** All but the fields at fault is saved. */
  | { is: "held"; why: string; errors: Faults }
  | { is: "refused"; why: string; errors: Faults }
  | { is: "stale"; current: Job };

/** Sends a change, and goes on trying while the program is away, which it says each time. */
export type Send = (sent: Sent, isAway: () => void) => Promise<Job>;

export type SheetState = { base: Job | null; content: Content | null; save: SaveState; message: string };

const SAVE_AFTER_MS = 500;

export class JobSaver {
  state: SheetState = { base: null, content: null, save: { is: "saving" }, message: "" };
  private sent: Sent | null = null;
  private refusal: { why: string; errors: Faults } | null = null;
  private running: Promise<boolean> | null = null;
  /** Arrived while a change was under way: whose revision it is cannot be told until that is answered. */
  private arrived: { job: Job; by: string } | null = null;
  /** The next job that arrives is taken as the first was, whatever its revision. */
  private beginsAnew = false;
  private isHeld = false;
  private isStopped = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private listeners = new Set<() => void>();

  constructor(
    readonly uid: string,
    private readonly send: Send,
    /** The program has a newer job than the page's other parts know. */
    private readonly onJob: (job: Job) => void = () => {},
    /** What was typed was for a revision that the file does not have: what it has is to be asked for anew. */
    private readonly onForeign: () => void = () => {},
  ) {}

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => {
      this.listeners.delete(listener);
    };
  };
  snapshot = () => this.state;

  private put(change: Partial<SheetState>) {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  say = (message: string) => this.put({ message });

  /** Changes the sheet. */
  edit = (change: Partial<Content>) => {
    const { base, content } = this.state;
    if (!base || !content) return;
    const next = { ...content, ...change };
    if (same(next, content)) return;
    // What was refused may be right now: all of it is tried again.
    this.refusal = null;
    const { save } = this.state;
    // From the first key on: what is about to be sent is not saved.
    this.put({ content: next, save: save.is === "saved" ? { is: "saving" } : save });
    this.keep();
    this.later();
  };

  /** While the hand is on the wheel nothing is saved: one drag is one step to undo. */
  hold = (isHeld: boolean) => {
    this.isHeld = isHeld;
    if (!isHeld) this.later();
  };

  private later() {
    clearTimeout(this.timer);
    if (!this.isHeld && this.state.save.is !== "stale") {
      this.timer = setTimeout(() => void this.flush(), SAVE_AFTER_MS);
    }
  }

  /** Stops saving by itself: the screen is left, and what is unsaved stays in the browser. */
  stop = () => {
    this.isStopped = true;
    clearTimeout(this.timer);
  };
  /** Is taken up again: a screen may come and go before it stays. */
  start = () => {
    this.isStopped = false;
  };

  /** What is edited here, as the browser keeps it. */
  private unsaved(): Unsaved | null {
    const { base, content } = this.state;
    if (!base || !content) return null;
    const tag = { uid: base.uid, token: base.token };
    const [called, at] = [calledOf(base), new Date().toISOString()];
    return { tag, basedOn: base.revision, called, at, base: contentOf(base), content, sent: this.sent };
  }

  private keep() {
    const unsaved = this.unsaved();
    if (!unsaved) return;
    // A sheet that was left writes over nothing that another has kept for another revision since.
    const there = this.isStopped ? readUnsaved(this.uid) : null;
    if (!there || there.tag.token === unsaved.tag.token) keepUnsaved(unsaved);
  }

  /** What would be sent now: the sheet without what was refused. */
  private wanted(base: Job, content: Content): Content {
    const pointers = this.refusal?.errors.map((error) => error.pointer) ?? [];
    return (this.refusal && withoutRefused(content, contentOf(base), pointers)) || content;
  }

  /** Sends what is unsaved; true when nothing is left to send. */
  flush = (): Promise<boolean> => {
    clearTimeout(this.timer);
    this.running ??= this.run().finally(() => {
      this.running = null;
      const { arrived } = this;
      this.arrived = null;
      if (arrived) this.receive(arrived.job, arrived.by);
    });
    return this.running;
  };

  private async run(): Promise<boolean> {
    for (;;) {
      const { base, content, save } = this.state;
      if (!base || !content) return true;
      if (save.is === "stale") return false;
      if (!this.sent) {
        const wanted = this.wanted(base, content);
        if (same(contentOf(base), wanted)) return this.rest(base, content);
        const tag = { uid: base.uid, token: base.token };
        this.sent = { content: wanted, tag, basedOn: base.revision, key: newKey() };
      }
      const sent = this.sent;
      this.keep();
      this.put({ save: { is: "saving" } });
      try {
        const job = await this.send(sent, () => this.put({ save: { is: "away" } }));
        this.sent = null;
        if (!this.answered(sent, job)) return false;
      } catch (error) {
        this.sent = null;
        this.keep();
        if (!(error instanceof Refused)) {
          this.put({ save: { is: "away" } });
          return false;
        }
        if (!this.wasRefused(sent, base, error)) return false;
      }
    }
  }

  /** The program has the change: it tidies texts, and what was typed since stays as it is. */
  private answered(sent: Sent, job: Job): boolean {
    const { content } = this.state;
    const { content: both, conflicts } = merge(sent.content, content ?? sent.content, contentOf(job));
    const isOurs = job.revision <= sent.basedOn + 1;
    this.onJob(job);
    if (!isOurs && conflicts.length > 0) {
      this.put({ base: job, save: { is: "stale", current: job } });
      this.keep();
      return false;
    }
    this.put({ base: job, content: both });
    if (!isOurs) this.say(`Brought up to revision ${job.revision}, changed elsewhere.`);
    return true;
  }

  /** Whether anything is left to try after a refusal. */
  private wasRefused(sent: Sent, base: Job, { problem, message }: Refused): boolean {
    if (problem.current) return this.bring(problem.current, "");
    // Another revision than the file ever had: a backup was put back, or it is another file.
    if (problem.status === 412) return this.giveUp(sent);
    const errors = problem.errors.map(({ pointer, detail }) => ({
      pointer: lastingPointer(sent.content, pointer),
      detail,
    }));
    const rest = withoutRefused(
      sent.content,
      contentOf(base),
      errors.map((error) => error.pointer),
    );
    // What was typed over meanwhile was not refused: it was not even asked.
    const { content } = this.state;
    const still = errors.filter(({ pointer }) => same(at(sent.content, pointer), at(content, pointer)));
    if (errors.length > 0 && still.length === 0) return true;
    if (this.refusal || !rest) {
      this.put({ save: { is: "refused", why: message, errors } });
      return false;
    }
    this.refusal = { why: message, errors: still };
    return true;
  }

  private rest(base: Job, content: Content): boolean {
    if (this.refusal && !same(contentOf(base), content)) {
      const { why, errors } = this.refusal;
      this.keep();
      this.put({ save: { is: "held", why, errors } });
    } else {
      forgetUnsaved(this.uid);
      this.put({ save: { is: "saved", at: base.updated_at } });
    }
    return true;
  }

  /** Takes over a job from the program: the first one, one somebody else changed, or one with a new reading. */
  receive = (job: Job, by = "") => {
    if (job.uid !== this.uid) return;
    const { base } = this.state;
    if (!base || this.beginsAnew) {
      this.beginsAnew = false;
      return this.begin(job);
    }
    if (job.revision <= base.revision) return;
    if (this.sent || this.running) {
      if (!this.arrived || this.arrived.job.revision < job.revision) this.arrived = { job, by };
      return;
    }
    const wasClean = this.state.save.is === "saved";
    if (!this.bring(job, by)) return;
    if (wasClean) this.put({ save: { is: "saved", at: job.updated_at } });
    else this.later();
  };

  private begin(job: Job) {
    this.onJob(job);
    const unsaved = readUnsaved(this.uid);
    const content = contentOf(job);
    // What an older page kept knows nothing of what came since.
    const kept = unsaved && { ...content, ...unsaved.content };
    if (!unsaved || !kept || (same(kept, { ...content, ...unsaved.base }) && !unsaved.sent)) {
      if (unsaved) forgetUnsaved(this.uid);
      this.put({ base: job, content, save: { is: "saved", at: job.updated_at } });
      return;
    }
    // The page went away before it was answered: asked again under its key, it is answered as it went. Typed on an earlier
    // revision it is sent as of that: the program knows whether that is one of its own, and with what it is brought together.
    this.sent = unsaved.sent ?? null;
    const base = { ...job, ...unsaved.base, revision: unsaved.basedOn, token: unsaved.tag.token };
    this.put({ base, content: kept, save: { is: "saving" } });
    this.later();
  }

  /** What was typed is for a revision that the file does not have: it is set aside, and the job stands as the program has it. */
  private giveUp(sent: Sent): boolean {
    const { base } = this.state;
    const unsaved = this.unsaved();
    // Under the key of what was sent: two sheets that were refused the same set aside one.
    if (unsaved) setAside({ what: "change", ...unsaved }, sent.key);
    if (readUnsaved(this.uid)?.tag.token === unsaved?.tag.token) forgetUnsaved(this.uid);
    this.refusal = null;
    if (base) this.put({ content: contentOf(base), save: { is: "saved", at: base.updated_at } });
    this.beginsAnew = true;
    this.onForeign();
    return false;
  }

  /** Brings a job that was changed elsewhere together with the sheet; whether nobody need be asked. */
  private bring(job: Job, by: string): boolean {
    const { base, content } = this.state;
    if (!base || !content) return false;
    const { content: both, conflicts } = merge(contentOf(base), content, contentOf(job));
    this.onJob(job);
    if (conflicts.length > 0) {
      this.put({ save: { is: "stale", current: job } });
      return false;
    }
    const isNews = !same(contentOf(job), contentOf(base));
    this.put({ base: job, content: both });
    if (isNews) this.say(`Brought up to revision ${job.revision}, changed elsewhere${by}.`);
    return true;
  }

  /** A job as the program made it of this sheet: undone, kept, with a reading. */
  adopt = (job: Job) => {
    if (job.uid !== this.uid) return;
    if (this.state.base && job.revision <= this.state.base.revision) return;
    if (this.state.save.is === "saved" && !this.running) {
      this.onJob(job);
      this.put({ base: job, content: contentOf(job), save: { is: "saved", at: job.updated_at } });
    } else {
      this.receive(job);
    }
  };

  /** Settles what was changed on both sides: theirs replaces the sheet, or the sheet goes on top. */
  settle = (whose: "theirs" | "ours", current: Job) => {
    const { base, content } = this.state;
    if (!base || !content) return;
    this.onJob(current);
    if (whose === "theirs") {
      this.sent = null;
      forgetUnsaved(this.uid);
      this.put({
        base: current,
        content: contentOf(current),
        save: { is: "saved", at: current.updated_at },
      });
      return;
    }
    const { content: both } = merge(contentOf(base), content, contentOf(current));
    this.put({ base: current, content: both, save: { is: "saving" } });
    void this.flush();
  };
}
