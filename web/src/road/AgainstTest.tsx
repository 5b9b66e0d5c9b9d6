import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";

const STANDS = { good: "good", watch: "mind", not_for_this: "stop" } as const;
const WORDS = { good: "good", watch: "watch and inspect", not_for_this: "not for this use" } as const;

/** A wheel in a case against its own fatigue test, and whether it carries more than its parts are made for. */
export function AgainstTest({ wheel }: { wheel: Schemas["WheelAtLimitView"] }) {
  const stands = wheel.stands as keyof typeof STANDS | null | undefined;
  return (
    <span className="flex flex-wrap items-center gap-x-2">
      {wheel.is_over && (
        <span className="flex items-center gap-1">
          <Mark standing="mind" size={12} /> over
        </span>
      )}
      {wheel.tested_share == null || !stands ? (
        "wheel's rating not stated"
      ) : (
        <span className="flex items-center gap-1">
          <Mark standing={STANDS[stands]} size={12} />
          {(wheel.tested_share * 100).toFixed(0)} % of its test, {WORDS[stands]}
        </span>
      )}
    </span>
  );
}
