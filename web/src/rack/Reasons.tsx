import type { Schemas } from "../api/client";
import { Phrase } from "../shared/Figures";
import { Mark } from "../shared/Mark";

type Props = { setup: Schemas["FoundView"]; criteria: Schemas["CriterionView"][] };

/** Why a setup was found: its reasons, and its score by criterion. */
export function Reasons({ setup, criteria }: Props) {
  return (
    <details className="text-small">
      <summary className="cursor-pointer">
        reasons and scores ({(setup.score * 100).toFixed(0)} of 100)
      </summary>
      <ul className="mt-1">
        {setup.reasons.map((one, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a setup's reasons never change their order
          <li key={at} className="flex items-baseline gap-1">
            <Mark standing={one.is_caution ? "mind" : "good"} size={12} />
            <span>
              {one.axle && `${one.axle}: `}
              <Phrase fragments={one.says} />{" "}
              <span className="text-note opacity-80">({one.source.cite})</span>
            </span>
          </li>
        ))}
      </ul>
      <dl className="mt-1 grid grid-cols-[140px_1fr_44px] items-center gap-x-2">
        {criteria.map((one) => {
          const score = setup.scores[one.code] ?? 0;
          return (
            <div key={one.code} className="contents" title={one.rule}>
              <dt>{one.title}</dt>
              <dd className="bg-base-300 h-[8px]">
                <div className="bg-primary h-full" style={{ width: `${score * 100}%` }} />
              </dd>
              <dd className="text-right">{(score * 100).toFixed(0)}</dd>
            </div>
          );
        })}
      </dl>
    </details>
  );
}
