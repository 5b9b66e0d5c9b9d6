import type { Axle, Wanted } from "../api/client";
import { numberOf } from "../shared/number";
import { useRegistry } from "../shared/registry";

type Props = { axle: Axle; wanted: Wanted | null; onWant: (wanted: Wanted | null) => void };

/** How the owner wants it to stand: the window then shows the offsets that give it. */
export function StyleWish({ axle, wanted, onWant }: Props) {
  const registry = useRegistry();
  return (
    <div className="flex flex-wrap items-center gap-2 text-small">
      <label className="flex items-center gap-1">
        wanted
        <select
          className="bg-base-200 h-[26px] px-1"
          aria-label={`Wanted style, ${axle}`}
          value={wanted?.style ?? ""}
          onChange={(event) =>
            onWant(event.target.value ? { stance: false, ...wanted, style: event.target.value } : null)
          }
        >
          <option value="">no wish</option>
          {registry?.looks.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {wanted && (
        <>
          <label className="flex items-center gap-1">
            within ±
            <input
              className="bg-base-200 h-[26px] w-[44px] px-1 text-right"
              aria-label={`Tolerance in millimetres, ${axle}`}
              placeholder="house"
              inputMode="decimal"
              value={wanted.within_mm ?? ""}
              onChange={(event) => {
                const text = event.target.value.trim();
                const within = text === "" ? null : numberOf(text);
                if (within === null || Number.isFinite(within)) onWant({ ...wanted, within_mm: within });
              }}
            />
            mm
          </label>
          <label className="flex items-center gap-1">
            <input
              type="checkbox"
              checked={wanted.stance ?? false}
              onChange={(event) => onWant({ ...wanted, stance: event.target.checked })}
            />
            show car
          </label>
        </>
      )}
    </div>
  );
}
