import type { Schemas } from "../api/client";
import { Choice } from "../shared/Choice";
import { NumberBox } from "../shared/NumberBox";
import { Allowed } from "./Allowed";

export type Sought = Pick<
  Schemas["FinderRequest"],
  | "school"
  | "uses"
  | "carried"
  | "chains"
  | "season"
  | "keeps"
  | "allowed"
  | "arrangement"
  | "mixed_diameters"
  | "rim_min_in"
  | "rim_max_in"
  | "rear_rim_min_in"
  | "rear_rim_max_in"
  | "in_class"
  | "budget"
  | "thickest_spacer_mm"
  | "weights"
>;

type Props = {
  sought: Sought;
  choices: Schemas["WishChoices"] | null;
  criteria: Schemas["CriterionView"][] | null;
  isBusy: boolean;
  /** The class of the road and track sheet, when one was chosen. */
  className: string | null;
  onChange: (change: Partial<Sought>) => void;
  onSearch: () => void;
};

const pairs = (entries: Schemas["UnitEntry"][] | undefined) =>
  (entries ?? []).map(({ code, name }) => [code, name] as const);

/** What is sought, and how much each criterion counts. */
export function Wishes({ sought, choices, criteria, isBusy, className, onChange, onSearch }: Props) {
  const uses = sought.uses ?? [];
  return (
    <form
      className="border-base-300 flex shrink-0 flex-col gap-2 overflow-x-hidden overflow-y-auto border-b px-4 py-2 text-body min-[1000px]:w-[290px] min-[1000px]:border-r min-[1000px]:border-b-0"
      aria-label="What is sought"
      onSubmit={(event) => {
        event.preventDefault();
        onSearch();
      }}
    >
      <Choice
        label="Start from"
        value={sought.school ?? ""}
        options={pairs(choices?.schools)}
        onPick={(school) => onChange({ school, weights: {} })}
      />
      <fieldset>
        <legend className="label-small">The car is for</legend>
        {choices?.uses.map(({ code, name }) => (
          <label key={code} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={uses.includes(code)}
              onChange={(event) =>
                onChange({
                  uses: event.target.checked ? [...uses, code] : uses.filter((one) => one !== code),
                })
              }
            />
            {name}
          </label>
        ))}
      </fieldset>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={sought.carried ?? false}
          onChange={(event) => onChange({ carried: event.target.checked })}
        />
        the set is carried to the event
      </label>
      <Choice
        label="Snow chains"
        value={typeof sought.chains === "string" ? sought.chains : sought.chains ? "S" : ""}
        options={[
          ["", "none"],
          ["S", "class S, little room"],
          ["U", "class U"],
        ]}
        onPick={(chains) => onChange({ chains: chains || false })}
      />
      <Choice
        label="Season"
        value={sought.season ?? ""}
        options={[["", "any"], ...pairs(choices?.seasons)]}
        onPick={(season) => onChange({ season: season || null })}
      />
      <Choice
        label="The owner keeps"
        value={sought.keeps ?? ""}
        options={pairs(choices?.keeps)}
        onPick={(keeps) => onChange({ keeps })}
      />
      <Choice
        label="Axles"
        value={sought.arrangement ?? ""}
        options={pairs(choices?.arrangements)}
        onPick={(arrangement) => onChange({ arrangement })}
      />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={sought.mixed_diameters ?? false}
          onChange={(event) => onChange({ mixed_diameters: event.target.checked })}
        />
        rims may differ in diameter
      </label>
      {className && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={sought.in_class ?? false}
            onChange={(event) => onChange({ in_class: event.target.checked })}
          />
          legal in {className}
        </label>
      )}
      <div className="flex items-center gap-2">
        rims
        <NumberBox
          label="Smallest rim, in"
          value={sought.rim_min_in}
          onPut={(rim_min_in) => onChange({ rim_min_in })}
        />
        to
        <NumberBox
          label="Largest rim, in"
          value={sought.rim_max_in}
          onPut={(rim_max_in) => onChange({ rim_max_in })}
        />
        in
      </div>
      {sought.mixed_diameters && (
        <div className="flex items-center gap-2">
          rear rims
          <NumberBox
            label="Smallest rear rim, in"
            value={sought.rear_rim_min_in}
            placeholder="as front"
            onPut={(rear_rim_min_in) => onChange({ rear_rim_min_in })}
          />
          to
          <NumberBox
            label="Largest rear rim, in"
            value={sought.rear_rim_max_in}
            placeholder="as front"
            onPut={(rear_rim_max_in) => onChange({ rear_rim_max_in })}
          />
          in
        </div>
      )}
      <div className="flex items-center gap-2">
        budget
        <NumberBox
          label="Budget of the set"
          value={sought.budget}
          onPut={(budget) => onChange({ budget })}
          wide
        />
      </div>
      <div className="flex items-center gap-2">
        spacers up to
        <NumberBox
          label="Thickest spacer, mm"
          value={sought.thickest_spacer_mm}
          onPut={(mm) => onChange({ thickest_spacer_mm: mm ?? 0 })}
        />
        mm
      </div>
      <Allowed allowed={sought.allowed ?? null} onChange={(allowed) => onChange({ allowed })} />
      <button type="submit" className="btn btn-primary btn-sm" disabled={isBusy}>
        {isBusy ? "Searching…" : "Find"}
      </button>
      {criteria && (
        <Weights
          criteria={criteria}
          weights={sought.weights ?? {}}
          most={choices?.most_weight}
          onChange={(weights) => onChange({ weights })}
        />
      )}
    </form>
  );
}

type WeightsProps = {
  criteria: Schemas["CriterionView"][];
  weights: NonNullable<Sought["weights"]>;
  most: number | undefined;
  onChange: (weights: NonNullable<Sought["weights"]>) => void;
};

/** How much each criterion counts. */
function Weights({ criteria, weights, most, onChange }: WeightsProps) {
  return (
    <fieldset className="min-w-0">
      <legend className="label-small">How much each counts</legend>
      {criteria.map((one) => (
        <label key={one.code} className="flex min-w-0 items-center gap-2 text-small" title={one.rule}>
          <span className="w-[128px]">{one.title}</span>
          <input
            type="range"
            className="range-lever min-w-0 flex-1"
            min={0}
            max={most}
            step={0.5}
            value={weights[one.code] ?? one.weight}
            onChange={(event) => onChange({ ...weights, [one.code]: Number(event.target.value) })}
          />
          <span className="w-[26px] text-right">{weights[one.code] ?? one.weight}</span>
        </label>
      ))}
    </fieldset>
  );
}
