import { useCallback, useEffect, useRef, useState } from "react";
import { Link, useLocation, useSearchParams } from "react-router";
import type { Axle, AxleFit, Step, TireChoice } from "../api/client";
import { CornerSheet } from "../drawing/CornerSheet";
import { asLine, isEmpty } from "../job/content";
import { useSheet } from "../job/JobSheet";
import { JUST_OPENED } from "../job/stages";
import { useStretches } from "../motion/useMotion";
import { Fault } from "../shared/Caution";
import { useRegistry } from "../shared/registry";
import { Segments } from "../shared/Segments";
import { SetupField, type SetupFieldHandle } from "../shared/SetupField";
import { useLatest } from "../shared/useLatest";
import { useViewKeys } from "../shared/useViewKeys";
import { benchKeys } from "./benchKeys";
import { Ledger, type LedgerHandle } from "./Ledger";
import { MeasureList } from "./MeasureList";
import { Side, type SideView } from "./Side";
import { useBench } from "./useBench";
import { usePlan } from "./usePlan";
import { WindowPanel } from "./WindowPanel";

type Choice = Axle | "both";

const AXLES: readonly (readonly [Choice, string])[] = [
  ["front", "front"],
  ["both", "both"],
  ["rear", "rear"],
];

/** The bench: setup lines, both corners drawn, and beside them the ledger, the fit window or the measure list. */
export function Bench() {
  const { open, setViewKeys } = useSheet();
  const { content, edit, hold, id } = open;
  const { fitted, planned } = content;
  const registry = useRegistry();
  const [tireChoice, setTireChoice] = useState<TireChoice>("same");
  const { bench, trouble, take, attempt } = useBench(usePlan(open, tireChoice), (lines) =>
    edit({ planned: lines }),
  );
  const [asked, setAsked] = useSearchParams();
  const view: SideView =
    asked.get("beside") === "window" ? "window" : asked.get("beside") === "measure" ? "measure" : "ledger";
  const show = (next: SideView) => setAsked(next === "ledger" ? {} : { beside: next }, { replace: true });
  const toggle = (other: SideView) => show(view === other ? "ledger" : other);
  const [axle, setAxle] = useState<Choice>("both");
  const [moving] = useStretches(open, view === "ledger" && !isEmpty(planned) ? [planned] : []);
  const line = useRef<SetupFieldHandle>(null);
  const ledger = useRef<LedgerHandle>(null);

  // Whoever opened the job a moment ago goes on typing: what is planned comes after what is fitted.
  const { state } = useLocation();
  const [goesOn] = useState(() => state === JUST_OPENED && isEmpty(planned));
  useEffect(() => {
    if (goesOn) line.current?.focus();
  }, [goesOn]);

  const axles: Axle[] = axle === "both" ? ["front", "rear"] : [axle];
  const there = axles.filter((one) => planned[one]);
  const step = (change: Partial<Step>) =>
    take(there.map((one) => ({ offset_mm: 0, rim_width_quarter_in: 0, spacer_mm: 0, ...change, axle: one })));

  /** A place on the window is gone to. */
  const pick = useLatest((on: Axle, rim_width_in: number, offset_mm: number) => {
    const nothing = { offset_mm: 0, rim_width_quarter_in: 0, spacer_mm: 0 };
    if (planned[on]) take([{ axle: on, ...nothing, to: { rim_width_in, offset_mm } }]);
  });
  const propose = (on: Axle, proposal: NonNullable<AxleFit["proposal"]>) =>
    edit({
      planned: { ...planned, [on]: proposal.line },
      levers: { ...content.levers, [on]: proposal.levers },
    });

  const keys = benchKeys({
    toLine: () => line.current?.focus(),
    toAxle: (to) => setAxle(axle === to ? "both" : to),
    step,
    toggle,
    toggleWorking: () => (view === "ledger" ? ledger.current?.toggleWorking() : show("ledger")),
  });
  useViewKeys(keys, setViewKeys);

  const shownPlan = axle === "both" ? asLine(planned) : (planned[axle] ?? "");
  const isSquare = !!planned.front && planned.front === planned.rear;
  const onDrag = useCallback(
    (grabbed: Axle, out: number) => {
      const moved: Axle[] = axle === "both" && isSquare ? ["front", "rear"] : [grabbed];
      take(moved.map((one) => ({ axle: one, offset_mm: -out, rim_width_quarter_in: 0, spacer_mm: 0 })));
    },
    [axle, isSquare, take],
  );

  return (
    <main className="flex min-h-0 flex-1 flex-col min-[1100px]:flex-row">
      <h1 className="sr-only">Bench: {content.car_label}</h1>
      <section className="flex min-h-0 min-w-0 flex-1 flex-col" aria-label="Plan">
        <div className="border-accent m-2 mb-0 flex items-start gap-2 border px-2 py-1">
          <SetupField
            handle={line}
            label="Plan"
            tone="planned"
            keptAs={`plan-${id}`}
            whose={open.job.uid}
            value={shownPlan}
            placeholder="Say it as you would: 18x8.5 ET35 245/40R18, or F: … R: …"
            onRead={({ lines, namesAxles }) => {
              if (namesAxles)
                edit({ planned: { front: lines.front ?? planned.front, rear: lines.rear ?? planned.rear } });
              else if (axle === "both") edit({ planned: lines });
              else edit({ planned: { ...planned, [axle]: lines[axle] ?? null } });
            }}
          />
          <Segments label="Axle the line and the keys act on" value={axle} options={AXLES} onPick={setAxle} />
        </div>
        <div className="mx-2 px-2">
          <SetupField
            label="Fitted"
            tone="fitted"
            keptAs={`fitted-${id}`}
            whose={open.job.uid}
            value={asLine(fitted)}
            placeholder="What is on the car now: 17x7.5 ET45 225/45R17"
            onRead={({ lines, namesAxles }) =>
              edit({
                fitted: namesAxles
                  ? { front: lines.front ?? fitted.front, rear: lines.rear ?? fitted.rear }
                  : lines,
              })
            }
          />
        </div>
        {trouble && <Fault className="mx-4 text-small">{trouble}</Fault>}
        <div className="m-2 mt-1 min-h-[420px] flex-1">
          <CornerSheet bench={bench} chosen={axle} onDrag={onDrag} onHold={hold} />
        </div>
      </section>
      <Side view={view} bench={bench} onView={show}>
        {view === "ledger" && (
          <>
            {content.wishes == null && (
              <p className="border-base-300 flex flex-wrap items-baseline border-b px-3 py-1 text-small">
                Use, season, look and budget were not asked yet.
                <Link className="plain-button text-accent py-0" to={`/jobs/${id}/car#wanted`}>
                  Ask
                </Link>
                <button
                  type="button"
                  className="plain-button py-0"
                  onClick={() => edit({ wishes: { ...registry?.wishes.start } })}
                >
                  Skip
                </button>
              </p>
            )}
            <Ledger
              ref={ledger}
              bench={bench}
              moving={moving ?? null}
              hasPlan={!isEmpty(planned)}
              hasFitted={!isEmpty(fitted)}
              onPropose={propose}
            />
          </>
        )}
        {view === "window" && (
          <WindowPanel
            open={open}
            bench={bench}
            axles={axles}
            tireChoice={tireChoice}
            onTireChoice={setTireChoice}
            onAttempt={attempt}
            onPick={pick}
          />
        )}
        {view === "measure" && <MeasureList id={id} bench={bench} />}
      </Side>
    </main>
  );
}
