import type { Axle } from "../api/client";
import { Segments } from "../shared/Segments";
import { formatLength, inWords, useUnits } from "../shared/units";
import type { Motion, Pose, Usage } from "./useMotion";

type Props = {
  motion: Motion | undefined;
  axle: Axle;
  usage: Usage;
  pose: Pose;
  onAxle: (axle: Axle) => void;
  onUsage: (usage: Usage) => void;
  onPose: (pose: Pose) => void;
};

/** Standing still, straight ahead at static height. */
export const AT_REST: Pose = { steer: 0, travel: 0 };

/** What is looked at: the axle, the use, what is on the tire; and below, the pose. */
export function Controls({ motion, axle, usage, pose, onAxle, onUsage, onPose }: Props) {
  return (
    <div className="px-3 py-1 text-small">
      <div className="flex flex-wrap items-center gap-x-3">
        <Segments
          label="Axle"
          value={axle}
          options={[
            ["front", "front"],
            ["rear", "rear"],
          ]}
          onPick={onAxle}
        />
        <label className="flex items-center gap-2">
          use
          <select
            className="bg-base-200 h-[32px] w-[150px] px-2"
            value={usage.envelope ?? ""}
            onChange={(event) => onUsage({ ...usage, envelope: event.target.value })}
          >
            {(motion?.envelopes ?? []).map((one) => (
              <option key={one.code} value={one.code}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
        {(motion?.on_the_tire ?? []).map((one) => (
          <label key={one.code} className="flex items-center gap-2">
            {one.name}
            <select
              className="bg-base-200 h-[32px] px-1"
              title={one.note}
              value={usage[one.code as keyof Usage] ?? 0}
              onChange={(event) => onUsage({ ...usage, [one.code]: Number(event.target.value) })}
            >
              {one.choices.map((choice) => (
                <option key={choice} value={choice}>
                  {choice === 0 ? "none" : `${choice} ${one.unit}`}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
      {motion && <Sliders motion={motion} pose={pose} onPose={onPose} />}
    </div>
  );
}

function Sliders({ motion, pose, onPose }: { motion: Motion; pose: Pose; onPose: (pose: Pose) => void }) {
  const { units } = useUnits();
  return (
    <div className="flex items-center gap-3">
      <label className="flex flex-1 items-center gap-2">
        steer
        <input
          type="range"
          className="range-lever w-full"
          aria-label="Steer, degrees, plus is the front edge outboard"
          min={-motion.lock_inward_deg}
          max={motion.lock_outward_deg}
          step={0.5}
          disabled={motion.axis == null}
          value={pose.steer}
          onChange={(event) => onPose({ ...pose, steer: Number(event.target.value) })}
        />
        <strong className="w-[44px] text-right" data-steer>
          {Math.round(pose.steer)}°
        </strong>
      </label>
      <label className="flex flex-1 items-center gap-2">
        travel
        <input
          type="range"
          className="range-lever w-full"
          aria-label="Travel, mm, plus is bump"
          min={-motion.droop_mm}
          max={motion.bump_mm}
          step={1}
          value={pose.travel}
          onChange={(event) => onPose({ ...pose, travel: Number(event.target.value) })}
        />
        <strong className="w-[72px] text-right whitespace-nowrap" data-travel>
          {inWords(formatLength(pose.travel, units, true))}
        </strong>
      </label>
      <button type="button" className="plain-button whitespace-nowrap" onClick={() => onPose(AT_REST)}>
        Stand still
      </button>
    </div>
  );
}
