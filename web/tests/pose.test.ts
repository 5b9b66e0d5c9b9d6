import { expect, test } from "vitest";
import { carrying, cellOf, type Place, placing } from "../src/motion/pose";
import type { Motion } from "../src/motion/useMotion";

/** A corner in motion as far as a pose asks of it; the figures are made up. */
const motion = (more: Partial<Motion> = {}): Motion =>
  ({
    camber_deg: 0,
    camber_gain_deg_per_mm: 0,
    axis: null,
    map_steer_deg: [-30, -15, 0, 15, 30],
    map_travel_mm: [-60, 0, 60],
    ...more,
  }) as unknown as Motion;

const REST = { steer: 0, travel: 0 };
const near = (found: Place, wanted: Place) => {
  for (const [at, value] of wanted.entries()) expect(found[at]).toBeCloseTo(value, 9);
};

// A vertical axis through (0, −10, 0): turning about it is plane geometry.
const UPRIGHT = { along: [0, 0, 1], through_mm: [0, -10, 0] } as Motion["axis"];

test("at rest nothing moves", () => {
  for (const place of [
    [0, 0, 0],
    [100, -20, 300],
    [-5, 7, -310],
  ] as Place[]) {
    near(placing(motion(), REST)(place), place);
    near(carrying(motion({ axis: UPRIGHT }), REST)(place), place);
  }
});

test("travel alone lifts every place by as much", () => {
  near(placing(motion(), { steer: 0, travel: 40 })([10, 20, 30]), [10, 20, 70]);
  near(placing(motion(), { steer: 0, travel: -25 })([10, 20, 30]), [10, 20, 5]);
});

test("a quarter turn about an upright axis carries ahead to outboard or inboard", () => {
  // p = (100, 0): from the axis (100, 10), turned by 90° (−10, 100), and back from −10: (−10, 90).
  near(placing(motion({ axis: UPRIGHT }), { steer: 90, travel: 0 })([100, 0, 5]), [-10, 90, 5]);
  near(placing(motion({ axis: UPRIGHT }), { steer: -90, travel: 0 })([100, 0, 5]), [10, -110, 5]);
});

test("positive lock swings the front edge outboard", () => {
  const front = placing(motion({ axis: UPRIGHT }), { steer: 20, travel: 0 })([300, 0, 0]);
  expect(front[1]).toBeGreaterThan(0);
  const back = placing(motion({ axis: UPRIGHT }), { steer: 20, travel: 0 })([-300, 0, 0]);
  expect(back[1]).toBeLessThan(0);
});

test("camber leans the wheel about the hub face, the top inward where it is negative", () => {
  const leaned = placing(motion({ camber_deg: -2 }), REST);
  // 300 mm over the hub: 300 · sin 2° inboard, 300 · cos 2° high.
  near(leaned([0, 0, 300]), [0, 300 * Math.sin((-2 * Math.PI) / 180), 300 * Math.cos((2 * Math.PI) / 180)]);
  expect(leaned([0, 0, 300])[1]).toBeLessThan(0);
  // What stands on the upright is where it is at rest: it does not lean by the camber that it has already.
  near(carrying(motion({ camber_deg: -2 }), REST)([0, 0, 300]), [0, 0, 300]);
});

test("camber changes with travel for the wheel and for what stands on the upright", () => {
  const gaining = motion({ camber_gain_deg_per_mm: -0.03 });
  const pose = { steer: 0, travel: 50 };
  // −0.03 °/mm over 50 mm: −1.5°.
  const lean = (-1.5 * Math.PI) / 180;
  const wanted: Place = [0, 300 * Math.sin(lean), 300 * Math.cos(lean) + 50];
  near(placing(gaining, pose)([0, 0, 300]), wanted);
  near(carrying(gaining, pose)([0, 0, 300]), wanted);
});

test("turning keeps every distance to a place on the axis", () => {
  const tilted = { along: [-0.087, -0.225, 0.9704], through_mm: [12, 30, -300] } as Motion["axis"];
  const length = Math.hypot(...(tilted?.along ?? []));
  const along = (tilted?.along ?? []).map((part) => part / length);
  const turned = motion({ axis: { along, through_mm: [12, 30, -300] } as Motion["axis"] });
  const away = ([x, y, z]: Place) => Math.hypot(x - 12, y - 30, z + 300);
  for (const steer of [-31, -10, 5, 38]) {
    for (const place of [
      [300, 0, 0],
      [-280, 60, 40],
      [0, -110, 290],
    ] as Place[]) {
      expect(away(placing(turned, { steer, travel: 0 })(place))).toBeCloseTo(away(place), 6);
    }
  }
});

test("a leaned axis lifts or lowers what is turned about it", () => {
  const caster = { along: [-Math.sin(0.1), 0, Math.cos(0.1)], through_mm: [0, 0, 0] } as Motion["axis"];
  const left = placing(motion({ axis: caster }), { steer: 30, travel: 0 })([0, 100, 0]);
  const right = placing(motion({ axis: caster }), { steer: -30, travel: 0 })([0, 100, 0]);
  expect(Math.abs(left[2])).toBeGreaterThan(1);
  expect(Math.sign(left[2])).toBe(-Math.sign(right[2]));
});

test("a pose is told by the nearest cell of the map", () => {
  expect(cellOf(motion(), REST)).toBe(7);
  expect(cellOf(motion(), { steer: 30, travel: 60 })).toBe(14);
  expect(cellOf(motion(), { steer: -40, travel: -90 })).toBe(0);
  expect(cellOf(motion(), { steer: 8, travel: 29 })).toBe(8);
  expect(cellOf(motion(), { steer: 7, travel: 31 })).toBe(12);
});
