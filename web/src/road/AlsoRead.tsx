import { BESIDE, type Walk } from "./walk";

/** What is read beside the depths, and in what the depths are read. */
export function AlsoRead({ walk, onChange }: { walk: Walk; onChange: (walk: Walk) => void }) {
  return (
    <fieldset className="flex flex-wrap items-center gap-x-3 text-small">
      <legend className="sr-only">Read beside the depths</legend>
      {BESIDE.map(({ kind, name }) => (
        <label key={kind} className="flex items-center gap-1">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={walk.also.includes(kind)}
            onChange={(event) =>
              onChange({
                ...walk,
                also: event.target.checked ? [...walk.also, kind] : walk.also.filter((one) => one !== kind),
              })
            }
          />
          {name}
        </label>
      ))}
      <select
        className="bg-base-200 h-[28px] px-1"
        aria-label="Depths in"
        value={walk.depthsIn}
        onChange={(event) => onChange({ ...walk, depthsIn: event.target.value as Walk["depthsIn"] })}
      >
        <option value="mm">depths in mm</option>
        <option value="32nds">depths in 1/32 in</option>
      </select>
    </fieldset>
  );
}
