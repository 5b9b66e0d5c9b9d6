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

test.each(["-", ",", "3/", "1 3/", "+"])("%s is on its way to a number", (typed) => {
  expect(readNumber(typed).is).toBe("unfinished");
});

test.each(["abc", "1.2.3", "3/0", "1e9", "12 14", "--3", "NaN", "Infinity"])("%s is no number", (typed) => {
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
