import { useState } from "react";
import { Link } from "react-router";
import { type Axle, Refused } from "../api/client";
import { useSize } from "../drawing/useSize";
import { useSheet } from "../job/JobSheet";
import { Phrase } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import { MotionMap } from "./MotionMap";
import { cellOf } from "./pose";
import { type Motion as MotionAnswer, type Pose, useMotion } from "./useMotion";
import { WheelViews } from "./WheelViews";

const AT_REST: Pose = { steer: 0, travel: 0 };

/** The plan turned and travelling past the parts that were read. */
export function Motion() {
  const { open } = useSheet();
  const { content } = open;
  const [axle, setAxle] = useState<Axle>("front");
  const [envelope, setEnvelope] = useState("road");
  const [pose, setPose] = useState<Pose>(AT_REST);
  const [marked, setMarked] = useState<string | null>(null);
  const { data: motion, error, isLoading } = useMotion(open, axle, envelope);
  const [views, viewsSize] = useSize({ width: 780, height: 330 });
  const [map, mapSize] = useSize({ width: 780, height: 230 });
  const part = motion?.parts.find((one) => one.code === marked) ?? null;
  return (
    <main className="flex min-h-0 flex-1 flex-col min-[1000px]:flex-row">
      <h1 className="sr-only">Motion: {content.car_label}</h1>
      <section className="flex min-h-0 min-w-0 flex-1 flex-col" aria-label="The wheel in motion">
        <div className="flex flex-wrap items-center gap-3 px-3 py-1 text-[14px]">
          <span className="flex" role="toolbar" aria-label="Axle">
            {(["front", "rear"] as const).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={axle === one}
                className="plain-button aria-pressed:bg-primary aria-pressed:text-primary-content"
                onClick={() => {
                  setAxle(one);
                  setPose(AT_REST);
                  setMarked(null);
                }}
              >
                {one}
              </button>
            ))}
          </span>
          <label className="flex items-center gap-2">
            use
            <select
              className="bg-base-200 h-[32px] w-[150px] px-2"
              value={envelope}
              onChange={(event) => setEnvelope(event.target.value)}
            >
              {(motion?.envelopes ?? [{ code: envelope, name: envelope }]).map((one) => (
                <option key={one.code} value={one.code}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          {motion && <Sliders motion={motion} pose={pose} onPose={setPose} />}
        </div>
        <div ref={views} className="drawing min-h-[300px] flex-[3] overflow-hidden">
          {motion && (
            <WheelViews
              motion={motion}
              pose={pose}
              marked={marked}
              width={viewsSize.width}
              height={Math.max(300, viewsSize.height)}
              onPose={setPose}
            />
          )}
        </div>
        <div ref={map} className="drawing min-h-[200px] flex-[2] overflow-hidden">
          {motion && motion.parts.length > 0 && (
            <MotionMap
              motion={motion}
              part={part}
              pose={pose}
              width={mapSize.width}
              height={Math.max(200, mapSize.height)}
              onPose={setPose}
            />
          )}
        </div>
      </section>
      <aside
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="What it meets"
        className="border-base-300 min-h-0 shrink-0 overflow-y-auto border-t px-3 py-2 text-[15px] min-[1000px]:w-[400px] min-[1000px]:border-t-0 min-[1000px]:border-l"
      >
        {error && (
          <p role="alert" className="text-error">
            {error instanceof Refused
              ? error.problem.errors[0]?.detail || error.message
              : "The program does not answer."}
          </p>
        )}
        {isLoading && (
          <p role="status" data-loading>
            Turning and lifting the wheel…
          </p>
        )}
        {!motion && !error && !isLoading && (
          <p>State wheel, offset and tire of this axle first, on the bench.</p>
        )}
        {motion && <Answer motion={motion} pose={pose} marked={marked} onMark={setMarked} onPose={setPose} />}
      </aside>
    </main>
  );
}

function Sliders({
  motion,
  pose,
  onPose,
}: {
  motion: MotionAnswer;
  pose: Pose;
  onPose: (pose: Pose) => void;
}) {
  const { units } = useUnits();
  return (
    <>
      <label className="flex items-center gap-2">
        steer
        <input
          type="range"
          className="range-lever w-[120px]"
          aria-label="Steer, degrees, plus is the front edge outboard"
          min={-motion.lock_inward_deg}
          max={motion.lock_outward_deg}
          step={0.5}
          disabled={motion.axis == null}
          value={pose.steer}
          onChange={(event) => onPose({ ...pose, steer: Number(event.target.value) })}
        />
        <strong className="w-[52px]" data-steer>
          {Math.round(pose.steer)}°
        </strong>
      </label>
      <label className="flex items-center gap-2">
        travel
        <input
          type="range"
          className="range-lever w-[120px]"
          aria-label="Travel, mm, plus is bump"
          min={-motion.droop_mm}
          max={motion.bump_mm}
          step={1}
          value={pose.travel}
          onChange={(event) => onPose({ ...pose, travel: Number(event.target.value) })}
        />
        <strong className="w-[72px]" data-travel>
          {inWords(formatLength(pose.travel, units, true))}
        </strong>
      </label>
      <button type="button" className="plain-button" onClick={() => onPose(AT_REST)}>
        Stand still
      </button>
    </>
  );
}

type AnswerProps = {
  motion: MotionAnswer;
  pose: Pose;
  marked: string | null;
  onMark: (code: string | null) => void;
  onPose: (pose: Pose) => void;
};

/** The word, the tightest places with their poses, what would mend it, and what was taken as usual. */
function Answer({ motion, pose, marked, onMark, onPose }: AnswerProps) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  const { standing, word } = verdict(motion.verdict);
  const cell = cellOf(motion, pose);
  const length = (mm: number, signed = false) => inWords(formatLength(mm, units, signed));
  return (
    <>
      <p className="flex items-center gap-2 text-[19px]" data-motion-verdict={motion.verdict}>
        <Mark standing={standing} size={20} />
        <StandingWord standing={standing} word={word} />
        <span className="text-[14px]">{motion.line}</span>
      </p>
      {motion.parts.length === 0 && (
        <p className="mt-1">
          Nothing that the wheel could meet was read on this axle: <Link to="../bay">to the bay</Link>.
        </p>
      )}
      {motion.says.map((said, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: sentences come in their order
        <p key={at} className="border-warning mt-1 border-l-3 pl-2">
          <Phrase fragments={said} />
        </p>
      ))}
      <ul className="mt-1">
        {motion.parts.map((part) => (
          <li key={part.code} className="rule py-1" data-motion-part={part.code}>
            <button
              type="button"
              aria-pressed={marked === part.code}
              className="hover:bg-base-300/60 aria-pressed:bg-accent/15 flex w-full cursor-pointer items-baseline gap-2 text-left"
              onClick={() => {
                onMark(marked === part.code ? null : part.code);
                onPose({ steer: part.steer_deg, travel: part.travel_mm });
              }}
            >
              <Mark standing={verdict(part.verdict).standing} size={13} />
              <span className="flex-1">
                <Phrase fragments={part.says} />
                {part.is_estimated && <span className="text-[14px]"> Its place is partly estimated.</span>}
              </span>
              <strong className="whitespace-nowrap" title="room in the pose that is shown">
                {length(part.map_mm[cell] ?? 0)}
                <span className="text-[13px] font-normal"> ±{length(part.plus_minus_mm)}</span>
              </strong>
            </button>
          </li>
        ))}
      </ul>
      {motion.scrub_radius_mm != null && motion.fitted_scrub_radius_mm != null && (
        <p className="mt-1 text-[14px]">
          Scrub radius {length(motion.fitted_scrub_radius_mm, true)} → {length(motion.scrub_radius_mm, true)},
          trail {length(motion.fitted_trail_mm ?? 0, true)} → {length(motion.trail_mm ?? 0, true)}.
        </p>
      )}
      {motion.assumed.length > 0 && (
        <p className="mt-1 text-[14px]">
          Taken as usual, not measured: {motion.assumed.join(", ")}. <Link to="../car">State them</Link>, and
          this gets surer.
        </p>
      )}
      <p className="border-warning mt-2 border-l-3 pl-2 text-[14px]">
        The ± of each part is that of standing still; lock and travel add what is taken as usual.{" "}
        {motion.caution}
      </p>
    </>
  );
}
