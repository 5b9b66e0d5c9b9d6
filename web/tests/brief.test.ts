import { expect, test } from "vitest";
import type { Bench, Schemas } from "../src/api/client";
import { withBrief } from "../src/bench/brief";

const whole = {
  headline: { standing: "good", says: "Nothing stands against it", causes: [] },
  work: [],
  ledger: [
    { code: "clear-strut", axle: "front", standing: "good", word: "clears", says: ["long"], working: [1] },
    { code: "speedometer", axle: null, standing: "mind", word: "have it checked", says: [], working: [2] },
  ],
  axles: {
    front: {
      planned: {},
      fit: {
        verdict: "clears",
        marks: [1],
        clearances: [{ feature: "strut", nominal_mm: 5, name: "strut" }],
      },
    },
    rear: { planned: {}, fit: null },
  },
} as unknown as Bench;

const brief = (change: object = {}) =>
  ({
    headline: { standing: "stop", says: "One thing stops this", causes: [] },
    work: [{ lever: "camber" }],
    ledger: [
      { code: "clear-strut", axle: "front", standing: "stop", word: "touches", figure: { value: -1 } },
      { code: "speedometer", axle: null, standing: "mind", word: "have it checked" },
    ],
    axles: {
      front: {
        verdict: "touches",
        style: "flush",
        camber_deg: -2,
        window: [],
        window_says: [],
        clearances: [{ feature: "strut", nominal_mm: -1 }],
      },
      rear: null,
    },
    ...change,
  }) as unknown as Schemas["BenchBrief"];

test("what moved is put in, and what did not stays", () => {
  const bench = withBrief(whole, brief());
  expect(bench?.headline.says).toBe("One thing stops this");
  expect(bench?.ledger[0]).toMatchObject({
    word: "touches",
    // The old sentence is not said beside the new word.
    says: [],
    working: [1],
    figure: { value: -1 },
  });
  expect(bench?.axles.front.fit).toMatchObject({ verdict: "touches", marks: [1] });
  expect(bench?.axles.front.fit?.clearances[0]).toMatchObject({ nominal_mm: -1, name: "strut" });
});

test("lines and parts are brought together by what they are, not by where they stand", () => {
  const turned = brief();
  turned.ledger.reverse();
  const bench = withBrief(whole, turned);
  expect(bench?.ledger.map((line) => line.code)).toEqual(["clear-strut", "speedometer"]);
  expect(bench?.ledger[0]).toMatchObject({ word: "touches" });
});

test("another line or another part asks for the whole", () => {
  expect(withBrief(whole, brief({ ledger: [] }))).toBeNull();
  expect(withBrief(whole, brief({ axles: { front: null, rear: null } }))).toBeNull();
  const other = brief();
  other.ledger[0] = { ...other.ledger[0], code: "clear-arch" } as never;
  expect(withBrief(whole, other)).toBeNull();
});
