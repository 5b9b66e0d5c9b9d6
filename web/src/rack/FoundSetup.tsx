import type { Schemas } from "../api/client";
import { Phrase } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";

type Props = {
  place: number;
  setup: Schemas["FoundView"];
  criteria: Schemas["CriterionView"][];
  onPlan: () => void;
};

const money = (amount: number) => amount.toFixed(2);

/** One setup: what it is, what it costs, what must be minded, and why it stands where it does. */
export function FoundSetup({ place, setup, criteria, onPlan }: Props) {
  const isSquare = setup.lines.front === setup.lines.rear;
  const minds = setup.ledger.filter((line) => line.standing !== "good");
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
          {setup.price_is_whole ? "" : "at least "}
          {money(setup.price)}
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
                {stock(setup.wheels[axle].stock)} / {stock(setup.tires[axle].stock)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="flex flex-wrap gap-x-4 text-[14px]">
        {minds.map((line) => (
          <span key={`${line.code}-${line.axle}`} className="flex items-center gap-1">
            <Mark standing={line.standing} size={13} />
            {line.axle ?? "car"} {line.title.toLowerCase()}:{" "}
            <StandingWord standing={line.standing} word={line.word} />
          </span>
        ))}
      </p>
      {setup.why_above_next.length > 0 && (
        <p className="text-[14px]" data-why>
          Above {place + 1}: <Phrase fragments={setup.why_above_next} />
        </p>
      )}
      <details className="text-[14px]">
        <summary className="cursor-pointer">
          parts, cautions and scores ({(setup.score * 100).toFixed(0)} of 100)
        </summary>
        <ul className="list-disc pl-5">
          {setup.parts.map((part) => (
            <li key={part}>{part}</li>
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

const stock = (count: number | null | undefined) => (count == null ? "stock not known" : `${count} in stock`);
