import { useState } from "react";
import type { Schemas } from "../api/client";
import { useGauge } from "../bay/useGauge";
import { Fault } from "../shared/Caution";
import { numberOf } from "../shared/number";
import { useRegistry } from "../shared/registry";
import { toKpa, useUnits } from "../shared/units";
import { useDraft } from "../shared/useDraft";
import { AlsoRead } from "./AlsoRead";
import { Figure } from "./Figure";
import { Keypad } from "./Keypad";
import {
  BESIDE,
  inWhat,
  MM_PER_32ND,
  NAMES,
  NOTHING,
  type Reading,
  ROUND,
  rangeOf,
  readingsOf,
  steps,
  unitOf,
  type Walk,
} from "./walk";

type Tire = Schemas["TireLog"];

type Props = { tires: Tire[] /** The job's uid. */; whose: string; onTake: (readings: Reading[]) => void };

/** A walk round the car by keys alone: Enter goes on, tire by tire, inner to outer. */
export function Round({ tires, whose, onTake }: Props) {
  const registry = useRegistry();
  const gauge = useGauge();
  const { units } = useUnits();
  const [walk, setWalk] = useDraft<Walk>(whose, "tread.walk", NOTHING);
  const [text, setText] = useState("");
  const [count, setCount] = useState<number | null>(null);
  const [by, setBy] = useState<"runs" | "distance_km">("runs");
  const [fault, setFault] = useState("");
  const all = [
    ...BESIDE.flatMap(({ kind }) => (walk.also.includes(kind) ? steps(kind) : [])),
    ...steps("depth"),
  ];
  const at = all.findIndex(({ key }) => walk.figures[key] === undefined);
  const step = at < 0 ? null : all[at];
  const done = at < 0 ? all.length : at;
  const last = all[done - 1];
  const unit = step ? unitOf(step.kind, walk, units) : "";
  const take = (value: number) => {
    if (!step || !registry) return;
    const [least = 0, most = 0] = rangeOf(step.kind, registry);
    if (!Number.isFinite(value) || value < least || value > most) {
      setFault(`Write it as a figure in ${unit}; it can be ${least} to ${most} ${inWhat(step.kind)}.`);
      return;
    }
    setWalk({ ...walk, figures: { ...walk.figures, [step.key]: value } });
    setText("");
    setFault("");
  };
  const takeTyped = () => {
    const typed = numberOf(text);
    if (step?.kind === "depth") take(walk.depthsIn === "mm" ? typed : typed * MM_PER_32ND);
    else take(step?.kind === "heat" ? typed : toKpa(typed, units));
  };
  const takeGauge = () => {
    if (gauge?.state === "live" && gauge.value_mm != null) take(gauge.value_mm);
    else setFault("The gauge shows no value now.");
  };
  const back = () => {
    if (!last) return;
    const { [last.key]: _, ...figures } = walk.figures;
    setWalk({ ...walk, figures });
  };
  const log = () => {
    if (count == null) {
      setFault("Say how many runs or kilometres since they were mounted.");
      return;
    }
    onTake(readingsOf(walk, all, tires, { [by]: count }));
    setWalk({ ...walk, figures: {} });
    setFault("");
  };
  return (
    <form
      className="border-accent border-2 p-3"
      aria-label="Round the car"
      data-round={done}
      onSubmit={(event) => {
        event.preventDefault();
        if (step) takeTyped();
        else log();
      }}
    >
      <div className="flex flex-wrap items-center gap-x-4">
        <h2 className="text-lead font-semibold">
          {step
            ? `${NAMES[ROUND[step.tire] ?? ""]}, ${step.place}${step.kind === "heat" ? " temperature" : ""}`
            : `${all.length} figures read`}
        </h2>
        <AlsoRead walk={walk} onChange={setWalk} />
      </div>
      <div className="mt-1 flex flex-wrap items-end gap-2">
        {step ? (
          <>
            <input
              className="bg-base-200 h-[52px] w-[110px] px-3 text-right text-figure font-semibold"
              aria-label={`Figure ${done + 1} of ${all.length}, ${unit}`}
              inputMode="decimal"
              value={text}
              onChange={(event) => setText(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== "g" || step.kind !== "depth") return;
                event.preventDefault();
                takeGauge();
              }}
            />
            <span className="self-center text-lead">{unit}</span>
            {step.kind === "depth" && gauge && gauge.state !== "none" && (
              <button type="button" className="btn h-[52px]" data-takes-gauge onClick={takeGauge}>
                {gauge.value_mm == null ? "gauge: no value" : `gauge ${gauge.value_mm.toFixed(2)} mm`}{" "}
                <kbd>g</kbd>
              </button>
            )}
          </>
        ) : (
          <>
            <Figure label="Since they were mounted" value={count} placeholder="how many" onPut={setCount} />
            <select
              className="bg-base-200 h-[30px] px-1"
              aria-label="Runs or kilometres"
              value={by}
              onChange={(event) => setBy(event.target.value as "runs" | "distance_km")}
            >
              <option value="runs">runs</option>
              <option value="distance_km">km</option>
            </select>
          </>
        )}
        <button type="submit" className="btn btn-primary h-[52px] px-5">
          {step ? "Next" : "Log them"}
        </button>
        <button type="button" className="plain-button" disabled={done === 0} onClick={back}>
          One back
        </button>
        <span className="text-small" data-read>
          {all
            .slice(0, done)
            .map(({ key }) => +(walk.figures[key] ?? 0).toFixed(1))
            .join(" · ")}
        </span>
      </div>
      {step && (
        <Keypad onKey={(key) => setText((before) => (key === "⌫" ? before.slice(0, -1) : before + key))} />
      )}
      {fault && <Fault className="text-body">{fault}</Fault>}
    </form>
  );
}
