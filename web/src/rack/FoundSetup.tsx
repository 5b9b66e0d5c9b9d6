import { useState } from "react";
import type { Drawing, Schemas } from "../api/client";
import { Phrase } from "../shared/Figures";
import { Mark } from "../shared/Mark";
import { Minds } from "./Minds";
import { Reasons } from "./Reasons";
import { SmallCorner } from "./SmallCorner";
import { Supply } from "./Supply";

type Found = Schemas["FoundView"];
/** What of a setup changes with the design of its wheels. */
export type Chosen = Pick<
  Schemas["DesignView"],
  "lines" | "picked" | "levers" | "price" | "price_is_whole" | "wheels"
>;

type Props = {
  place: number;
  setup: Found;
  /** What is on the car, drawn. */
  fitted: { front: Drawing | null; rear: Drawing | null };
  criteria: Schemas["CriterionView"][];
  supply: Schemas["SetSupply"] | undefined;
  /** How the supplier stands. */
  supplier: string | undefined;
  onPlan: (chosen: Chosen) => void;
};

/** The line of its tires; both where the axles carry different ones. */
const tiresOf = ({ tires: { front, rear } }: Found) =>
  front.line === rear.line ? front.line : `${front.line} in front, ${rear.line} behind`;

const money = (amount: number) => amount.toFixed(2);

/** One setup: its corners, what it costs and when it is here, what it needs, what must be minded, why it stands where it does. */
export function FoundSetup({ place, setup, fitted, criteria, supply, supplier, onPlan }: Props) {
  const [design, setDesign] = useState(0);
  const designs: Chosen[] = [setup, ...setup.designs];
  const chosen = designs[design] ?? setup;
  const isOwnDesign = design === 0;
  const isSquare = setup.lines.front === setup.lines.rear;
  const price = isOwnDesign && supply ? supply : chosen;
  const flick = (by: number) => setDesign((now) => (now + by + designs.length) % designs.length);
  return (
    <li className="rule flex flex-wrap gap-x-4 py-2" data-setup={place}>
      <div className="flex shrink-0 gap-1">
        <SmallCorner drawing={setup.drawings.front ?? null} fitted={fitted.front} name="front" />
        <SmallCorner drawing={setup.drawings.rear ?? null} fitted={fitted.rear} name="rear" />
      </div>
      <div className="min-w-0 flex-1 basis-[460px]">
        <div className="flex flex-wrap items-baseline gap-x-3">
          <span className="text-head font-semibold">{place}</span>
          <span className="text-lead font-semibold" data-design>
            {chosen.wheels.front.line} {chosen.wheels.front.detail}
          </span>
          {designs.length > 1 && (
            <span className="flex items-baseline text-small">
              <button
                type="button"
                className="plain-button px-1.5"
                aria-label="The design before"
                onClick={() => flick(-1)}
              >
                ‹
              </button>
              {design + 1} of {designs.length} designs
              <button
                type="button"
                className="plain-button px-1.5"
                aria-label="The next design"
                onClick={() => flick(1)}
              >
                ›
              </button>
            </span>
          )}
          <span className="text-body">
            with {tiresOf(setup)} · {setup.arrangement}
          </span>
          <span className="ml-auto text-head font-semibold" data-price>
            {price.price_is_whole ? "" : "at least "}
            {money(price.price)}
          </span>
          <button type="button" className="btn btn-primary btn-sm" onClick={() => onPlan(chosen)}>
            To the bench
          </button>
        </div>
        <table className="w-full text-body">
          <tbody>
            {(isSquare ? (["front"] as const) : (["front", "rear"] as const)).map((axle) => (
              <tr key={axle}>
                <td className="w-[52px] text-small opacity-85">{isSquare ? "all four" : axle}</td>
                <td>{chosen.wheels[axle].name}</td>
                <td>
                  {setup.tires[axle].name} <span className="text-note">{setup.tires[axle].detail}</span>
                </td>
                <td className="text-right text-small">
                  {stock(chosen.wheels[axle])} / {stock(setup.tires[axle])}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <dl className="mt-0.5 grid grid-cols-[92px_1fr] gap-x-2 text-small leading-[19px]">
          {isOwnDesign && (
            <>
              <dt className="opacity-85">when</dt>
              <dd>
                <Supply supply={supply} state={supplier} />
              </dd>
            </>
          )}
          {setup.work.length > 0 && (
            <>
              <dt className="opacity-85">work</dt>
              <dd>
                {setup.work.map((one) => (
                  <p key={`${one.axle}-${one.lever}`}>
                    {one.axle} {one.title.toLowerCase()} {one.amount}
                    {one.in_degrees ? "°" : " mm"}: {one.costs} <strong>{one.caution}</strong>
                  </p>
                ))}
              </dd>
            </>
          )}
          {setup.needs.length > 0 && (
            <>
              <dt className="opacity-85">parts</dt>
              <dd>
                <ul aria-label="To order and to find out">
                  {setup.needs.map((need) => (
                    <li
                      key={`${need.axle}-${need.says}`}
                      className="flex items-baseline gap-1"
                      data-need={need.kind}
                    >
                      <Mark standing={need.standing} size={12} />
                      {need.axle && `${need.axle}: `}
                      {need.says}
                    </li>
                  ))}
                </ul>
              </dd>
            </>
          )}
          <Minds ledger={setup.ledger} />
        </dl>
        {!isOwnDesign && (
          <p className="text-small">
            Judged with {setup.wheels.front.line} {setup.wheels.front.detail}; on the bench this design is
            judged by itself.
          </p>
        )}
        {setup.why_above_next.length > 0 && (
          <p className="text-small" data-why>
            Above {place + 1}: <Phrase fragments={setup.why_above_next} />
          </p>
        )}
        <Reasons setup={setup} criteria={criteria} />
      </div>
    </li>
  );
}

/** What the list says; the supplier's own word stands beside the lead time. */
const stock = (part: Found["wheels"]["front"]) =>
  part.row == null ? "the owner's" : part.stock == null ? "not listed" : `${part.stock} listed`;
