import { useState } from "react";
import type { Drawing, LedgerLine, Schemas } from "../api/client";
import { Phrase } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";
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

/** What is not in order; the same word on both axles is said once. */
function mindedOf(ledger: LedgerLine[]) {
  const minds: { line: LedgerLine; where: string }[] = [];
  for (const line of ledger.filter((one) => one.standing !== "good")) {
    const twin = minds.find(({ line: other }) => other.code === line.code && other.word === line.word);
    if (twin) twin.where = "front and rear";
    else minds.push({ line, where: line.axle ?? "" });
  }
  return minds;
}

/** Cautions by what is to be done about them. */
const GROUPS = [
  { title: "stops it", of: ["stop"] },
  { title: "measure first", of: ["measure"] },
  { title: "to mind", of: ["mind"] },
  { title: "not known", of: ["unknown"] },
];

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
  const minds = mindedOf(setup.ledger);
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
          {GROUPS.map(({ title, of }) => {
            const group = minds.filter(({ line }) => of.includes(line.standing));
            return (
              group.length > 0 && (
                <div key={title} className="contents">
                  <dt className="opacity-85">{title}</dt>
                  <dd className="flex flex-wrap gap-x-3">
                    {group.map(({ line, where }) => (
                      <span key={`${line.code}-${where}-${line.word}`} className="flex items-center gap-1">
                        <Mark standing={line.standing} size={12} />
                        {where} {line.title.toLowerCase()}
                        {line.word !== title && (
                          <>
                            {": "}
                            <StandingWord standing={line.standing} word={line.word} />
                          </>
                        )}
                      </span>
                    ))}
                  </dd>
                </div>
              )
            );
          })}
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
      </div>
    </li>
  );
}

/** What the list says; the supplier's own word stands beside the lead time. */
const stock = (part: Found["wheels"]["front"]) =>
  part.row == null ? "the owner's" : part.stock == null ? "not listed" : `${part.stock} listed`;
