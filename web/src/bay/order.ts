import type { Axle, Bench, Measure, Registry } from "../api/client";

type Part = Registry["parts"][number];

/** A part to be read, with why the plan asks for it. */
export type Row = { part: Part; asked: Measure | null };

/** Bay order, the same on the screen and on paper: what decides the plan first, then round the wheel. */
export function rows(registry: Registry, bench: Bench | null, axle: Axle): Row[] {
  const asked = bench?.axles[axle].fit?.measure_list ?? [];
  const first = asked.flatMap((one) => {
    const part = registry.parts.find((part) => part.code === one.feature);
    return part ? [{ part, asked: one }] : [];
  });
  const rest = registry.parts
    .filter((part) => !asked.some((one) => one.feature === part.code))
    .filter((part) => part.axles.includes(axle))
    .map((part) => ({ part, asked: null }));
  return [...first, ...rest];
}
