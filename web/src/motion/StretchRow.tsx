import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import type { Stretch } from "./useMotion";

/** Standing, at lock, over bumps, together: the least room of each with its word as a mark. */
export function StretchRow({ stretches }: { stretches: Stretch[] }) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  return (
    <dl className="relative grid grid-cols-4 pl-5 text-note leading-4">
      {stretches.map((one) => {
        const { standing, word } = verdict(one.verdict);
        return (
          <div key={one.code} data-stretch={one.code} data-stretch-verdict={one.verdict}>
            <dt className="opacity-85">{one.name}</dt>
            <dd className="flex items-center gap-1 whitespace-nowrap">
              <Mark standing={standing} size={11} />
              <span className="sr-only">{word}, </span>
              {inWords(formatLength(one.room_mm, units))}
            </dd>
          </div>
        );
      })}
    </dl>
  );
}
