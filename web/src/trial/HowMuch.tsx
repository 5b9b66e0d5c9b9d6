import { NumberBox } from "../shared/NumberBox";
import { useHouse } from "../shared/registry";

type Props = {
  gap: number | null;
  overlaps: boolean;
  onChange: (change: { gap?: number | null; overlaps?: boolean }) => void;
  instrument: string;
  onInstrument: (code: string) => void;
};

/** The gap or overlap of what was met, and by what it was measured. */
export function HowMuch({ gap, overlaps, onChange, instrument, onInstrument }: Props) {
  const house = useHouse();
  return (
    <div className="flex flex-wrap items-center gap-2">
      <select
        className="bg-base-200 h-[44px] px-1"
        aria-label="Gap or overlap"
        value={overlaps ? "overlap" : "gap"}
        onChange={(event) => onChange({ overlaps: event.target.value === "overlap" })}
      >
        <option value="gap">gap</option>
        <option value="overlap">overlap</option>
      </select>
      <NumberBox label="How much, mm" value={gap} placeholder="?" onPut={(gap) => onChange({ gap })} />
      mm by
      <select
        className="bg-base-200 h-[44px] min-w-0 flex-1 px-1"
        aria-label="Instrument"
        value={instrument}
        onChange={(event) => onInstrument(event.target.value)}
      >
        {house?.instruments.map((one) => (
          <option key={one.code} value={one.code}>
            {one.name}
          </option>
        ))}
      </select>
      {gap == null && (
        <span className="text-note opacity-85">left blank: it touched, nobody measured by how much</span>
      )}
    </div>
  );
}
