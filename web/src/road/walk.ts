import type { Registry, Schemas } from "../api/client";
import type { Units } from "../shared/units";

type Tire = Schemas["TireLog"];
export type Reading = NonNullable<Tire["readings"]>[number];
/** The way one walks round the car. */
export const ROUND = ["fl", "fr", "rr", "rl"] as const;
export const NAMES: Record<string, string> = {
  fl: "front left",
  fr: "front right",
  rr: "rear right",
  rl: "rear left",
  off: "off the car",
};

export type Kind = "cold" | "heat" | "hot" | "depth";
/** One figure of the walk. */
export type Step = { key: string; kind: Kind; tire: number; field: keyof Reading; place: string };

const ACROSS = ["inner", "middle", "outer"] as const;
export const steps = (kind: Kind): Step[] =>
  ROUND.flatMap((_, tire) => {
    const one = (field: keyof Reading, place: string) => ({
      key: `${kind}.${tire}.${place}`,
      kind,
      tire,
      field,
      place,
    });
    if (kind === "cold" || kind === "hot") return [one(`${kind}_kpa`, `${kind} pressure`)];
    return ACROSS.map((place) => one(kind === "heat" ? `${place}_c` : `${place}_mm`, place));
  });

/** What is read beside the depths, in the order in which it is read. */
export const BESIDE = [
  { kind: "cold", name: "cold pressures" },
  { kind: "heat", name: "temperatures" },
  { kind: "hot", name: "hot pressures" },
] as const;
export const MM_PER_32ND = 25.4 / 32;

export type Walk = { figures: Record<string, number>; also: Kind[]; depthsIn: "mm" | "32nds" };
export const NOTHING: Walk = { figures: {}, also: [], depthsIn: "mm" };

export const rangeOf = (kind: Kind, registry: Registry): number[] => {
  const { depth_mm, tread_c, tire_kpa } = registry.figures;
  return kind === "depth" ? depth_mm : kind === "heat" ? tread_c : tire_kpa;
};

/** In which unit a figure of the walk is read. */
export function unitOf(kind: Kind, walk: Walk, units: Units): string {
  if (kind === "heat") return "°C";
  if (kind === "depth") return walk.depthsIn === "mm" ? "mm" : "1/32 in";
  return units.pressure;
}

export const inWhat = (kind: Kind) => (kind === "depth" ? "mm" : kind === "heat" ? "°C" : "kPa");

/** The readings that a whole walk comes to, tire by tire. */
export function readingsOf(
  walk: Walk,
  all: Step[],
  tires: Tire[],
  since: Partial<Pick<Reading, "runs" | "distance_km">>,
): Reading[] {
  const at = new Date().toISOString().slice(0, 10);
  return tires.map((tire, place) => {
    const own = all.filter((one) => one.tire === place).map((one) => [one.field, walk.figures[one.key]]);
    const reading: Reading = {
      at,
      ...since,
      inner_mm: 0,
      middle_mm: 0,
      outer_mm: 0,
      stood_at: tire.position,
      turned_over: tire.turned_over ?? false,
    };
    return { ...reading, ...Object.fromEntries(own) };
  });
}
