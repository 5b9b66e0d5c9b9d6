import { useEffect, useState } from "react";
import type { Axle, Registry, Schemas } from "../api/client";
import { useSize } from "../drawing/useSize";
import { useSheet } from "../job/JobSheet";
import { Caution, Fault } from "../shared/Caution";
import { FigureText } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";
import { NumberBox } from "../shared/NumberBox";
import { useRegistry, useVerdicts } from "../shared/registry";
import { Segments } from "../shared/Segments";
import { formatLength, inWords, useUnits } from "../shared/units";
import { useLatest } from "../shared/useLatest";
import { BrakeSection } from "./BrakeSection";
import { Templates } from "./Templates";
import { type Shown, useBrakes, useWheels } from "./useBrakes";
import { WheelInside } from "./WheelInside";

type Wheel = Schemas["CatalogueWheel"];

const usualWeights = (registry: Registry | null) =>
  registry && {
    from_y_mm: registry.figures.weights_from_y_mm,
    to_y_mm: registry.figures.weights_to_y_mm,
    height_mm: registry.figures.weights_height_mm,
  };

/** The brakes: a wheel over the caliper in section, what spacers do and cost, and every wheel that could be there. */
export function Brakes() {
  const { open, setViewKeys } = useSheet();
  const { content, edit } = open;
  const registry = useRegistry();
  const verdict = useVerdicts();
  const [axle, setAxle] = useState<Axle>("front");
  const hasPlanned = content.templates.some((one) => one.axle === axle && one.role === "planned");
  const [wantsPlanned, setWantsPlanned] = useState(true);
  const plannedBrakes = hasPlanned && wantsPlanned;
  const [wheel, setWheel] = useState<Wheel | null>(null);
  const [spacer, setSpacer] = useState<number | null>(null);
  const [edited, setEdited] = useState<string | null>(null);
  const [weights, setWeights] = useState<Shown["weights"]>(null);
  const shown = {
    axle,
    plannedBrakes,
    setup: wheel?.setup ?? null,
    line: wheel?.line ?? null,
    spacer,
    weights,
  };
  const { data: bench, error } = useBrakes(open, shown);
  const wheels = useWheels(open, axle, plannedBrakes).data?.wheels ?? [];
  const [frame, size] = useSize({ width: 760, height: 470 });
  const pick = (next: Wheel | null) => {
    setWheel(next);
    setSpacer(null);
  };
  const flick = useLatest((by: number) => {
    if (wheels.length === 0) return;
    const at = wheels.findIndex((one) => one.row === wheel?.row);
    pick(
      wheels[at < 0 ? (by > 0 ? 0 : wheels.length - 1) : (at + by + wheels.length) % wheels.length] ?? null,
    );
  });
  const space = useLatest((by: number) => setSpacer(Math.max(0, (spacer ?? bench?.spacer_mm ?? 0) + by)));
  useEffect(
    () =>
      setViewKeys([
        { keys: ["ArrowRight"], shown: "→", does: "the catalogue's next wheel", run: () => flick(1) },
        { keys: ["ArrowLeft"], shown: "←", does: "the one before", run: () => flick(-1) },
        { keys: ["Escape"], shown: "Esc", does: "back to the bench's wheel", run: () => setWheel(null) },
        { keys: ["["], shown: "[", does: "spacer 1 mm thinner", run: () => space(-1) },
        { keys: ["]"], shown: "]", does: "spacer 1 mm thicker", run: () => space(1) },
        { keys: ["f"], shown: "f", does: "front axle", run: () => setAxle("front") },
        { keys: ["r"], shown: "r", does: "rear axle", run: () => setAxle("rear") },
      ]),
    [setViewKeys, flick, space],
  );
  return (
    <main className="flex min-h-0 flex-1 flex-col min-[1000px]:flex-row">
      <h1 className="sr-only">Brakes: {content.car_label}</h1>
      <section className="flex min-w-0 flex-1 flex-col" aria-label="Section">
        <div className="border-base-300 flex flex-wrap items-center gap-2 border-b px-3 py-1 text-body">
          <Segments
            label="Axle"
            value={axle}
            options={[
              ["front", "Front"],
              ["rear", "Rear"],
            ]}
            onPick={setAxle}
          />
          {hasPlanned && (
            <label className="flex items-center gap-1">
              <input
                type="checkbox"
                checked={wantsPlanned}
                onChange={(event) => setWantsPlanned(event.target.checked)}
              />
              the planned brakes
            </label>
          )}
          <span className="flex items-center gap-1">
            <button
              type="button"
              className="plain-button"
              onClick={() => flick(-1)}
              title="the one before (←)"
            >
              ‹
            </button>
            <span className="font-medium" data-wheel>
              {wheel ? `${wheel.line} ${wheel.setup}` : "the bench's wheel"}
            </span>
            <button type="button" className="plain-button" onClick={() => flick(1)} title="next wheel (→)">
              ›
            </button>
            {wheel && (
              <button type="button" className="plain-button" onClick={() => pick(null)}>
                Back to the bench's
              </button>
            )}
          </span>
          <label className="ml-auto flex items-center gap-2">
            spacer
            <input
              type="range"
              className="range-lever w-[130px]"
              aria-label="Spacer, mm"
              min={0}
              max={registry?.figures.thickest_spacer_mm}
              step={1}
              value={spacer ?? bench?.spacer_mm ?? 0}
              onChange={(event) => setSpacer(Number(event.target.value))}
            />
            <strong className="w-[52px]" data-spacer>
              {spacer ?? bench?.spacer_mm ?? 0} mm
            </strong>
          </label>
        </div>
        <div ref={frame} className="drawing min-h-[360px] flex-1 overflow-hidden">
          {bench && (
            <BrakeSection
              bench={bench}
              width={size.width}
              height={Math.max(360, size.height)}
              edited={edited}
              onDrag={(id, points) =>
                edit({
                  templates: content.templates.map((one) => (one.id === id ? { ...one, points } : one)),
                })
              }
            />
          )}
        </div>
      </section>
      <aside className="border-base-300 min-h-0 shrink-0 overflow-y-auto border-t px-3 py-2 text-body min-[1000px]:w-[430px] min-[1000px]:border-t-0 min-[1000px]:border-l">
        {error && <Fault>{error.message}</Fault>}
        {bench && (
          <Judgement
            bench={bench}
            onSpacer={setSpacer}
            onPlan={(line) => edit({ planned: { ...content.planned, [axle]: line } })}
          />
        )}
        {wheels.length > 0 && (
          <details className="rule mt-2 pt-1">
            <summary className="label-small cursor-pointer font-semibold">
              {wheels.length} wheels of the catalogue over it
            </summary>
            <ul className="max-h-[240px] overflow-y-auto text-small" data-wheels={wheels.length}>
              {wheels.map((one) => (
                <li key={one.row}>
                  <button
                    type="button"
                    aria-pressed={one.row === wheel?.row}
                    className="hover:bg-base-300/60 aria-pressed:bg-accent/15 flex w-full cursor-pointer items-center gap-2 text-left"
                    onClick={() => pick(one)}
                  >
                    <Mark standing={verdict(one.verdict).standing} size={12} />
                    <span className="flex-1">
                      {one.line} {one.setup}
                    </span>
                    <span>{verdict(one.verdict).word}</span>
                    {one.source !== "estimate" && <span className="opacity-80">measured</span>}
                  </button>
                </li>
              ))}
            </ul>
          </details>
        )}
        <div className="flex flex-wrap items-center gap-2 pt-1 text-small">
          <label className="flex items-center gap-1">
            <input
              type="checkbox"
              checked={weights != null}
              onChange={(event) => setWeights(event.target.checked ? usualWeights(registry) : null)}
            />
            stick-on weights
          </label>
          {weights && (
            <>
              from y
              <NumberBox
                label="Weights begin at y, mm"
                value={weights.from_y_mm}
                onPut={(mm) => setWeights({ ...weights, from_y_mm: mm ?? 0 })}
              />
              to
              <NumberBox
                label="Weights end at y, mm"
                value={weights.to_y_mm}
                onPut={(mm) => setWeights({ ...weights, to_y_mm: mm ?? 0 })}
              />
              high
              <NumberBox
                label="Height of the weights, mm"
                value={weights.height_mm}
                onPut={(mm) => setWeights({ ...weights, height_mm: mm ?? 0 })}
              />
              mm
            </>
          )}
        </div>
        {bench?.wheel && <WheelInside wheel={bench.wheel} whose={open.job.uid} />}
        <Templates
          axle={axle}
          whose={open.job.uid}
          templates={content.templates}
          edited={edited}
          onEdit={setEdited}
          onChange={(templates) => edit({ templates })}
        />
        {bench && <Caution className="mt-2">{bench.caution}</Caution>}
      </aside>
    </main>
  );
}

