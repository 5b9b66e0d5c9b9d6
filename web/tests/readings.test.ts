// @vitest-environment happy-dom
import { beforeEach, expect, test, vi } from "vitest";
import { Away, type Job, type NewReading, type Problem, Refused } from "../src/api/client";
import { type Reach, ReadingsQueue } from "../src/job/readings";
import { allKept, asText } from "../src/job/setAside";
import { kept } from "../src/shared/kept";

const reading = (id: string, value = 12) =>
  ({ id, axle: "front", side: "left", what: "strut", value, unit: "mm" }) as unknown as NewReading;
const TAG = { uid: "seven", token: "t3" };
const refusal = (errors: Problem["errors"], detail = "refused") =>
  new Refused({ title: "refused", detail, errors } as Problem);

/** A program that keeps readings by their id, refuses figures over 500, and may be away or say no place. */
class Program {
  kept: string[] = [];
  sent: string[][] = [];
  jobs = 0;
  answers: (() => void)[] = [];
  isAway = false;
  namesThePlace = true;

  reach: Reach = {
    take: async (readings, of, isAway) => {
      if (of.token !== TAG.token)
        throw new Refused({ title: "foreign", detail: "", errors: [], status: 412 } as never);
      this.sent.push(readings.map((one) => one.id));
      if (this.isAway) {
        isAway();
        await new Promise<void>((again) => this.answers.push(again));
      }
      const at = readings.findIndex((one) => Number(one.value) > 500);
      const pointer = this.namesThePlace ? `/readings/${at}/value` : "";
      if (at >= 0) throw refusal([{ pointer, detail: "0 to 500 mm" }], "a figure is out of its range");
      for (const { id } of readings) if (!this.kept.includes(id)) this.kept.push(id);
      return { revision: this.kept.length } as Job;
    },
    remove: async (id) => {
      if (this.isAway) throw new Away();
      if (!this.kept.includes(id)) throw refusal([], "no such reading");
      this.kept = this.kept.filter((one) => one !== id);
      return {} as Job;
    },
    copyOver: async () => {
      if (this.isAway) throw new Away();
      return {} as Job;
    },
  };
  back() {
    this.isAway = false;
    for (const again of this.answers.splice(0)) again();
  }
}

let program: Program;
let queue: ReadingsQueue;
const open = () =>
  new ReadingsQueue(
    "seven",
    program.reach,
    () => {
      program.jobs += 1;
    },
    () => ({ tag: TAG, called: { number: "0007", car: "Skerry hatch" } }),
  );
const stored = () =>
  (JSON.parse(localStorage.getItem("dimensione.readings.seven") ?? "{}").queue ?? []) as NewReading[];
const settled = async () => {
  for (let turn = 0; turn < 50; turn += 1) await Promise.resolve();
};

beforeEach(() => {
  for (const name of kept.names("")) kept.drop(name);
  program = new Program();
  queue = open();
});

test("a reading goes as it is taken, and is gone from the browser when the program has it", async () => {
  queue.take(reading("a"));
  expect(stored().map((one) => one.id)).toEqual(["a"]);
  await settled();
  expect(program.kept).toEqual(["a"]);
  expect(program.jobs).toBe(1);
  expect(queue.state).toEqual({ queue: [], isAway: false, trouble: "" });
  expect(localStorage.getItem("dimensione.readings.seven")).toBeNull();
});

test("what is taken while one is under way goes after it, in order", async () => {
  program.isAway = true;
  queue.take(reading("a"));
  queue.take(reading("b"));
  queue.take(reading("c"));
  await settled();
  expect(queue.state.isAway).toBe(true);
  expect(program.sent).toEqual([["a"]]);
  program.back();
  await settled();
  expect(program.sent).toEqual([["a"], ["b", "c"]]);
  expect(program.kept).toEqual(["a", "b", "c"]);
  expect(queue.state).toMatchObject({ queue: [], isAway: false });
});

test("one that is refused stays with its reason and holds back none of the others", async () => {
  program.isAway = true;
  queue.take(reading("a"));
  for (const one of [reading("b", 900), reading("c"), reading("d", 700), reading("e")]) queue.take(one);
  program.back();
  await settled();
  expect(program.kept).toEqual(["a", "c", "e"]);
  expect(queue.state.queue.map(({ id, refused }) => [id, refused])).toEqual([
    ["b", "0 to 500 mm"],
    ["d", "0 to 500 mm"],
  ]);
  await queue.remove("b");
  await queue.remove("d");
  expect(queue.state.queue).toEqual([]);
  expect(stored()).toEqual([]);
});

test("a refusal that names no reading is found out one by one", async () => {
  program.namesThePlace = false;
  program.isAway = true;
  queue.take(reading("a"));
  for (const one of [reading("b"), reading("c", 900), reading("d")]) queue.take(one);
  program.back();
  await settled();
  expect(program.kept).toEqual(["a", "b", "d"]);
  expect(queue.state.queue).toMatchObject([{ id: "c", refused: "a figure is out of its range" }]);
});

test("what a page took that went away is sent by the next, and kept once", async () => {
  program.isAway = true;
  queue.take(reading("a"));
  await settled();
  const next = open();
  expect(next.state.queue.map((one) => one.id)).toEqual(["a"]);
  void next.send();
  next.take(reading("b"));
  // The first page's request is answered after all: what the next one took stays kept.
  program.answers.shift()?.();
  await settled();
  expect(stored().map((one) => one.id)).toEqual(["b"]);
  program.back();
  await settled();
  expect(program.kept).toEqual(["a", "b"]);
  expect(stored()).toEqual([]);
});

test("a hand is told at once why nothing was taken away or copied", async () => {
  queue.take(reading("a"));
  await settled();
  program.isAway = true;
  await queue.remove("a");
  expect(queue.state.trouble).toContain("can be taken away when it is back");
  await queue.copyOver("front", "left");
  expect(queue.state.trouble).toContain("try again");
  program.back();
  await queue.remove("b");
  expect(queue.state.trouble).toBe("no such reading");
  await queue.remove("a");
  expect(queue.state.trouble).toBe("");
  expect(program.kept).toEqual([]);
});

test("a browser that keeps nothing holds up no reading", async () => {
  const full = vi.spyOn(localStorage, "setItem").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  try {
    program.isAway = true;
    queue.take(reading("a"));
    expect(open().state.queue.map((one) => one.id)).toEqual(["a"]);
    program.back();
    await settled();
    expect(program.kept).toEqual(["a"]);
  } finally {
    full.mockRestore();
  }
});

test("readings taken on a revision that the file does not have are set aside, and hold back none of the others", async () => {
  const name = "dimensione.readings.seven";
  const old = { ...reading("old"), tag: { uid: "seven", token: "of a file of before" } };
  localStorage.setItem(name, JSON.stringify({ called: { number: "0007", car: "Skerry" }, queue: [old] }));
  queue = open();
  queue.take(reading("new"));
  await settled();
  expect(program.kept).toEqual(["new"]);
  expect(stored()).toEqual([]);
  const [set] = allKept().aside;
  expect(set && asText(set)).toContain("strut, front left: 12 mm");
});
