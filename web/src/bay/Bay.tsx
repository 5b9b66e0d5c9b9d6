import { useRef, useState } from "react";
import { useSearchParams } from "react-router";
import type { Axle, NewReading } from "../api/client";
import { useBench } from "../bench/useBench";
import { usePlan } from "../bench/usePlan";
import { useSheet } from "../job/JobSheet";
import { keptHere } from "../job/SaveMark";
import { Caution, Fault } from "../shared/Caution";
import { useHouse, useRegistry } from "../shared/registry";
import { useViewKeys } from "../shared/useViewKeys";
import { BayDrawing } from "./BayDrawing";
import { bayKeys } from "./bayKeys";
import { Corners } from "./Corners";
import { Entry, type EntryHandle } from "./Entry";
import type { Manner } from "./HowRead";
import { rows } from "./order";
import { PartRow } from "./PartRow";
import { shownReadings } from "./shownReadings";
import { useGauge } from "./useGauge";

type Side = "left" | "right";

const START: Manner = { unit: "mm", instrument: "", stance: "ground", steer: null, bareHub: false };

/** The bay: one reading at a time, on a tablet, with dirty hands. */
export function Bay() {
  const { open, setViewKeys } = useSheet();
  const { content, job, undo } = open;
  const registry = useRegistry();
  const house = useHouse();
  const gauge = useGauge();
  const [asked, setAsked] = useSearchParams();
  const axle: Axle = asked.get("axle") === "rear" ? "rear" : "front";
  const side: Side = asked.get("side") === "right" ? "right" : "left";
  const [manner, setManner] = useState<Manner>(START);
  const entry = useRef<EntryHandle>(null);
  const [followsOn, setFollowsOn] = useState(false);
  const { queue, trouble, waiting, take, remove, copyOver } = open.readings;

  const plan = usePlan(open);
  const { bench } = useBench(plan, () => {});
  const list = registry ? rows(registry, bench, axle) : [];
  const at = list.findIndex((row) => row.part.code === asked.get("part"));
  const row = list[Math.max(0, at)];

  const all = shownReadings(job, queue);
  const here = all.filter((one) => one.axle === axle);
  const of = (code: string) => here.filter((one) => one.what === code);
  const ofSide = (code: string) =>
    of(code).filter((one) => !one.refused && (one.side === side || one.side == null));
  const done = new Set(list.filter((one) => ofSide(one.part.code).length > 0).map((one) => one.part.code));

  const go = (change: Record<string, string>) => {
    const next = new URLSearchParams(asked);
    for (const [name, value] of Object.entries(change)) next.set(name, value);
    setAsked(next, { replace: true });
  };
  /** Another reading, chosen by hand: the keyboard is not called up for it. */
  const choose = (change: Record<string, string>) => {
    setFollowsOn(false);
    go(change);
  };
  const taken = (reading: NewReading) => {
    take(reading);
    setFollowsOn(true);
    // On to the next that has not been read on this side.
    const from = list.findIndex((one) => one.part.code === reading.what);
    const later = [...list.slice(from + 1), ...list.slice(0, from)];
    const next = later.find((one) => !done.has(one.part.code));
    if (next) go({ part: next.part.code });
  };

  const keys = bayKeys({
    entry: () => entry.current,
    go,
    goBy: (by) => {
      const next = list[Math.max(0, at) + by];
      if (next) go({ part: next.part.code });
    },
  });
  useViewKeys(keys, setViewKeys);

  if (!registry || !row) {
    return (
      <main className="p-6">
        <h1 className="text-head font-semibold">Bay</h1>
        <p role="status">The list of readings is not here yet. Trying again…</p>
      </main>
    );
  }
  return (
    <main className="flex min-h-0 flex-1 flex-col min-[1100px]:flex-row">
      <h1 className="sr-only">Bay: {content.car_label}</h1>
      <section className="flex min-h-0 min-w-0 flex-1 flex-col gap-2 p-2" aria-label="At the car">
        <div className="flex flex-wrap items-stretch gap-2">
          <Corners axle={axle} side={side} onChoose={(axle, side) => choose({ axle, side })} />
          <button
            type="button"
            className="plain-button min-h-[48px] px-3 text-lead"
            disabled={!job.can_undo}
            onClick={undo}
          >
            Undo <span className="key">z</span>
          </button>
          <button
            type="button"
            className="plain-button min-h-[48px] px-3 text-lead"
            onClick={() => void copyOver(axle, side)}
            title={`For what has no reading of its own there; marked as copied, with ${registry.figures.copied_plus_minus_mm} mm more doubt`}
          >
            Copy {side} to {side === "left" ? "right" : "left"}
          </button>
          {waiting > 0 && (
            <p
              role="status"
              className="text-warning flex items-center px-2 text-body font-medium"
              data-queue={waiting}
            >
              {keptHere(waiting)}
            </p>
          )}
        </div>
        {trouble && <Fault className="px-2 text-body">{trouble}</Fault>}
        <div className="h-[330px] min-[1100px]:h-auto min-[1100px]:min-h-[240px] min-[1100px]:flex-1">
          <BayDrawing
            bench={bench}
            axle={axle}
            lit={row.part.code}
            done={done}
            codes={list.map((one) => one.part.code)}
            steers={list.some((one) => one.part.at_lock)}
            onLight={(part) => choose({ part })}
          />
        </div>
        <Entry
          key={`${row.part.code}-${axle}-${side}`}
          ref={entry}
          whose={open.job.uid}
          draft={`bay.${axle}.${side}.${row.part.code}`}
          followsOn={followsOn}
          part={row.part}
          axle={axle}
          side={side}
          registry={registry}
          house={house}
          gauge={gauge}
          manner={manner}
          onManner={(change) => setManner({ ...manner, ...change })}
          onTake={taken}
        />
        <Caution>{registry.cautions.in_the_bay}</Caution>
      </section>
      <aside
        className="border-base-300 flex min-h-0 flex-col border-t min-[1100px]:w-[372px] min-[1100px]:border-t-0 min-[1100px]:border-l"
        aria-label="Readings"
      >
        <ol className="min-h-0 flex-1 overflow-y-auto">
          {list.map((one) => (
            <PartRow
              key={one.part.code}
              row={one}
              isLit={one.part.code === row.part.code}
              shown={of(one.part.code)}
              side={side}
              registry={registry}
              onChoose={() => choose({ part: one.part.code })}
              onRemove={(reading) => void remove(reading)}
            />
          ))}
        </ol>
      </aside>
    </main>
  );
}
