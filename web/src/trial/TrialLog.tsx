import type { Schemas } from "../api/client";
import type { OpenJob } from "../job/useJob";
import { Mark } from "../shared/Mark";
import { useRegistry, useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";

type TrialView = Schemas["TrialView"];
type TrialsView = Schemas["TrialsView"];

/** What was tried on so far, the latest first. */
export function TrialLog({ open, trials }: { open: OpenJob; trials: TrialsView | undefined }) {
  const { content, edit, id } = open;
  const registry = useRegistry();
  const heard = useVerdicts();
  const tried = [...(trials?.axles.front.tried ?? []), ...(trials?.axles.rear.tried ?? [])];
  const standing = (id: string) => {
    const verdict = tried.find((one) => one.id === id)?.verdict;
    return verdict ? heard(verdict).standing : "unknown";
  };
  const met = (code: string) => registry?.contacts.find((one) => one.code === code)?.name ?? code;
  return (
    <section className="min-w-0 flex-1 overflow-y-auto px-4 py-2 text-body" aria-label="Tried on">
      {content.trials.length === 0 && (
        <p>
          Nothing was tried on yet. Say what was lifted on, what it met and by how much: every contact is a
          measurement, and judges the wheels that were not lifted on.
        </p>
      )}
      <ol>
        {content.trials.toReversed().map((one) => (
          <li key={one.id} className="rule py-2" data-trial={one.id}>
            <p className="flex items-baseline gap-2">
              <Mark standing={standing(one.id)} size={13} />
              <strong>{one.setup}</strong>
              <span className="text-small">
                {one.axle} {one.side}
              </span>
              <span className="ml-auto text-note opacity-85">
                {one.who} {one.at?.slice(0, 16).replace("T", " ")}
              </span>
              <button
                type="button"
                className="plain-button py-0"
                aria-label={`Take the trial of ${one.setup} away`}
                onClick={() => edit({ trials: content.trials.filter((other) => other.id !== one.id) })}
              >
                ✕
              </button>
            </p>
            <p>
              {met(one.contact)}
              <Amount trial={one} />
              {one.steer !== "straight" && `, at ${one.steer === "lock_left" ? "left" : "right"} lock`}
              {one.is_hanging ? ", hanging" : ", on the ground"}
            </p>
            {one.note && <p className="text-small">{one.note}</p>}
            {one.next_step && <p className="text-small">Next: {one.next_step}</p>}
            {(one.photos ?? []).length > 0 && (
              <p className="mt-1 flex gap-2">
                {one.photos?.map((photo) => (
                  <span key={photo} className="flex items-start">
                    <a href={`/api/v1/jobs/${id}/photos/${photo}`} target="_blank" rel="noreferrer">
                      <img
                        className="h-[84px]"
                        src={`/api/v1/jobs/${id}/photos/${photo}`}
                        alt={`Trial of ${one.setup}`}
                      />
                    </a>
                    <button
                      type="button"
                      className="plain-button min-h-[44px] px-2"
                      aria-label={`Take this photo off the trial of ${one.setup}`}
                      title="Off the trial; undo brings it back. House removes for good what no trial names."
                      onClick={() => edit({ trials: content.trials.map(without(one.id, photo)) })}
                    >
                      ✕
                    </button>
                  </span>
                ))}
              </p>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

const without = (trial: string, photo: number) => (one: TrialView) =>
  one.id === trial ? { ...one, photos: one.photos?.filter((other) => other !== photo) } : one;

/** How much room there was, or how far it stood into it. */
export function Amount({ trial }: { trial: TrialView }) {
  const { units } = useUnits();
  if (trial.contact === "none") return null;
  if (trial.gap_mm == null) return <>: touched, not measured</>;
  const figure = inWords(formatLength(Math.abs(trial.gap_mm), units));
  return (
    <>
      : {figure} {trial.gap_mm > 0 ? "gap" : "overlap"}, ± {inWords(formatLength(trial.plus_minus_mm, units))}
    </>
  );
}
