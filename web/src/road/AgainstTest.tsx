import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";

/** A wheel in a case against its own fatigue test, and whether it carries more than its parts are made for. */
export function AgainstTest({ wheel }: { wheel: Schemas["WheelAtLimitView"] }) {
  return (
    <span className="flex flex-wrap items-center gap-x-2">
      {wheel.is_over && (
        <span className="flex items-center gap-1">
          <Mark standing="mind" size={12} /> over
        </span>
      )}
      {wheel.tested_share == null || !wheel.standing ? (
        "wheel's rating not stated"
      ) : (
        <span className="flex items-center gap-1">
          <Mark standing={wheel.standing} size={12} />
          {(wheel.tested_share * 100).toFixed(0)} % of its test, {wheel.word}
        </span>
      )}
    </span>
  );
}
