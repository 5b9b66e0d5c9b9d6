import type { LedgerLine, Schemas } from "../api/client";
import { Phrase } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";
import { Supply } from "./Supply";

type Props = {
  place: number;
  setup: Schemas["FoundView"];
  criteria: Schemas["CriterionView"][];
  supply: Schemas["SetSupply"] | undefined;
  /** How the supplier stands. */
  supplier: string | undefined;
  onPlan: () => void;
};

const NEEDS = { order: "mind", find_out: "unknown", stop: "stop" } as const;

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

const money = (amount: number) => amount.toFixed(2);

/** One setup: what it is, what it costs, what must be minded, and why it stands where it does. */
export function FoundSetup({ place, setup, criteria, supply, supplier, onPlan }: Props) {
  const isSquare = setup.lines.front === setup.lines.rear;
  const minds = mindedOf(setup.ledger);
  return (
    <li className="rule py-2" data-setup={place}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <span className="text-[22px] font-semibold">{place}</span>
        <span className="text-[17px] font-semibold">
          {setup.wheels.front.line} with {setup.tires.front.line}
        </span>
        <span className="text-[14px]">
          {isSquare ? "square" : "staggered"} · {setup.tires.front.detail}
        </span>
        <span className="ml-auto text-[19px] font-semibold" data-price>
          {(supply?.price_is_whole ?? setup.price_is_whole) ? "" : "at least "}
          {money(supply?.price ?? setup.price)}
        </span>
        <button type="button" className="plain-button text-accent font-medium" onClick={onPlan}>
          To the bench
        </button>
      </div>
      <table className="w-full text-[15px]">
        <tbody>
          {(isSquare ? (["front"] as const) : (["front", "rear"] as const)).map((axle) => (
            <tr key={axle}>
              <td className="w-[52px] text-[14px] opacity-85">{isSquare ? "all four" : axle}</td>
              <td>
                {setup.wheels[axle].name} <span className="text-[13px]">{setup.wheels[axle].detail}</span>
              </td>
              <td>{setup.tires[axle].name}</td>
              <td className="text-right text-[14px]">
                {stock(setup.wheels[axle])} / {stock(setup.tires[axle])}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="flex flex-wrap gap-x-4 text-[14px]">
        <Supply supply={supply} state={supplier} />
        {setup.work.map((one) => (
          <span key={`${one.axle}-${one.lever}`} className="flex items-center gap-1" title={one.costs}>
            <Mark standing="mind" size={13} />
            {one.axle} {one.title.toLowerCase()} {one.amount}
            {one.in_degrees ? "°" : " mm"}: <strong>{one.caution}</strong>
          </span>
        ))}
        {minds.map(({ line, where }) => (
          <span key={`${line.code}-${where}-${line.word}`} className="flex items-center gap-1">
            <Mark standing={line.standing} size={13} />
            {where} {line.title.toLowerCase()}: <StandingWord standing={line.standing} word={line.word} />
          </span>
        ))}
      </p>
      <ul className="text-[14px]" aria-label="To order and to find out">
        {setup.needs.map((need) => (
          <li key={`${need.axle}-${need.says}`} className="flex items-center gap-1" data-need={need.kind}>
            <Mark standing={NEEDS[need.kind as keyof typeof NEEDS]} size={12} />
            {need.axle && `${need.axle}: `}
            {need.says}
          </li>
        ))}
      </ul>
      {setup.why_above_next.length > 0 && (
        <p className="text-[14px]" data-why>
          Above {place + 1}: <Phrase fragments={setup.why_above_next} />
        </p>
      )}
      <details className="text-[14px]">
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
                <span className="text-[12px] opacity-80">({one.source.cite})</span>
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
    </li>
  );
}

/** What the list says; the supplier's own word stands beside the lead time. */
const stock = (part: Schemas["FoundView"]["wheels"]["front"]) =>
  part.row == null ? "the owner's" : part.stock == null ? "not listed" : `${part.stock} listed`;
