import { useEffect, useState } from "react";
import type { Axle, Schemas } from "../api/client";
import { useSize } from "../drawing/useSize";
import { useSheet } from "../job/JobSheet";
import { Caution, Fault } from "../shared/Caution";
import { Segments } from "../shared/Segments";
import { useLatest } from "../shared/useLatest";
import { BrakeSection } from "./BrakeSection";
import { CatalogueWheels } from "./CatalogueWheels";
import { Judgement } from "./Judgement";
import { SpacerLever } from "./SpacerLever";
import { StickOnWeights } from "./StickOnWeights";
import { Templates } from "./Templates";
import { type Shown, useBrakes, useWheels } from "./useBrakes";
import { WheelFlick } from "./WheelFlick";
import { WheelInside } from "./WheelInside";

type Wheel = Schemas["CatalogueWheel"];

/** The brakes: a wheel over the caliper in section, what spacers do and cost, and every wheel that could be there. */
export function Brakes() {
  const { open, setViewKeys } = useSheet();
  const { content, edit } = open;
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
          <WheelFlick wheel={wheel} onFlick={flick} onBack={() => pick(null)} />
          <SpacerLever mm={spacer ?? bench?.spacer_mm ?? 0} onPut={setSpacer} />
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
        {wheels.length > 0 && <CatalogueWheels wheels={wheels} picked={wheel} onPick={pick} />}
        <StickOnWeights weights={weights} onChange={setWeights} />
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
