import { type Ref, useEffect, useImperativeHandle, useRef, useState } from "react";
import type { Axle, House, NewReading, Registry, Schemas } from "../api/client";
import { Fault } from "../shared/Caution";
import { numberOf, readNumber } from "../shared/number";
import { Segments } from "../shared/Segments";
import { useDraft } from "../shared/useDraft";
import { GaugeButton } from "./GaugeButton";
import { HowRead, type Manner, type Typed } from "./HowRead";

export type EntryHandle = { takeGauge: () => void; focus: () => void; type: (figure: string) => void };

type Props = {
  /** The job's uid, and under which name what is typed and not yet taken is kept. */
  whose: string;
  draft: string;
  /** The figure before this one was just taken: the next is typed at once. */
  followsOn: boolean;
  part: Registry["parts"][number];
  axle: Axle;
  side: "left" | "right";
  registry: Registry;
  house: House | null;
  gauge: Schemas["GaugeView"] | null;
  manner: Manner;
  onManner: (change: Partial<Manner>) => void;
  onTake: (reading: NewReading) => void;
  ref?: Ref<EntryHandle>;
};

const NOTHING_TYPED: Typed = { text: "", radius: "", face: "", direction: "", clock: "" };

/** One reading at a time: the figure large, what it was read with and how the car stood. */
export function Entry({
  whose,
  draft,
  followsOn,
  part,
  axle,
  side,
  registry,
  house,
  gauge,
  manner,
  onManner,
  onTake,
  ref,
}: Props) {
  const [typed, setTyped] = useDraft(whose, draft, NOTHING_TYPED);
  const { text, radius, face, direction, clock } = typed;
  const type = (change: Partial<Typed>) => setTyped((before) => ({ ...before, ...change }));
  const [fault, setFault] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const instruments = house?.instruments ?? [];
  const instrument = instruments.find((one) => one.code === manner.instrument) ?? instruments[0];
  const bareHub = manner.bareHub && part.from_bare_hub;

  const take = (value: number, unit: string, code: string) => {
    if (!Number.isFinite(value)) {
      setFault("Write the figure as a number, as in 14, 14,5 or 9/16.");
      field.current?.focus();
      return;
    }
    const noted = numberOf(radius);
    onTake({
      id: crypto.randomUUID(),
      axle,
      side,
      what: part.code,
      value,
      unit,
      instrument: code,
      bare_hub: bareHub,
      stance: manner.stance,
      steer: part.at_lock ? manner.steer : null,
      radius_mm: part.takes_radius && Number.isFinite(noted) ? noted : null,
      face: (part.takes_radius && face) || null,
      direction: (part.takes_radius && direction) || null,
      clock: part.at_lock && Number.isFinite(numberOf(clock)) ? numberOf(clock) : null,
      at: new Date().toISOString(),
    });
    type({ text: "", radius: "", clock: "" });
    setFault("");
    field.current?.focus();
  };
  const takeTyped = () => {
    const read = readNumber(text);
    const value = read.is === "number" ? read.value : Number.NaN;
    take(value, (read.is === "number" && read.unit) || manner.unit, instrument?.code ?? "");
  };
  const takeGauge = () => {
    if (gauge?.state === "live" && gauge.value_mm != null) take(gauge.value_mm, "mm", "digital_gauge");
    else setFault("The gauge shows no value now.");
  };
  useImperativeHandle(ref, () => ({
    takeGauge,
    focus: () => field.current?.focus(),
    type: (figure) => {
      field.current?.focus();
      type({ text: text + figure });
    },
  }));
  useEffect(() => {
    if (followsOn) field.current?.focus();
  }, [followsOn]);

  return (
    <section className="border-accent border-2 p-3" aria-label="Reading">
      <h2 className="text-head font-semibold">{part.title}</h2>
      <p className="text-body leading-5">{part.how}</p>
      <form
        className="mt-2 flex flex-wrap items-stretch gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          takeTyped();
        }}
      >
        <input
          ref={field}
          className="bg-base-200 h-[60px] w-[132px] px-3 text-right text-figure font-semibold"
          aria-label={`${part.title}, figure`}
          aria-invalid={fault ? true : undefined}
          inputMode="decimal"
          placeholder="0"
          value={text}
          onChange={(event) => {
            type({ text: event.target.value });
            setFault("");
          }}
        />
        <button
          type="button"
          className="btn h-[60px] px-4 text-head"
          title="Outward of the edge, or overlapping: a figure below zero"
          aria-label="Other sign"
          onClick={() => {
            type({ text: /^[-−]/.test(text.trim()) ? text.trim().slice(1) : `-${text.trim()}` });
            field.current?.focus();
          }}
        >
          ±
        </button>
        <Segments
          tall
          label="Unit"
          value={manner.unit}
          options={registry.units.map((unit) => [unit.code, unit.name])}
          onPick={(unit) => onManner({ unit })}
        />
        <button type="submit" className="btn btn-primary h-[60px] px-6 text-lead">
          Take
        </button>
        {gauge && gauge.state !== "none" && <GaugeButton gauge={gauge} onTake={takeGauge} />}
      </form>
      {fault && <Fault className="mt-1 text-body">{fault}</Fault>}
      <HowRead
        part={part}
        registry={registry}
        instruments={instruments}
        instrument={instrument}
        bareHub={bareHub}
        manner={manner}
        onManner={onManner}
        typed={typed}
        onType={type}
      />
    </section>
  );
}
