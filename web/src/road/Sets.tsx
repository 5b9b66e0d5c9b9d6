import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";
import { formatLength, inWords, percent, useUnits } from "../shared/units";
import { AgainstTest } from "./AgainstTest";

type SetView = Schemas["SetView"];
type Pair = SetView["overall_diameter_mm"];

const nameOf = (set: string) => (set === "bench" ? "on the bench" : set);
const kg = (value: number | null | undefined) => (value == null ? "not listed" : `${value.toFixed(1)} kg`);

/** Heads of a table of sets. */
function Heads({ names }: { names: string[] }) {
  return (
    <thead>
      <tr className="text-left text-note">
        {names.map((name) => (
          <th key={name} scope="col" className="pr-5 font-normal">
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}

/** Height, sidewall, pull and weight, set beside set: what a smaller wheel gives and what it takes. */
export function SetsOnTheRoad({ sets }: { sets: SetView[] }) {
  const { units } = useUnits();
  const both = ({ front, rear }: Pair) => {
    const one = (mm: number | null | undefined) =>
      mm == null ? "not stated" : inWords(formatLength(mm, units));
    return front === rear ? one(front) : `${one(front)} / ${one(rear)}`;
  };
  return (
    <section aria-label="Sets on the road">
      <h2 className="label-small font-semibold">
        Set beside set: height, sidewall, pull, weight of four wheels
      </h2>
      <table className="text-body" data-sets>
        <Heads
          names={[
            "set",
            "height",
            "sidewall",
            "pull at the road",
            "wheels",
            "tires",
            "to lift over bumps",
            "to accelerate, estimate",
          ]}
        />
        <tbody>
          {sets.map((one) => (
            <tr key={one.set} className="rule">
              <th scope="row" className="pr-5 text-left font-normal">
                {nameOf(one.set)}
              </th>
              <td className="pr-5">{both(one.overall_diameter_mm)}</td>
              <td className="pr-5">{both(one.sidewall_mm)}</td>
              <td className="pr-5">
                {one.pull_change_pct == null ? "not known" : percent(one.pull_change_pct)}
              </td>
              {one.to_lift_kg == null ? (
                <td colSpan={4}>weights not listed: they come with the picked wheels and tires</td>
              ) : (
                <>
                  <td className="pr-5">{kg(one.wheels_kg)}</td>
                  <td className="pr-5">{kg(one.tires_kg)}</td>
                  <td className="pr-5">{kg(one.to_lift_kg)}</td>
                  <td className="font-semibold">{kg(one.to_accelerate_kg)}</td>
                </>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 max-w-prose text-note opacity-85">
        m + I / R² for each wheel, with I ≈ m tire × (0.90 R)² + m wheel × (0.72 R rim)². A lighter wheel with
        a heavier tire can gain nothing. A taller sidewall rolls over more as pressure falls; a lower tire
        shortens the gearing.
      </p>
    </section>
  );
}

/** Each set's worst wheel in each case, with its price and its class. */
export function SetsAtTheLimit({ sets }: { sets: SetView[] }) {
  const cases = sets.find((one) => one.cases.length > 0)?.cases ?? [];
  if (cases.length === 0) return null;
  const hasClass = sets.some((one) => one.legal != null);
  return (
    <section aria-label="Sets at the limit" className="mt-3">
      <h2 className="label-small font-semibold">Set beside set: the wheel that stands worst</h2>
      <table className="text-body" data-sets-at-limit>
        <Heads
          names={[
            "set",
            ...(hasClass ? ["class"] : []),
            "wheels, price",
            "load on each mm of tread",
            ...cases.map(({ name }) => name),
          ]}
        />
        <tbody>
          {sets.map((one) => (
            <tr key={one.set} className="rule align-top">
              <th scope="row" className="pr-5 text-left font-normal">
                {nameOf(one.set)}
              </th>
              {hasClass && (
                <td className="pr-5">
                  <span className="flex items-center gap-1">
                    <Mark standing={one.legal ? "good" : "stop"} size={12} />
                    {one.legal ? "legal" : "not known to be legal"}
                  </span>
                </td>
              )}
              <td className="pr-5">
                {one.made.front && (
                  <span className="block">
                    {one.made.front === one.made.rear
                      ? one.made.front
                      : `${one.made.front} / ${one.made.rear}`}
                  </span>
                )}
                {one.price ? one.price.amount.toFixed(2) : "not picked"}
                {one.price && !one.price.is_whole && ", not whole"}
                {one.is_within_budget != null && one.price && (
                  <span className="block text-note">
                    {one.is_within_budget ? "within the budget" : "not within the budget"}
                  </span>
                )}
              </td>
              <td className="pr-5">
                <Heat pair={one.heat_width} />
              </td>
              {one.cases.map(({ code, wheel }) => (
                <td key={code} className="pr-5">
                  {wheel.position} {wheel.load_kg.toFixed(0)} kg
                  {wheel.tire_kg != null && `, tire ${wheel.tire_kg.toFixed(0)}`}
                  {wheel.rating_kg != null && `, wheel ${wheel.rating_kg.toFixed(0)}`}
                  <AgainstTest wheel={wheel} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** A trend, in words: how much of the axle's load each millimetre of tread has against the reference tire. */
function Heat({ pair }: { pair: SetView["heat_width"] }) {
  const { front, rear } = pair;
  const isSame = front?.change_pct === rear?.change_pct;
  const says = (name: string, heat: typeof front) =>
    heat ? `${name}${percent(heat.change_pct)}, ${heat.says}` : `${name}not stated`;
  return isSame ? (
    says("", front)
  ) : (
    <>
      <span className="block">{says("front ", front)}</span>
      <span className="block">{says("rear ", rear)}</span>
    </>
  );
}
