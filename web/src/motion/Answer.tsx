import { Link } from "react-router";
import type { Axle } from "../api/client";
import type { OpenJob } from "../job/useJob";
import { Caution } from "../shared/Caution";
import { Phrase } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import { cellOf } from "./pose";
import { StretchRow } from "./StretchRow";
import { type Motion, type MotionPart, type Pose, type Usage, useRemedies } from "./useMotion";

type Props = {
  open: OpenJob;
  axle: Axle;
  usage: Usage;
  motion: Motion;
  pose: Pose;
  marked: string | null;
  onMark: (code: string | null) => void;
  onPose: (pose: Pose) => void;
};

/** The word, the tightest places with their poses, what would mend it, and what was taken as usual. */
export function Answer({ open, axle, usage, motion, pose, marked, onMark, onPose }: Props) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  const { standing, word } = verdict(motion.verdict);
  const cell = cellOf(motion, pose);
  const length = (mm: number, signed = false) => inWords(formatLength(mm, units, signed));
  return (
    <>
      <p className="flex items-center gap-2 text-head" data-motion-verdict={motion.verdict}>
        <Mark standing={standing} size={20} />
        <StandingWord standing={standing} word={word} />
      </p>
      <p className="text-small">{motion.line}</p>
      {motion.parts.length === 0 && (
        <p className="mt-1">
          Nothing that the wheel could meet was read on this axle: <Link to="../bay">to the bay</Link>.
        </p>
      )}
      {motion.says.map((said, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: sentences come in their order
        <Caution key={at} className="mt-1">
          <Phrase fragments={said} />
        </Caution>
      ))}
      <Remedies open={open} axle={axle} usage={usage} motion={motion} />
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
                {part.is_estimated && <span className="text-small"> Its place is partly estimated.</span>}
              </span>
              <strong className="whitespace-nowrap">
                {length(part.map_mm[cell] ?? 0)}
                <span className="text-note font-normal"> ±{length(part.plus_minus_mm)}</span>
              </strong>
            </button>
            {part.moves && <StretchRow stretches={part.stretches} />}
            {marked === part.code && <MayBeOff part={part} />}
          </li>
        ))}
      </ul>
      {motion.scrub_radius_mm != null && motion.fitted_scrub_radius_mm != null && (
        <p className="mt-1 text-small">
          Scrub radius {length(motion.fitted_scrub_radius_mm, true)} → {length(motion.scrub_radius_mm, true)},
          trail {length(motion.fitted_trail_mm ?? 0, true)} → {length(motion.trail_mm ?? 0, true)}.
        </p>
      )}
      {motion.assumed.length > 0 && (
        <p className="mt-1 text-small">
          Taken as usual, not measured: {motion.assumed.join(", ")}. <Link to="../car">State them</Link>, and
          this gets surer.
        </p>
      )}
      <Caution className="mt-2">{motion.caution}</Caution>
    </>
  );
}

/** What may be off in the pose with the least room: the first is what to read better. */
function MayBeOff({ part }: { part: MotionPart }) {
  const { units } = useUnits();
  const [first] = part.may_be_off;
  if (!first) return null;
  return (
    <div className="pl-5 text-small" data-may-be-off>
      <p>What may be off there; to be surer, begin with the {first.what}:</p>
      <ul className="flex flex-wrap gap-x-3">
        {part.may_be_off.map((one) => (
          <li key={one.what}>
            {one.what} {inWords(formatLength(one.less_mm, units))}
          </li>
        ))}
      </ul>
    </div>
  );
}

type RemediesProps = Pick<Props, "open" | "axle" | "usage" | "motion">;

/** What turns the verdict by itself, each with its caution, and what does not. */
function Remedies({ open, axle, usage, motion }: RemediesProps) {
  const { data: remedies, isLoading } = useRemedies(open, axle, usage, motion.is_ruled_out);
  if (!motion.is_ruled_out) return null;
  if (isLoading) return <p className="mt-1 text-small">Trying what would mend it…</p>;
  if (!remedies?.length) return null;
  const does = remedies.filter((one) => one.turns_it);
  const doesNot = remedies.filter((one) => !one.turns_it).map((one) => one.name);
  return (
    <section aria-label="What turns it" className="mt-1" data-remedies>
      <ul>
        {does.map((one) => (
          <li key={one.code} className="border-accent mt-1 border-l-3 pl-2" data-remedy={one.code}>
            <Phrase fragments={one.says} /> <span className="text-small">{one.caution}</span>
          </li>
        ))}
      </ul>
      {doesNot.length > 0 && (
        <p className="mt-1 text-small" data-no-remedy>
          {does.length > 0 ? "Not by itself: " : "Nothing turns it by itself: "}
          {doesNot.join(", ")}.
        </p>
      )}
    </section>
  );
}
