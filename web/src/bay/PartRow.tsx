import type { Registry, Schemas } from "../api/client";
import { Caution } from "../shared/Caution";
import { Phrase } from "../shared/Figures";
import { formatLength, inWords, useUnits } from "../shared/units";
import type { Row } from "./order";

/** A reading as it is listed, from the job or still kept here. */
export type Shown = {
  id: string;
  axle: string;
  side: string | null;
  what: string;
  value: number;
  unit: string;
  instrument: string;
  plusMinus: number | null;
  how: string;
  isCopied: boolean;
  isSent: boolean;
  /** Why the program does not take it. */
  refused?: string;
  troubles: Schemas["TroubleView"][];
};

type Props = {
  row: Row;
  isLit: boolean;
  shown: Shown[];
  side: "left" | "right";
  registry: Registry;
  onChoose: () => void;
  onRemove: (id: string) => void;
};

/** One part: whether it was read, what was read, what is wrong with it, and what the plan must find there. */
export function PartRow({ row, isLit, shown, side, registry, onChoose, onRemove }: Props) {
  const { units } = useUnits();
  // One that the program refused is not read.
  const isDone = shown.some((one) => !one.refused && (one.side === side || one.side == null));
  const { asked, part } = row;
  return (
    <li className={`rule ${isLit ? "bg-accent/15" : ""}`} data-part={part.code}>
      <button
        type="button"
        className="hover:bg-base-300/40 flex min-h-[48px] w-full cursor-pointer items-center gap-2 px-3 py-1 text-left"
        aria-current={isLit ? "step" : undefined}
        onClick={onChoose}
      >
        <svg
          width="18"
          height="18"
          viewBox="0 0 18 18"
          aria-hidden="true"
          className={isDone ? "text-success" : ""}
        >
          {isDone ? (
            <path d="M3 10l4 4L15 4" fill="none" stroke="currentColor" strokeWidth="2.2" />
          ) : (
            <circle cx="9" cy="9" r="6" fill="none" stroke="currentColor" strokeDasharray="2.4 2" />
          )}
        </svg>
        <span className="min-w-0 flex-1">
          <span className="block text-lead leading-5 font-medium">{part.title}</span>
          {asked?.must_find_mm != null && !isDone && (
            <span className="block text-note leading-4 opacity-85">
              must be {inWords(formatLength(asked.must_find_mm, units))} or more
            </span>
          )}
        </span>
        {asked && !isDone && (
          <span className="text-info text-note font-medium">{asked.decides ? "decides" : "may matter"}</span>
        )}
      </button>
      {isLit && asked && shown.length === 0 && (
        <p className="px-10 pb-1 text-small leading-[18px]">
          <Phrase fragments={asked.why} />
        </p>
      )}
      {shown.map((one) => (
        <div key={one.id} className="pb-1 pl-10 text-body" data-reading={one.what}>
          <div className="flex items-center gap-2">
            <span className="w-[44px] text-small opacity-85">{one.side ?? "side?"}</span>
            <span className="font-semibold">
              {one.value} {registry.units.find((unit) => unit.code === one.unit)?.name}
            </span>
            <span className="min-w-0 flex-1 truncate text-note opacity-85">
              {one.plusMinus != null && `± ${one.plusMinus} mm`}
              {one.isCopied && " · copied"}
              {one.how && ` · ${one.how}`}
              {!one.isSent && !one.refused && " · not sent yet"}
            </span>
            <button
              type="button"
              className="plain-button min-h-[44px] px-3"
              aria-label={`Take away ${one.value} ${one.unit}, ${part.title}`}
              onClick={() => onRemove(one.id)}
            >
              ✕
            </button>
          </div>
          {one.refused && (
            <Caution grave role="alert" className="text-error mr-3 leading-[18px]" data-refused={one.id}>
              Not taken: {one.refused}. It stays here until you take it away.
            </Caution>
          )}
          {one.troubles.map((trouble) => (
            <p
              key={`${trouble.kind}-${trouble.other}`}
              className="alert caution alert-error fault mr-3"
              data-trouble={trouble.kind}
            >
              <Phrase fragments={trouble.says} />
            </p>
          ))}
        </div>
      ))}
    </li>
  );
}
