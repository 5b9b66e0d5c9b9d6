import { useMemo } from "react";
import type { Axle, Bench, TireChoice } from "../api/client";
import { useSize } from "../drawing/useSize";
import type { OpenJob } from "../job/useJob";
import { useMovingWindow } from "../motion/useMotion";
import { useProven } from "../proven/useProven";
import { useRoadSheet } from "../road/useRoadSheet";
import { Phrase } from "../shared/Figures";
import { useRegistry } from "../shared/registry";
import { FitWindow } from "./FitWindow";
import { Levers } from "./Levers";
import { Looks, useLooks } from "./Looks";
import { StyleWish } from "./StyleWish";
import type { Plan } from "./useBench";

type Props = {
  open: OpenJob;
  bench: Bench | null;
  axles: Axle[];
  tireChoice: TireChoice;
  onTireChoice: (choice: TireChoice) => void;
  /** Tries a change that the hand has not let go of. */
  onAttempt: (change: Partial<Plan>) => void;
  onPick: (axle: Axle, rim_width_in: number, offset_mm: number) => void;
};

/** Both axles' fit windows, how each is wanted to stand, and the levers that reshape them. */
export function WindowPanel({ open, bench, axles, tireChoice, onTireChoice, onAttempt, onPick }: Props) {
  const { content, edit } = open;
  const registry = useRegistry();
  const library = useProven(open.id, open.job.revision, "").data;
  const proven = useMemo(() => {
    const like = library?.fits.filter((fit) => fit.likeness > 0) ?? [];
    const on = (axle: Axle) => like.flatMap((fit) => fit.marks[axle] ?? []);
    return { front: on("front"), rear: on("rear") };
  }, [library]);
  const moving = {
    front: useMovingWindow(open, "front", tireChoice).data ?? null,
    rear: useMovingWindow(open, "rear", tireChoice).data ?? null,
  };
  const [frame, { width }] = useSize({ width: 400, height: 0 });
  const looks = useLooks(open);
  const ofClass = useRoadSheet(open.id, open.job.revision, content.road?.class ? content.road : null);
  const boxes = content.road?.class ? ofClass.data?.class?.boxes : null;
  return (
    <div className="px-3 pb-3">
      <div ref={frame} className="flex items-baseline justify-end pt-1 text-small">
        <label className="flex items-center gap-1">
          on each width
          <select
            className="bg-base-200 h-[26px] px-1"
            aria-label="Tire on each rim width"
            value={tireChoice}
            onChange={(event) => onTireChoice(event.target.value as TireChoice)}
          >
            <option value="same">the same tire</option>
            <option value="nearest_square">the squarest tire</option>
          </select>
        </label>
      </div>
      {(["front", "rear"] as const).map((axle) => {
        const fit = bench?.axles[axle].fit;
        const onTheRoad = moving[axle];
        const square = tireChoice === "nearest_square" && tiresOf(fit?.window ?? []);
        return (
          <section key={axle} className="rule mt-1 pt-1" aria-label={`${axle} axle`}>
            <div className="flex flex-wrap items-center justify-between gap-x-3">
              <h2 className="text-body font-semibold capitalize">{axle}</h2>
              <StyleWish
                axle={axle}
                wanted={content.wanted[axle] ?? null}
                onWant={(wanted) => edit({ wanted: { ...content.wanted, [axle]: wanted } })}
              />
            </div>
            {fit && fit.window.length > 0 ? (
              <>
                <div className="drawing mt-1">
                  <FitWindow
                    axle={axle}
                    fit={fit}
                    moving={onTheRoad?.window ?? null}
                    width={width}
                    height={196}
                    proven={proven[axle]}
                    classBox={boxes?.[axle] ?? null}
                    onPick={onPick}
                  />
                </div>
                <p className="mt-0.5 text-body leading-5" data-window-says={axle}>
                  {fit.window_says.length > 0 ? (
                    <Phrase fragments={fit.window_says} />
                  ) : (
                    "Nothing was measured on this axle: every side is open. The measure list says what to read."
                  )}
                </p>
                {onTheRoad && onTheRoad.says.length > 0 && (
                  <p className="text-body leading-5" data-road-says={axle}>
                    On the road, lock and bump with it:{" "}
                    {isSame(onTheRoad.says, fit.window_says) ? (
                      "the same."
                    ) : (
                      <Phrase fragments={onTheRoad.says} />
                    )}
                  </p>
                )}
                {boxes?.[axle] && (
                  <p className="text-body leading-5" data-class-says={axle}>
                    {boxes[axle].says}
                  </p>
                )}
                <Looks axle={axle} looks={looks?.[axle] ?? []} />
                {square && <p className="text-note leading-[17px] opacity-85">{square}</p>}
              </>
            ) : (
              <p className="text-body">
                State the fitted wheel with its offset: the window is held against it.
              </p>
            )}
          </section>
        );
      })}
      <p className="mt-1 text-note leading-4 opacity-85">
        Point at a place to plan it. Filled: clears on the road as well. Pale: the tire is not for that rim.
        Dashed: as wanted. Dotted: the class. ◇ fitted, ● planned. Small ✓ and ✕: proven on this model,
        without rub and with.
      </p>
      {registry && (
        <Levers
          registry={registry}
          levers={content.levers}
          axles={axles}
          onAttempt={(levers) => onAttempt({ levers })}
          onSet={(levers) => edit({ levers })}
        />
      )}
    </div>
  );
}

const isSame = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Which tire stands on which width, where it is not the same everywhere. */
function tiresOf(widths: { rim_width_in: number; tire?: string | null }[]): string {
  return widths
    .filter((one) => one.tire)
    .map((one) => `${one.rim_width_in}: ${one.tire}`)
    .join(" · ");
}
