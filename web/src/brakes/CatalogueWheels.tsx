import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";

type Wheel = Schemas["CatalogueWheel"];
type Props = { wheels: Wheel[]; picked: Wheel | null; onPick: (wheel: Wheel) => void };

/** Every wheel of the catalogue over the brake, each with its word. */
export function CatalogueWheels({ wheels, picked, onPick }: Props) {
  const verdict = useVerdicts();
  return (
    <details className="rule mt-2 pt-1">
      <summary className="label-small cursor-pointer font-semibold">
        {wheels.length} wheels of the catalogue over it
      </summary>
      <ul className="max-h-[240px] overflow-y-auto text-small" data-wheels={wheels.length}>
        {wheels.map((one) => (
          <li key={one.row}>
            <button
              type="button"
              aria-pressed={one.row === picked?.row}
              className="hover:bg-base-300/60 aria-pressed:bg-accent/15 flex w-full cursor-pointer items-center gap-2 text-left"
              onClick={() => onPick(one)}
            >
              <Mark standing={verdict(one.verdict).standing} size={12} />
              <span className="flex-1">
                {one.line} {one.setup}
              </span>
              <span>{verdict(one.verdict).word}</span>
              {one.source !== "estimate" && <span className="opacity-80">measured</span>}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
