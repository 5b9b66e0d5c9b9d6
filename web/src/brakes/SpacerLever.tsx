import { useRegistry } from "../shared/registry";

/** The spacer between hub and wheel, pulled. */
export function SpacerLever({ mm, onPut }: { mm: number; onPut: (mm: number) => void }) {
  const registry = useRegistry();
  return (
    <label className="ml-auto flex items-center gap-2">
      spacer
      <input
        type="range"
        className="range-lever w-[130px]"
        aria-label="Spacer, mm"
        min={0}
        max={registry?.figures.thickest_spacer_mm}
        step={1}
        value={mm}
        onChange={(event) => onPut(Number(event.target.value))}
      />
      <strong className="w-[52px]" data-spacer>
        {mm} mm
      </strong>
    </label>
  );
}
