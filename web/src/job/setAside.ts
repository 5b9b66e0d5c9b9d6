/**
 * Work that is for no job, or for no revision, that the shop's file has: typed before a backup was put back, or for another
 * file. It is kept apart and shown, and a person says what becomes of it; it is never applied by itself.
 */
import type { NewReading, Tag } from "../api/client";
import { DRAFTS, kept, keptHere, LINES } from "../shared/kept";
import { asLine, type Content } from "./content";
import { merge, same } from "./merge";
import { type Called, UNSAVED, type Unsaved } from "./unsaved";

export const READINGS = "dimensione.readings.";
const ASIDE = "dimensione.aside.";

/** Readings that the program does not have yet, of one job. */
export type KeptReadings = { called: Called; queue: (NewReading & { tag?: Tag; refused?: string })[] };

export type Aside =
  | ({ what: "change" } & Unsaved)
  | { what: "readings"; tag: Tag; called: Called; at: string; readings: NewReading[] };

/** Sets work aside, once under a key. */
export function setAside(work: Aside, key: string) {
  kept.write(`${ASIDE}${work.tag.uid}.${key}`, work);
}

/** What the browser still has for somebody else, by the name it is kept under. */
export type Leftover =
  | { name: string; work: Aside }
  /** Something that was being typed; whose, and what. */
  | { name: string; work: { what: "draft"; tag: Tag; title: string; text: string } };

/** All that the browser keeps of work that is not with a program, with what each is for. */
export function allKept(): { aside: Leftover[]; waiting: Leftover[] } {
  const aside = kept.names(ASIDE).flatMap((name): Leftover[] => {
    const work = kept.read<Aside>(name);
    return work ? [{ name, work }] : [];
  });
  const unsaved = kept.names(UNSAVED).flatMap((name): Leftover[] => {
    const work = kept.read<Unsaved>(name);
    // What a page of before kept by the job's number is nobody's for certain: it is shown as it is.
    if (work && !work.tag) return [{ name, work: draft("", JSON.stringify(work.content, null, 1)) }];
    return work ? [{ name, work: { what: "change", ...work } }] : [];
  });
  const readings = kept.names(READINGS).flatMap((name): Leftover[] => {
    const uid = name.slice(READINGS.length);
    const those = kept.read<KeptReadings>(name);
    if (Array.isArray(those)) return [{ name, work: draft("", JSON.stringify(those, null, 1)) }];
    if (!those || those.queue.length === 0) return [];
    const tag = those.queue[0]?.tag ?? { uid, token: "" };
    const work = { what: "readings" as const, tag, called: those.called, at: "", readings: those.queue };
    return [{ name, work }];
  });
  const typed = (beginning: string, names: string[], get: (name: string) => string | null) =>
    names.flatMap((name): Leftover[] => {
      const whose = WHOSE.exec(name.slice(beginning.length))?.[0];
      const text = get(name);
      const called = name.slice(beginning.length + (whose?.length ?? 0) + 1);
      return whose && text ? [{ name, work: draft(whose, text, titleOf(called)) }] : [];
    });
  const drafts = typed(DRAFTS, kept.names(DRAFTS), kept.get);
  const lines = typed(LINES, keptHere.names(LINES), keptHere.get);
  return { aside, waiting: [...unsaved, ...readings, ...drafts, ...lines] };
}

/** A uid at the beginning of a name. */
const WHOSE = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/;

const draft = (uid: string, text: string, title = "Kept by an earlier version of this page") => ({
  what: "draft" as const,
  tag: { uid, token: "" },
  title,
  text,
});

/** What a field is whose text was half typed. */
function titleOf(called: string): string {
  if (called === "house") return "Limits and people of the house, not saved";
  if (called === "house.club") return "A club's rules, not saved";
  if (called.startsWith("price-list.")) return "A price list, not taken";
  return "Half typed, for a job that is not in this file";
}

export function forget(name: string) {
  kept.drop(name);
  keptHere.drop(name);
}

const TITLES: Record<keyof Content, string> = {
  car_label: "Car",
  wish: "Owner's wish",
  stage: "Stands at",
  drive: "Drive",
  notes: "Notes",
  fitted: "Fitted",
  planned: "Planned",
  candidates: "Kept setups",
  put_away: "Put away",
  car: "The car's record",
  levers: "Levers",
  wanted: "Look",
  picked: "Parts picked",
  answered: "Questions gone through",
  templates: "Brake profiles",
  trials: "Trial fits",
  wishes: "What is sought",
  road: "Road and track sheet",
};

function shown(name: keyof Content, value: unknown): string {
  if (value == null || value === "") return "nothing";
  if (name === "fitted" || name === "planned") return asLine(value as Content["planned"]) || "nothing";
  if (typeof value === "object") return JSON.stringify(value);
  return String(value);
}

export type Difference = { title: string; before: string; after: string };

/** What was typed, field by field. */
export function differences(base: Content, content: Content): Difference[] {
  return (Object.keys(TITLES) as (keyof Content)[])
    .filter((name) => !same(base[name] ?? null, content[name] ?? null))
    .map((name) => ({
      title: TITLES[name],
      before: shown(name, base[name]),
      after: shown(name, content[name]),
    }));
}

/** A reading in words. */
export const readingIn = (one: NewReading) =>
  `${one.what.replaceAll("_", " ")}, ${[one.axle, one.side].filter(Boolean).join(" ")}: ${one.value} ${one.unit}`;

/** Work as a text, to be kept outside of the browser. */
export function asText({ work }: Leftover): string {
  if (work.what === "draft") return work.text;
  const head = `Typed for job ${work.called.number}, ${work.called.car}${work.at ? `, on ${work.at}` : ""}`;
  const lines =
    work.what === "readings"
      ? work.readings.map(readingIn)
      : differences(work.base, work.content).map(
          ({ title, before, after }) => `${title}: ${before} → ${after}`,
        );
  return [head, ...lines, ""].join("\n");
}

/** What was typed, put on top of another job's content. */
export const onTopOf = (work: Unsaved, content: Content): Content =>
  merge(work.base, work.content, content).content;
