import { expect, test } from "vitest";
import type { Quantity } from "../src/api/client";
import {
  format,
  formatInches,
  formatLength,
  formatOffset,
  formatPressure,
  formatSpeed,
  formatTorque,
  inOwnUnit,
  inWords,
  percent,
  toKpa,
  type Units,
} from "../src/shared/units";

const METRIC: Units = { length: "mm", speed: "km/h", pressure: "kPa", torque: "N·m" };
const BAR: Units = { ...METRIC, pressure: "bar" };
const IMPERIAL: Units = { length: "in", speed: "mph", pressure: "psi", torque: "lb·ft" };

// 1 in = 25.4 mm (international yard and pound agreement, 1959).
test.each([
  [25.4, "1.00 in", "25.4 mm"],
  [0, "0.00 in", "0.0 mm"],
  [-12.7, "−0.50 in", "−12.7 mm"],
  [6.35, "0.25 in", "6.3 mm"],
  [457.2, "18.00 in", "457.2 mm"],
  [0.04, "0.00 in", "0.0 mm"],
])("%f mm is %s", (mm, inches, millimetres) => {
  expect(inWords(formatLength(mm, IMPERIAL))).toBe(inches);
  expect(inWords(formatLength(mm, METRIC))).toBe(millimetres);
});

test("a change carries its sign, and nothing carries none", () => {
  expect(inWords(formatLength(5.1, METRIC, true))).toBe("+5.1 mm");
  expect(inWords(formatLength(-5.1, METRIC, true))).toBe("−5.1 mm");
  expect(inWords(formatLength(0.01, METRIC, true))).toBe("0.0 mm");
  expect(inWords(formatLength(-0.01, METRIC, true))).toBe("0.0 mm");
});

// Backspacing is spoken of to the hundredth of an inch. Common practice.
test.each([
  [152.4, "6.00"],
  [153.7, "6.05"],
  [114.3, "4.50"],
])("%f mm of backspacing is %s in", (mm, inches) => {
  expect(formatInches(mm)).toBe(inches);
});

test("an offset is a code in millimetres in every unit", () => {
  expect(formatOffset(45)).toBe("45");
  expect(formatOffset(-12)).toBe("−12");
  expect(formatOffset(52.5)).toBe("52.5");
  expect(formatOffset(0)).toBe("0");
});

// 1 mile = 1.609344 km.
test.each([
  [160.9344, "100 mph", "160.9 km/h"],
  [100, "62.1 mph", "100 km/h"],
  [300, "186.4 mph", "300 km/h"],
  [0, "0 mph", "0 km/h"],
])("%f km/h is %s", (kmh, mph, metric) => {
  expect(inWords(formatSpeed(kmh, IMPERIAL))).toBe(mph);
  expect(inWords(formatSpeed(kmh, METRIC))).toBe(metric);
});

// 1 psi = 6.894757 kPa (NIST SP 811); 1 bar = 100 kPa.
test.each([
  [250, "250 kPa", "2.50 bar", "36.3 psi"],
  [290, "290 kPa", "2.90 bar", "42.1 psi"],
  [206.8, "207 kPa", "2.07 bar", "30.0 psi"],
  [420, "420 kPa", "4.20 bar", "60.9 psi"],
])("%f kPa is %s, %s, %s", (kpa, metric, bar, psi) => {
  expect(inWords(formatPressure(kpa, METRIC))).toBe(metric);
  expect(inWords(formatPressure(kpa, BAR))).toBe(bar);
  expect(inWords(formatPressure(kpa, IMPERIAL))).toBe(psi);
});

test.each([
  [2.3, BAR, 230],
  [33, IMPERIAL, 227.527],
  [240, METRIC, 240],
])("a pressure typed as %f is kept in kPa", (typed, units, kpa) => {
  expect(toKpa(typed, units)).toBeCloseTo(kpa, 3);
});

// 1 lb·ft = 1.355818 N·m (NIST SP 811).
test.each([
  [120, "120 N·m", "89 lb·ft"],
  [135.5818, "136 N·m", "100 lb·ft"],
  [0, "0 N·m", "0 lb·ft"],
])("%f N·m is %s, %s", (nm, metric, imperial) => {
  expect(inWords(formatTorque(nm, METRIC))).toBe(metric);
  expect(inWords(formatTorque(nm, IMPERIAL))).toBe(imperial);
});

test("a figure of the car is told in the reader's unit only where that is another", () => {
  expect(inOwnUnit(120, "N·m", IMPERIAL)).toBe("89 lb·ft");
  expect(inOwnUnit(120, "N·m", METRIC)).toBeNull();
  expect(inOwnUnit(230, "kPa", BAR)).toBe("2.30 bar");
  expect(inOwnUnit(230, "kPa", METRIC)).toBeNull();
  expect(inOwnUnit(1500, "kg", IMPERIAL)).toBeNull();
  expect(inOwnUnit(Number.NaN, "kPa", BAR)).toBeNull();
  expect(inOwnUnit(4, null, BAR)).toBeNull();
});

const quantity = (kind: Quantity["kind"], value: number, signed = false): Quantity => ({
  kind,
  value,
  signed,
});

test.each([
  [quantity("length_mm", 12.34), "12.3 mm"],
  [quantity("speed_kmh", 270), "270 km/h"],
  [quantity("rim_in", 8.5), "8.5 in"],
  [quantity("rim_in", 18), "18.0 in"],
  [quantity("rim_in", 9.33), "9.33 in"],
  [quantity("percent", 2.449, true), "+2.4 %"],
  [quantity("ratio", 0.98765), "0.9877"],
  [quantity("mass_kg", 615), "615 kg"],
  [quantity("pressure_kpa", 254.4), "254 kPa"],
  [quantity("years", 6.04), "6.0 years"],
  [quantity("turns", 8.6), "9 turns"],
  [quantity("count", 707.2), "707"],
])("a quantity of its kind: %o", (given, shown) => {
  expect(inWords(format(given, METRIC))).toBe(shown);
});

test("a change in per cent has its sign", () => {
  expect(percent(1.72)).toBe("+1.7 %");
  expect(percent(-0.04)).toBe("0.0 %");
  expect(percent(-3)).toBe("−3.0 %");
});
