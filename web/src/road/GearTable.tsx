import type { Schemas } from "../api/client";
import { formatSpeed, inWords, percent, useUnits } from "../shared/units";
import { GearChart } from "./GearChart";
import type { PartProps } from "./RoadTrack";

type Props = {
  before: Schemas["RoadView"];
  after: Schemas["RoadView"];
  answer: PartProps["answer"];
  limiter: number;
};

/** Speeds at the limiter, revolutions at a cruise, and the pull, on both tires. */
export function GearTable({ before, after, answer, limiter }: Props) {
  const { units } = useUnits();
  return (
    <div className="mt-2 flex flex-wrap gap-4">
      <GearChart before={before} after={after} limiter={limiter} />
      <table className="self-start text-body" data-gears>
        <thead>
          <tr className="text-left text-note">
            <td className="pr-4" />
            <th scope="col" className="pr-6 font-normal">
              reference tire
            </th>
            <th scope="col" className="font-normal">
              planned tire
            </th>
          </tr>
        </thead>
        <tbody>
          {after.gears.map((gear, at) => (
            <tr key={gear.ratio} className="rule">
              <th scope="row" className="pr-4 text-left font-normal">
                gear {at + 1}, {gear.ratio}
              </th>
              <td className="pr-6">
                {inWords(formatSpeed(before.gears[at]?.limiter_kmh ?? 0, units))} at the limiter
              </td>
              <td className="font-semibold">{inWords(formatSpeed(gear.limiter_kmh, units))}</td>
            </tr>
          ))}
          <Row
            name={`engine at ${inWords(formatSpeed(answer?.cruise_kmh ?? 0, units))}`}
            before={`${before.cruise_rpm.toFixed(0)} 1/min`}
            after={`${after.cruise_rpm.toFixed(0)} 1/min`}
          />
          <Row
            name="effective final drive"
            before={before.effective_final.toFixed(2)}
            after={after.effective_final.toFixed(2)}
          />
          <Row name="pull at the road" before="" after={percent(after.tractive_effort_change_pct)} />
          {answer?.first_gear_pull_n && (
            <Row
              name="pull in first gear at the torque"
              before={kilonewtons(answer.first_gear_pull_n[0])}
              after={kilonewtons(answer.first_gear_pull_n[1])}
            />
          )}
          {after.crawl_ratio != null && (
            <Row
              name="crawl ratio, the tire not counted"
              before={before.crawl_ratio?.toFixed(1) ?? ""}
              after={after.crawl_ratio.toFixed(1)}
            />
          )}
        </tbody>
      </table>
    </div>
  );
}

const kilonewtons = (newtons: number | undefined) => `${((newtons ?? 0) / 1000).toFixed(2)} kN`;

function Row({ name, before, after }: { name: string; before: string; after: string }) {
  return (
    <tr className="rule">
      <th scope="row" className="pr-4 text-left font-normal">
        {name}
      </th>
      <td className="pr-6">{before}</td>
      <td className="font-semibold">{after}</td>
    </tr>
  );
}
