import type { House, Registry } from "../api/client";
import { Segments } from "../shared/Segments";

/** How the next reading is taken; stays from one to the next. */
export type Manner = {
  unit: string;
  instrument: string;
  stance: "ground" | "hanging";
  /** Null until somebody says it: the program then takes the usual one. */
  steer: "straight" | "lock_left" | "lock_right" | null;
  bareHub: boolean;
};

/** What is typed of a reading before it is taken. */
export type Typed = { text: string; radius: string; face: string; direction: string; clock: string };

type Props = {
  part: Registry["parts"][number];
  registry: Registry;
  instruments: House["instruments"];
  instrument: House["instruments"][number] | undefined;
  bareHub: boolean;
  manner: Manner;
  onManner: (change: Partial<Manner>) => void;
  typed: Typed;
  onType: (change: Partial<Typed>) => void;
};

/** With what and against what a figure is read, and how the car stands. */
export function HowRead({
  part,
  registry,
  instruments,
  instrument,
  bareHub,
  manner,
  onManner,
  typed,
  onType,
}: Props) {
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      <label className="flex items-center gap-2 text-body">
        with
        <select
          className="bg-base-200 h-[44px] px-2 text-lead"
          aria-label="Instrument"
          value={instrument?.code ?? ""}
          onChange={(event) => onManner({ instrument: event.target.value })}
        >
          {instruments.map((one) => (
            <option key={one.code} value={one.code}>
              {one.name}, ± {one.plus_minus_mm} mm
            </option>
          ))}
        </select>
      </label>
      {part.from_bare_hub && (
        <Segments
          tall
          label="Against"
          value={bareHub ? "hub" : "wheel"}
          options={[
            ["wheel", "fitted wheel"],
            ["hub", "bare hub"],
          ]}
          onPick={(to) => onManner({ bareHub: to === "hub" })}
        />
      )}
      <Segments
        tall
        label="The car stands"
        value={manner.stance}
        options={[
          ["ground", "on the ground"],
          ["hanging", "hanging"],
        ]}
        onPick={(stance) => onManner({ stance: stance as Manner["stance"] })}
      />
      {part.at_lock && (
        <Segments
          tall
          label="Steering"
          value={manner.steer ?? "usual"}
          options={[
            ["usual", "at lock"],
            ["straight", "straight"],
            ["lock_left", "lock left"],
            ["lock_right", "lock right"],
          ]}
          onPick={(steer) => onManner({ steer: steer === "usual" ? null : (steer as Manner["steer"]) })}
        />
      )}
      {part.takes_radius && (
        <>
          <Pick
            label="From"
            value={typed.face}
            usual="its usual face"
            entries={registry.faces}
            onPick={(face) => onType({ face })}
          />
          <Pick
            label="Along"
            value={typed.direction}
            usual="the usual way"
            entries={registry.directions}
            onPick={(direction) => onType({ direction })}
          />
        </>
      )}
      {part.at_lock && (
        <label className="flex items-center gap-2 text-body">
          at
          <input
            className="bg-base-200 h-[44px] w-[72px] px-2 text-right text-lead"
            aria-label="Where round the wheel, as hours of a clock: 3 ahead, 12 above, 9 behind"
            inputMode="decimal"
            placeholder="usual"
            value={typed.clock}
            onChange={(event) => onType({ clock: event.target.value })}
          />
          o'clock
        </label>
      )}
      {part.takes_radius && (
        <label className="flex items-center gap-2 text-body">
          from the axle
          <input
            className="bg-base-200 h-[44px] w-[84px] px-2 text-right text-lead"
            aria-label="How far from the axle, in millimetres"
            inputMode="decimal"
            placeholder="not noted"
            value={typed.radius}
            onChange={(event) => onType({ radius: event.target.value })}
          />
          mm
        </label>
      )}
    </div>
  );
}

type PickProps = {
  label: string;
  value: string;
  usual: string;
  entries: Registry["faces"];
  onPick: (code: string) => void;
};

/** One of what the program lists, or the part's usual one. */
function Pick({ label, value, usual, entries, onPick }: PickProps) {
  return (
    <label className="flex items-center gap-2 text-body">
      {label.toLowerCase()}
      <select
        className="bg-base-200 h-[44px] px-2 text-lead"
        aria-label={label}
        value={value}
        onChange={(event) => onPick(event.target.value)}
      >
        <option value="">{usual}</option>
        {entries.map((one) => (
          <option key={one.code} value={one.code}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  );
}
