// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Away, type Job, type Problem, Refused } from "../src/api/client";
import { type Content, contentOf } from "../src/job/content";
import { JobSaver } from "../src/job/saver";
import { allKept, asText } from "../src/job/setAside";
import { readUnsaved, type Sent } from "../src/job/unsaved";
import { kept } from "../src/shared/kept";

const START = {
  id: 7,
  number: "0007",
  uid: "seven",
  revision: 3,
  token: "t3",
  car_label: "Skerry hatch",
  updated_at: "2026-05-02T10:00:00Z",
  wish: "quiet",
  notes: "",
  planned: { front: "18x8 ET45", rear: null },
  car: { facts: [], alternatives: [] },
  readings: [],
  troubles: [],
} as unknown as Job;

/** A program that keeps the job as the real one does: by revision, by key, and with a field it refuses. */
class Program {
  job = START;
  asked: Sent[] = [];
  isAway = false;
  losesAnswers = 0;
  /** Revisions that its journal knows. */
  known = new Set<string>();
  private done = new Map<string, number>();

  change(change: Partial<Content>) {
    const revision = this.job.revision + 1;
    this.known.add(this.job.token);
    this.job = { ...this.job, ...change, revision, token: `t${revision}` };
  }

  send = async (sent: Sent, isAway: () => void): Promise<Job> => {
    while (this.isAway) {
      isAway();
      await new Promise((again) => setTimeout(again, 2000));
    }
    this.asked.push(sent);
    if (!this.done.has(sent.key)) {
      if (
        sent.tag.uid !== this.job.uid ||
        !(this.job.token === sent.tag.token || this.known.has(sent.tag.token))
      )
        throw problem({ status: 412, type: "foreign" });
      if (sent.tag.token !== this.job.token) throw problem({ status: 412, current: this.job });
      const at = sent.content.car.facts.findIndex((fact) => fact.value === "15");
      if (at >= 0)
        throw problem({ errors: [{ pointer: `/car/facts/${at}/value`, detail: "400 to 6000 kg" }] });
      this.change(sent.content);
      this.done.set(sent.key, this.job.revision);
    }
    if (this.losesAnswers > 0) {
      this.losesAnswers -= 1;
      isAway();
      return this.send(sent, isAway);
    }
    return this.job;
  };
}

const problem = (said: Partial<Problem>) =>
  new Refused({ title: "refused", detail: "refused", errors: [], ...said } as Problem);
const mass = (value: string) => ({
  car: { facts: [{ fact: "kerb_mass_kg", axle: null, value }], alternatives: [] },
});

let program: Program;
let saver: JobSaver;
beforeEach(() => {
  vi.useFakeTimers();
  for (const name of kept.names("")) kept.drop(name);
  program = new Program();
  saver = new JobSaver("seven", program.send);
  saver.receive(program.job);
});
afterEach(() => vi.useRealTimers());
const settled = () => vi.advanceTimersByTimeAsync(1000);

test("edits are saved together, once, half a second after the last", async () => {
  saver.edit({ wish: "loud" });
  saver.edit({ notes: "call back" });
  await settled();
  expect(program.asked).toHaveLength(1);
  expect(contentOf(program.job)).toMatchObject({ wish: "loud", notes: "call back" });
  expect(saver.state.save.is).toBe("saved");
  expect(readUnsaved("seven")).toBeNull();
});

test("a job that comes back of something else takes nothing of what was typed a moment ago", async () => {
  saver.edit({ wish: "loud" });
  expect(saver.state.save.is).toBe("saving");
  // A reading was kept meanwhile: the job is answered as it was before the edit.
  program.change({});
  saver.adopt(program.job);
  expect(saver.state.content?.wish).toBe("loud");
  await settled();
  expect(program.job.wish).toBe("loud");
  expect(saver.state.save.is).toBe("saved");
});

test("what is typed and taken back is saved without a word to the program", async () => {
  saver.edit({ wish: "loud" });
  saver.edit({ wish: "quiet" });
  await settled();
  expect(program.asked).toHaveLength(0);
  expect(saver.state.save.is).toBe("saved");
});

test("a refused figure holds back only itself, says so, and goes when it is right", async () => {
  saver.edit(mass("15"));
  saver.edit({ wish: "loud" });
  await settled();
  expect(program.job.wish).toBe("loud");
  expect(program.job.car.facts).toEqual([]);
  expect(saver.state.save).toMatchObject({ is: "held", errors: [{ detail: "400 to 6000 kg" }] });
  expect(saver.state.content?.car.facts[0]?.value).toBe("15");
  // It outlives the page.
  expect(readUnsaved("seven")?.content.car.facts[0]?.value).toBe("15");
  saver.edit({ notes: "still typing" });
  await settled();
  expect(program.job.notes).toBe("still typing");
  expect(saver.state.save.is).toBe("held");
  saver.edit(mass("1500"));
  await settled();
  expect(program.job.car.facts[0]?.value).toBe("1500");
  expect(saver.state.save.is).toBe("saved");
});

