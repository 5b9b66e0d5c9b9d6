import type { Registry } from "../api/client";
import { NumberBox } from "../shared/NumberBox";
import { useRegistry } from "../shared/registry";
import type { Shown } from "./useBrakes";

const usualWeights = (registry: Registry | null) =>
  registry && {
    from_y_mm: registry.figures.weights_from_y_mm,
    to_y_mm: registry.figures.weights_to_y_mm,
    height_mm: registry.figures.weights_height_mm,
  };

type Props = { weights: Shown["weights"]; onChange: (weights: Shown["weights"]) => void };

/** Stick-on weights in the barrel: where they stand, and how high. */
export function StickOnWeights({ weights, onChange }: Props) {
  const registry = useRegistry();
  return (
    <div className="flex flex-wrap items-center gap-2 pt-1 text-small">
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          checked={weights != null}
          onChange={(event) => onChange(event.target.checked ? usualWeights(registry) : null)}
        />
        stick-on weights
      </label>
      {weights && (
        <>
          from y
          <NumberBox
            label="Weights begin at y, mm"
            value={weights.from_y_mm}
            onPut={(mm) => onChange({ ...weights, from_y_mm: mm ?? 0 })}
          />
          to
          <NumberBox
            label="Weights end at y, mm"
            value={weights.to_y_mm}
            onPut={(mm) => onChange({ ...weights, to_y_mm: mm ?? 0 })}
          />
          high
          <NumberBox
            label="Height of the weights, mm"
            value={weights.height_mm}
            onPut={(mm) => onChange({ ...weights, height_mm: mm ?? 0 })}
          />
          mm
        </>
      )}
    </div>
  );
}