type JudgementProps = {
  bench: Schemas["BrakeBench"];
  onSpacer: (mm: number) => void;
  onPlan: (line: string) => void;
};

/** The verdict, both gaps of each part, what spacers do, and what smaller rims can be. */
function Judgement({ bench, onSpacer, onPlan }: JudgementProps) {
  const registry = useRegistry();
  const verdict = useVerdicts();
  const { units } = useUnits();
  const length = (mm: number | null | undefined) =>
    mm == null ? "–" : inWords(formatLength(mm, units, mm < 0));
  const { smallest } = bench;
  return (
    <>
      <p className="flex items-center gap-2 text-head" data-brake-verdict={bench.verdict}>
        <Mark standing={verdict(bench.verdict).standing} size={20} />
        <StandingWord standing={verdict(bench.verdict).standing} word={verdict(bench.verdict).word} />
        <span className="text-small">
          house: barrel {length(bench.radial_limit_mm)}, spokes {length(bench.axial_limit_mm)}
        </span>
      </p>
      <table className="w-full">
        <tbody>
          {bench.parts.map((part) => (
            <tr key={part.id} className="rule" data-part-row={part.part}>
              <td className="capitalize">{part.title}</td>
              <td>
                barrel <strong>{length(part.radial?.mm)}</strong>
                {part.weights && (
                  <span data-weights>
                    , weights <strong>{length(part.weights.mm)}</strong>
                  </span>
                )}
              </td>
              <td>
                spokes <strong>{length(part.axial?.mm)}</strong>
              </td>
              <td className="text-right text-small">± {length(part.plus_minus_mm)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {bench.parts.length > 0 && bench.wheel && (
        <div className="flex flex-wrap gap-1 py-1" role="toolbar" aria-label="Spacers">
          {bench.spacers.map((step) => (
            <button
              key={step.spacer_mm}
              type="button"
              aria-pressed={step.spacer_mm === bench.spacer_mm}
              className="border-base-300 hover:bg-base-300/60 aria-pressed:border-accent flex cursor-pointer items-center gap-1 border px-1.5 text-small"
              title={`barrel ${length(step.radial_gap_mm)}, spokes ${length(step.axial_gap_mm)}`}
              data-spacer-step={step.spacer_mm}
              onClick={() => onSpacer(step.spacer_mm)}
            >
              <Mark standing={verdict(step.verdict).standing} size={11} />
              {step.spacer_mm}
            </button>
          ))}
          <span className="text-note opacity-85">mm of spacer</span>
        </div>
      )}
      {smallest && smallest.spacer_mm > 0 && (
        <div className="border-accent border-l-3 pl-2" data-smallest={smallest.spacer_mm}>
          <p>
            <strong>The smallest spacer that clears: {smallest.spacer_mm} mm.</strong>{" "}
            <button
              type="button"
              className="plain-button text-accent py-0"
              onClick={() => onPlan(smallest.line)}
            >
              To the bench
            </button>
          </p>
          {smallest.costs.map((cost) => (
            <p key={cost} className="text-small">
              {cost}
            </p>
          ))}
        </div>
      )}
      {bench.parts.length > 0 && bench.wheel && !smallest && (
        <Caution grave data-smallest="none">
          No spacer up to {registry?.figures.thickest_spacer_mm} mm clears it: another wheel, or another rim
          size.
        </Caution>
      )}
      {bench.parts.length === 0 && (bench.radial_bound || bench.axial_bound) && (
        <p className="text-small" data-bounds>
          No profile yet; by the gaps read on the fitted wheel
          {bench.radial_bound &&
            ` the barrel leaves ${length(bench.radial_bound.least_mm)} to ${length(bench.radial_bound.most_mm)}`}
          {bench.radial_bound && bench.axial_bound && ","}
          {bench.axial_bound &&
            ` the spokes ${length(bench.axial_bound.least_mm)} to ${length(bench.axial_bound.most_mm)}`}
          : estimated from the sizes.
        </p>
      )}
      {bench.smaller_rims.length > 0 && (
        <div className="rule mt-1 pt-1 text-small" data-smaller-rims>
          {bench.smaller_rims.map((one) => (
            <p key={one.rim_in} className="flex items-center gap-1">
              <Mark standing={one.is_worth_trying ? "measure" : "stop"} size={12} />
              {one.rim_in} in: <FigureText quantity={one.gap} /> left,{" "}
              {one.is_worth_trying ? "worth trying on" : "do not lift it on"}
            </p>
          ))}
          <p className="text-note opacity-85">
            {bench.smaller_rim_rule}. {bench.smaller_rim_caution}
          </p>
        </div>
      )}
    </>
  );
}