test("a lost answer to one's own save is nobody's conflict, and is done once", async () => {
  program.losesAnswers = 2;
  saver.edit({ wish: "loud" });
  await settled();
  expect(program.job.revision).toBe(4);
  expect(saver.state.save.is).toBe("saved");
  expect(saver.state.message).toBe("");
  expect(new Set(program.asked.map((sent) => sent.key)).size).toBe(1);
});

test("what is typed while the program is away is kept, and follows when it is back", async () => {
  program.isAway = true;
  saver.edit({ wish: "loud" });
  await settled();
  expect(saver.state.save.is).toBe("away");
  saver.edit({ notes: "more" });
  expect(readUnsaved("seven")?.content.notes).toBe("more");
  program.isAway = false;
  await vi.advanceTimersByTimeAsync(10_000);
  expect(contentOf(program.job)).toMatchObject({ wish: "loud", notes: "more" });
  expect(saver.state.save.is).toBe("saved");
});

test("another's change of another field is brought in, with who and what", async () => {
  saver.edit({ wish: "loud" });
  program.change({ notes: "theirs" });
  saver.receive(program.job, " by MK: notes");
  expect(saver.state.content).toMatchObject({ wish: "loud", notes: "theirs" });
  expect(saver.state.message).toContain("by MK: notes");
  await settled();
  expect(contentOf(program.job)).toMatchObject({ wish: "loud", notes: "theirs" });
});

test("a stale save is brought together without asking where no field meets", async () => {
  program.change({ notes: "theirs" });
  saver.edit({ wish: "loud" });
  await settled();
  expect(contentOf(program.job)).toMatchObject({ wish: "loud", notes: "theirs" });
  expect(saver.state.save.is).toBe("saved");
});

test.each([
  ["theirs", "theirs"],
  ["ours", "mine"],
] as const)("one field changed on both sides is asked about: %s", async (whose, wish) => {
  program.change({ wish: "theirs", notes: "theirs too" });
  saver.edit({ wish: "mine" });
  await settled();
  if (saver.state.save.is !== "stale") throw new Error(saver.state.save.is);
  expect(program.job.wish).toBe("theirs");
  saver.settle(whose, saver.state.save.current);
  await settled();
  expect(contentOf(program.job)).toMatchObject({ wish, notes: "theirs too" });
  expect(saver.state.save.is).toBe("saved");
});

test("nothing is saved while the hand is on the wheel", async () => {
  saver.hold(true);
  saver.edit({ planned: { front: "18x8 ET44", rear: null } });
  await settled();
  saver.edit({ planned: { front: "18x8 ET43", rear: null } });
  await settled();
  expect(program.asked).toHaveLength(0);
  saver.hold(false);
  await settled();
  expect(program.asked).toHaveLength(1);
});

test("a page that went away before its answer asks again under the same key", async () => {
  const lost = new JobSaver("seven", () => new Promise<Job>(() => {}));
  lost.receive(program.job);
  lost.edit({ wish: "loud" });
  await settled();
  const unsaved = readUnsaved("seven");
  expect(unsaved?.sent).toBeTruthy();
  // The program had it all the same.
  await program.send(unsaved?.sent as Sent, () => {});
  const back = new JobSaver("seven", program.send);
  back.receive(program.job);
  await settled();
  expect(program.job.revision).toBe(4);
  expect(back.state).toMatchObject({ content: { wish: "loud" }, save: { is: "saved" } });
});

test("a program that gives up answering leaves the change in the browser", async () => {
  const away = new JobSaver("seven", () => Promise.reject(new Away()));
  away.receive(program.job);
  away.edit({ wish: "loud" });
  await settled();
  expect(away.state.save.is).toBe("away");
  expect(readUnsaved("seven")?.content.wish).toBe("loud");
});

test("a figure that is typed right while the wrong one is being refused is not held back for it", async () => {
  let refuse = () => {};
  const slow = new JobSaver("seven", async (sent, isAway) => {
    if (sent.content.car.facts[0]?.value === "15") await new Promise<void>((go) => (refuse = go));
    return program.send(sent, isAway);
  });
  slow.receive(program.job);
  slow.edit(mass("15"));
  await settled();
  slow.edit(mass("1540"));
  // The pause after the last key is over as well before the program answers.
  await settled();
  refuse();
  await settled();
  expect(program.job.car.facts[0]?.value).toBe("1540");
  expect(slow.state.save.is).toBe("saved");
});

