import type { Lines, Schemas } from "../api/client";
import { asLine } from "../job/content";
import { SetupField } from "../shared/SetupField";

type Alternative = Schemas["AlternativeView"];

type Props = {
  /** The job's uid. */
  whose: string;
  alternatives: Alternative[];
  onChange: (alternatives: Alternative[]) => void;
  onFit: (lines: Lines) => void;
};

/** Other wheels and tires the factory offered on this car. */
export function Alternatives({ whose, alternatives, onChange, onFit }: Props) {
  const replace = (at: number, change: Partial<Alternative>) =>
    onChange(alternatives.map((one, index) => (index === at ? { ...one, ...change } : one)));
  return (
    <section className="min-[1000px]:col-span-2">
      <h2 className="label-small mb-1 font-semibold">Other wheels from the factory</h2>
      {alternatives.length === 0 && (
        <p className="text-body">None written down. An option that left the factory is proof that it fits.</p>
      )}
      <ul>
        {alternatives.map((one, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no name of their own while they are typed
          <li key={at} className="rule flex flex-wrap items-center gap-2 py-1">
            <input
              className="bg-base-200 w-[150px] px-2 text-body leading-[30px]"
              aria-label="Name of the option"
              placeholder="sport option"
              maxLength={60}
              value={one.name}
              onChange={(event) => replace(at, { name: event.target.value })}
            />
            <SetupField
              label="Option"
              tone="fitted"
              keptAs={`alternative-${at}`}
              whose={whose}
              value={asLine(one.lines)}
              placeholder="18x8 ET45 225/40R18"
              onRead={({ lines }) => replace(at, { lines })}
            />
            <button type="button" className="plain-button" onClick={() => onFit(one.lines)}>
              It is fitted
            </button>
            <button
              type="button"
              className="plain-button"
              aria-label={`Take away ${one.name || "this option"}`}
              onClick={() => onChange(alternatives.filter((_, index) => index !== at))}
            >
              Take away
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="plain-button text-accent font-medium"
        disabled={alternatives.length >= 20}
        onClick={() => onChange([...alternatives, { name: "", lines: { front: null, rear: null } }])}
      >
        Add an option
      </button>
    </section>
  );
}
