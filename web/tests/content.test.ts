import { expect, test } from "vitest";
import type { Job } from "../src/api/client";
import { asLine, benchOf, type Content, contentOf, isEmpty, isOnBench } from "../src/job/content";

const levers = { front: [], rear: [] };
const row = (kind: "wheels" | "tires", at: number) =>
  ({ kind, row: at, supplier: "Nordlake", record: {} }) as unknown as Content["picked"][number];

const content = (more: Partial<Content> = {}): Content =>
  ({
    car_label: "Skerry hatch",
    planned: { front: "18x8 ET45", rear: "18x8 ET45" },
    levers,
    picked: [],
    candidates: [],
    ...more,
  }) as unknown as Content;

const kept = (more: object = {}) =>
  ({
    letter: "A",
    lines: { front: "17x7.5 ET45", rear: "17x7.5 ET45" },
    note: "",
    levers: null,
    picked: null,
    ...more,
  }) as unknown as Content["candidates"][number];

test("what a person changes is the job without what the program keeps of it", () => {
  const job = {
    ...content(),
    id: 4,
    number: "0004",
    uid: "four",
    revision: 7,
    token: "t7",
    created_at: "",
    updated_at: "",
    can_undo: true,
    can_redo: false,
    undoes: "the plan",
    redoes: null,
    readings: [],
    troubles: [],
  } as unknown as Job;
  expect(contentOf(job)).toEqual(content());
});

test("a kept setup goes onto the bench with its own work and its own parts first", () => {
  const own = { front: [{ lever: "lip_rolled", amount: 5 }], rear: [] };
  const bench = benchOf(
    kept({ levers: own, picked: [row("wheels", 3)] }),
    content({ picked: [row("tires", 9)] }),
  );
  expect(bench.planned).toEqual({ front: "17x7.5 ET45", rear: "17x7.5 ET45" });
  expect(bench.levers).toEqual(own);
  expect(bench.picked?.map((one) => [one.kind, one.row])).toEqual([
    ["wheels", 3],
    ["tires", 9],
  ]);
});

test("a part that both have is taken once, and a kept setup without parts takes none away", () => {
  const both = benchOf(
    kept({ picked: [row("wheels", 3)] }),
    content({ picked: [row("wheels", 3), row("wheels", 4)] }),
  );
  expect(both.picked?.map((one) => one.row)).toEqual([3, 4]);
  const none = benchOf(kept(), content({ picked: [row("tires", 9)] }));
  expect(none.picked?.map((one) => one.row)).toEqual([9]);
  expect(none.levers).toBe(levers);
});

test("a kept setup is on the bench with the same lines on the same work", () => {
  const lines = { front: "18x8 ET45", rear: "18x8 ET45" };
  expect(isOnBench(kept({ lines }), content())).toBe(true);
  expect(isOnBench(kept(), content())).toBe(false);
  const rolled = { front: [{ lever: "lip_rolled", amount: 5 }], rear: [] };
  expect(isOnBench(kept({ lines, levers: rolled }), content())).toBe(false);
  expect(isOnBench(kept({ lines, levers: rolled }), content({ levers: rolled } as Partial<Content>))).toBe(
    true,
  );
});

test.each([
  [{ front: "18x8 ET45", rear: "18x8 ET45" }, "18x8 ET45"],
  [{ front: "18x8 ET45", rear: "18x9 ET40" }, "F: 18x8 ET45  R: 18x9 ET40"],
  [{ front: "18x8 ET45", rear: null }, "F: 18x8 ET45"],
  [{ front: null, rear: "18x9 ET40" }, "R: 18x9 ET40"],
  [{ front: null, rear: null }, ""],
])("%o is one line as it is read again", (lines, line) => {
  expect(
    asLine(lines as never)
      .trim()
      .replace(/\s+/g, " "),
  ).toBe(line.replace(/\s+/g, " "));
  expect(isEmpty(lines as never)).toBe(line === "");
});
