import { expect, test } from "vitest";
import { lastingPointer, merge, withoutRefused } from "../src/job/merge";

const base = {
  wish: "quiet",
  planned: { front: "18x8 ET45", rear: "18x8 ET45" },
  car: { facts: [{ fact: "kerb_mass_kg", axle: null, value: "1400" }] },
  trials: [{ id: "a", note: "" }],
};

test("changes in different fields both stand", () => {
  const mine = { ...base, planned: { ...base.planned, front: "18x8.5 ET40" } };
  const theirs = { ...base, wish: "loud", trials: [...base.trials, { id: "b", note: "touches" }] };
  const { content, conflicts } = merge(base, mine, theirs);
  expect(conflicts).toEqual([]);
  expect(content).toEqual({ ...theirs, planned: { front: "18x8.5 ET40", rear: "18x8 ET45" } });
});

test("one field changed on both sides is asked about, and mine stands meanwhile", () => {
  const mine = { ...base, wish: "loud" };
  const { content, conflicts } = merge(base, mine, { ...base, wish: "louder" });
  expect(conflicts).toEqual(["/wish"]);
  expect(content.wish).toBe("loud");
});

test("the same change on both sides is no conflict", () => {
  const both = { ...base, wish: "loud" };
  expect(merge(base, both, { ...base, wish: "loud" }).conflicts).toEqual([]);
});

test("members of a list are told apart by their own names, and what one side took out stays out", () => {
  const mine = {
    ...base,
    car: { facts: [...base.car.facts, { fact: "camber_deg", axle: "front", value: "-1" }] },
  };
  const theirs = {
    ...base,
    trials: [],
    car: { facts: [...base.car.facts, { fact: "camber_deg", axle: "rear", value: "-2" }] },
  };
  const { content, conflicts } = merge(base, mine, theirs);
  expect(conflicts).toEqual([]);
  expect(content.trials).toEqual([]);
  expect(content.car.facts.map((fact) => fact.value).sort()).toEqual(["-1", "-2", "1400"]);
});

test("taking out what the other side changed is asked about", () => {
  const mine = { ...base, trials: [] };
  const theirs = { ...base, trials: [{ id: "a", note: "touches" }] };
  expect(merge(base, mine, theirs).conflicts).toEqual(["/trials/a"]);
});

test("a refused field is left out, and the rest of the change goes on", () => {
  const sent = {
    ...base,
    wish: "loud",
    car: {
      facts: [
        { fact: "kerb_mass_kg", axle: null, value: "15" },
        { fact: "top_speed_kmh", axle: null, value: "fast" },
        { fact: "camber_deg", axle: "front", value: "-1" },
      ],
    },
  };
  const pointers = ["/car/facts/0/value", "/car/facts/1/value"].map((one) => lastingPointer(sent, one));
  expect(pointers[0]).toBe("/car/facts/kerb_mass_kg /value");
  // The list may be in another order by then.
  sent.car.facts.reverse();
  const rest = withoutRefused(sent, base, pointers);
  expect(rest).toEqual({
    ...sent,
    car: { facts: [{ fact: "camber_deg", axle: "front", value: "-1" }, base.car.facts[0]] },
  });
});

test("a refused line of one axle leaves the other's", () => {
  const sent = { ...base, planned: { front: "18x80", rear: "18x9 ET40" } };
  expect(withoutRefused(sent, base, ["/planned/front"])?.planned).toEqual({
    front: "18x8 ET45",
    rear: "18x9 ET40",
  });
});

test("a refusal that names no field of the change holds all of it", () => {
  const sent = { ...base, wish: "loud" };
  expect(withoutRefused(sent, base, [])).toBeNull();
  expect(withoutRefused(sent, base, ["/signed_by"])).toBeNull();
  // What the program has is refused as well: leaving it out changes nothing.
  expect(withoutRefused(sent, base, ["/planned/front"])).toBeNull();
});