test("over any order of two people's edits nothing is lost", async () => {
  const names = ["wish", "notes", "car_label"] as const;
  for (let seed = 0; seed < 200; seed += 1) {
    localStorage.clear();
    program = new Program();
    saver = new JobSaver("seven", program.send);
    saver.receive(program.job);
    let state = seed + 1;
    const draw = (below: number) => {
      state = (state * 48271) % 2147483647;
      return state % below;
    };
    const [mine, theirs] = [names[draw(3)] ?? "wish", names[draw(3)] ?? "notes"];
    for (let round = 0; round < 6; round += 1) {
      if (draw(2)) saver.edit({ [mine]: `mine ${round}` });
      else program.change({ [theirs]: `theirs ${round}` });
      if (draw(2)) await settled();
      if (draw(3) === 0) saver.receive(program.job);
      if (saver.state.save.is === "stale") {
        expect(mine).toBe(theirs);
        saver.settle("ours", saver.state.save.current);
      }
    }
    await settled();
    if (saver.state.save.is === "stale") continue;
    saver.receive(program.job);
    await settled();
    if (mine !== theirs) expect(saver.state.content?.[mine]).toBe(contentOf(program.job)[mine]);
    expect(saver.state.content?.[theirs]).toBe(contentOf(program.job)[theirs]);
  }
});

test("another file's job of the same number changes nothing of this sheet, and takes nothing of it", async () => {
  program.isAway = true;
  saver.edit({ wish: "loud" });
  await settled();
  // The program comes back with another file: job 7 is another car, far ahead by its revision's number.
  const other = {
    ...START,
    uid: "other",
    token: "o9",
    revision: 9,
    car_label: "Tern coupé",
  } as unknown as Job;
  program.job = other;
  saver.receive(other);
  expect(saver.state.content?.car_label).toBe("Skerry hatch");
  program.isAway = false;
  await vi.advanceTimersByTimeAsync(10_000);
  expect(program.job).toEqual(other);
  const [set] = allKept().aside;
  expect(set?.work).toMatchObject({ what: "change", called: { number: "0007", car: "Skerry hatch" } });
  expect(set && asText(set)).toContain("Owner's wish: quiet → loud");
  expect(readUnsaved("seven")).toBeNull();
});

test("a backup without the revision that it was typed on gets nothing of it; the sheet is as the backup has it", async () => {
  const asked = vi.fn();
  saver = new JobSaver("seven", program.send, () => {}, asked);
  program.change({ notes: "later" });
  saver.receive(program.job);
  saver.edit({ wish: "loud" });
  // Put back: the same job, as it was before.
  const backup = { ...START, notes: "as it was" } as Job;
  program.job = backup;
  program.known.clear();
  await settled();
  expect(program.job).toEqual(backup);
  expect(asked).toHaveBeenCalledTimes(1);
  saver.receive(backup);
  expect(saver.state).toMatchObject({
    content: { notes: "as it was", wish: "quiet" },
    save: { is: "saved" },
  });
  expect(allKept().aside).toHaveLength(1);
  saver.edit({ wish: "soft" });
  await settled();
  expect(contentOf(program.job)).toMatchObject({ notes: "as it was", wish: "soft" });
});

test("what an earlier page left is brought together with what came since, when the file knows its revision", async () => {
  const lost = new JobSaver("seven", () => Promise.reject(new Away()));
  lost.receive(program.job);
  lost.edit({ wish: "loud" });
  await settled();
  // Its answer is given up for good: nothing under a key any more.
  kept.write("dimensione.unsaved.seven", { ...readUnsaved("seven"), sent: null });
  program.change({ notes: "theirs" });
  const back = new JobSaver("seven", program.send);
  back.receive(program.job);
  await settled();
  expect(contentOf(program.job)).toMatchObject({ wish: "loud", notes: "theirs" });
  expect(back.state.save.is).toBe("saved");
});

test.each(["full", "blocked"])("a browser whose storage is %s holds up nothing", async (how) => {
  const fails = () => {
    throw new DOMException("no", how === "full" ? "QuotaExceededError" : "SecurityError");
  };
  const spies = [vi.spyOn(localStorage, "setItem").mockImplementation(fails)];
  if (how === "blocked")
    spies.push(vi.spyOn(globalThis, "localStorage", "get").mockImplementation(fails) as never);
  try {
    saver.edit({ wish: "loud" });
    await settled();
    expect(program.job.wish).toBe("loud");
    expect(saver.state.save.is).toBe("saved");
    program.isAway = true;
    saver.edit({ notes: "kept here" });
    await settled();
    expect(readUnsaved("seven")?.content.notes).toBe("kept here");
  } finally {
    for (const spy of spies) spy.mockRestore();
  }
});
