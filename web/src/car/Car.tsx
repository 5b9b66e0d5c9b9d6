import { useEffect } from "react";
import type { Axle, Car as CarRecord, Fact, Schemas } from "../api/client";
import { useSheet } from "../job/JobSheet";
import { identity } from "../job/merge";
import { WhatIsWanted } from "../job/WhatIsWanted";
import { Caution } from "../shared/Caution";
import { useRegistry } from "../shared/registry";
import { Alternatives } from "./Alternatives";
import { FactField } from "./FactField";
import { Memory } from "./Memory";

type Entry = Schemas["FactEntry"];

/** The car's record: what is known of it, and what nobody knows yet. */
export function Car() {
  const { open, setViewKeys } = useSheet();
  const { content, edit, save } = open;
  const registry = useRegistry();
  useEffect(() => setViewKeys([]), [setViewKeys]);
  const { car } = content;

  const put = (entry: Entry, axle: Axle | null, text: string) => {
    const others = car.facts.filter((fact) => !(fact.fact === entry.code && (fact.axle ?? null) === axle));
    const facts: Fact[] = text.trim() ? [...others, { fact: entry.code, axle, value: text.trim() }] : others;
    edit({ car: { ...car, facts } });
  };
  /** What the program says against one field. */
  const faultOf = (entry: Entry, axle: Axle | null): string | null => {
    if (save.is !== "refused" && save.is !== "held") return null;
    const pointer = `/car/facts/${identity({ fact: entry.code, axle })}/`;
    return save.errors.find((error) => error.pointer.startsWith(pointer))?.detail ?? null;
  };
  const shownOf = (entry: Entry, axle: Axle | null) =>
    car.facts.find((fact) => fact.fact === entry.code && (fact.axle ?? null) === axle)?.value ?? "";
  const field = (entry: Entry, axle: Axle | null) => (
    <FactField
      key={`${entry.code}-${axle}`}
      entry={entry}
      axle={axle}
      value={String(shownOf(entry, axle))}
      fault={faultOf(entry, axle)}
      onChange={(text) => put(entry, axle, text)}
    />
  );
  const groups = [...new Set(registry?.facts.map((entry) => entry.group) ?? [])];
  const wanted =
    registry?.facts.flatMap((entry) => (entry.per_axle ? ["front", "rear"] : [null])).length ?? 0;
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1 className="text-head font-semibold">{content.car_label}</h1>
        <p className="text-body">
          {car.facts.length} of {wanted} known. What is left empty counts as unknown, never as a usual value.
        </p>
      </div>
      <WhatIsWanted open={open} />
      <Memory
        isEmpty={car.facts.length === 0 && car.alternatives?.length === 0}
        own={open.id}
        onTake={(known: CarRecord, drive) => edit({ car: known, drive: drive ?? content.drive })}
        onFit={(lines) => edit({ fitted: lines })}
      />
      <div className="mt-2 grid gap-x-8 gap-y-3 min-[1000px]:grid-cols-2">
        {groups.map((group) => {
          const entries = registry?.facts.filter((entry) => entry.group === group) ?? [];
          const perAxle = entries.filter((entry) => entry.per_axle);
          return (
            <section key={group}>
              <h2 className="label-small mb-1 font-semibold">{group}</h2>
              <div className="grid gap-x-4 gap-y-1 sm:grid-cols-2">
                {entries.filter((entry) => !entry.per_axle).map((entry) => field(entry, null))}
              </div>
              {perAxle.length > 0 && (
                <div className="mt-1 grid grid-cols-2 gap-x-4 gap-y-1">
                  <span className="text-small font-medium">Front</span>
                  <span className="text-small font-medium">Rear</span>
                  {perAxle.flatMap((entry) => [field(entry, "front"), field(entry, "rear")])}
                </div>
              )}
            </section>
          );
        })}
        <Alternatives
          whose={open.job.uid}
          alternatives={car.alternatives ?? []}
          onChange={(alternatives) => edit({ car: { ...car, alternatives } })}
          onFit={(lines) => edit({ fitted: lines })}
        />
      </div>
      <Caution className="mt-4">
        Torque, fasteners, pressures and load ratings come from the car's own papers, never from memory.
        Modified ride height, width and coverage may need approval: local codes and a licensed inspector
        decide.
      </Caution>
    </main>
  );
}
