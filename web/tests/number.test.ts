import { expect, test } from "vitest";
import { numberOf, readNumber } from "../src/shared/number";

test.each([
  ["14", 14, null],
  ["2,5", 2.5, null],
  ["2.", 2, null],
  [".5", 0.5, null],
  ["−3", -3, null],
  ["+3", 3, null],
  ["12.5mm", 12.5, "mm"],
  ["0.5 in", 0.5, "in"],
  ['1/2"', 0.5, "in"],
  ["3/8", 0.375, "in"],
  ["1 3/16", 1.1875, "in"],
  ["-1-3/16", -1.1875, "in"],
])("%s is read as people mean it", (typed, value, unit) => {
  expect(readNumber(typed)).toEqual({ is: "number", value, unit });
});

test.each(["-", ",", "3/", "1 3/", "+", "1 3", "12 14", "1-3"])("%s is on its way to a number", (typed) => {
  expect(readNumber(typed).is).toBe("unfinished");
});

test.each(["abc", "1.2.3", "3/0", "1e9", "12 145", "--3", "NaN", "Infinity"])("%s is no number", (typed) => {
  expect(readNumber(typed).is).toBe("nonsense");
  expect(numberOf(typed)).toBeNaN();
});

test("an empty field is no number and no mistake", () => {
  expect(readNumber("  ").is).toBe("empty");
});

test("every fraction of an inch on a rule comes to what the division says", () => {
  for (let below = 2; below <= 64; below *= 2) {
    for (let above = 1; above < below; above += 1) {
      expect(numberOf(`3 ${above}/${below}`)).toBe(3 + above / below);
    }
  }
});

// Figures as they are typed at a counter: a comma or a point, a unit with or without a blank, fractions of a rule.
test.each([
  ["0", 0, null],
  ["00", 0, null],
  ["007", 7, null],
  ["17,5", 17.5, null],
  ["17.50", 17.5, null],
  ["  22 ", 22, null],
  ["-0", -0, null],
  ["- 3", Number.NaN, null],
  ["32 mm", 32, "mm"],
  ["32MM", 32, "mm"],
  ["32,5 mm", 32.5, "mm"],
  ["-4mm", -4, "mm"],
  ["1 in", 1, "in"],
  ["1.25in", 1.25, "in"],
  ['3"', 3, "in"],
  ["3″", 3, "in"],
  ["1/4", 0.25, "in"],
  ["1/64", 0.015625, "in"],
  ["2 1/2", 2.5, "in"],
  ["2-1/2", 2.5, "in"],
  ["5/8 in", 0.625, "in"],
  ["12 7/16 in", 12.4375, "in"],
  ["1/2 mm", 0.5, "mm"],
  ["−2,5", -2.5, null],
])("%s typed at the counter is %f", (typed, value, unit) => {
  const read = readNumber(typed);
  if (Number.isNaN(value)) {
    expect(read.is).toBe("nonsense");
    return;
  }
  expect(read).toEqual({ is: "number", value, unit });
  expect(numberOf(typed)).toBe(value);
});

test("each figure is a number as far as it is typed, or on its way to one: nothing on the way is nonsense", () => {
  for (const whole of ["17,5", "-12.25", "1 3/16", "3/8", "0.5 in", "32 mm"]) {
    for (let end = 1; end <= whole.length; end += 1) {
      const typed = whole.slice(0, end);
      const isUnit = /[a-z]$/.test(typed) && !/(mm|in)$/.test(typed);
      if (!isUnit) expect([typed, readNumber(typed).is]).not.toContain("nonsense");
    }
  }
});
