import type { LedgerLine, Schemas } from "../api/client";
import { Phrase } from "../shared/Figures";

type Cause = Schemas["CauseView"];

type Props = {
  headline: Schemas["HeadlineView"];
  ledger: LedgerLine[];
  /** Opens a line of the ledger. */
  onOpen: (code: string, axle: string | null) => void;
};

const BAR: Partial<Record<Cause["kind"], string>> = {
  stop: "border-error",
  measure: "border-info",
  unknown: "border-info",
  condition: "border-accent",
};

/** What stands against the plan, the worst first, each with what comes of it; then what it goes only with. */
export function Causes({ headline, ledger, onOpen }: Props) {
  const against = headline.causes.filter((cause) => cause.kind !== "condition");
  const conditions = headline.causes.filter((cause) => cause.kind === "condition");
  const titles = new Map(ledger.map((line) => [line.code, line.title]));
  // The headline says the first already.
  const said = headline.word === "stop" ? against[0] : undefined;
  return (
    <div className="px-3 pb-1" data-causes>
      <ul>
        {against.map((cause) => (
          <CauseRow
            key={`${cause.code}-${cause.topic}-${cause.axle}`}
            cause={cause}
            titles={titles}
            isSaid={cause === said}
            onOpen={onOpen}
          />
        ))}
      </ul>
      {conditions.length > 0 && (
        <>
          <h2 className="label-small mt-1 font-semibold">Goes only with</h2>
          <ul>
            {conditions.map((cause) => (
              <CauseRow
                key={`${cause.code}-${cause.topic}-${cause.axle}`}
                cause={cause}
                titles={titles}
                isSaid={false}
                onOpen={onOpen}
              />
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

type RowProps = {
  cause: Cause;
  titles: Map<string, string>;
  /** Whether the headline says it already: then only what comes of it. */
  isSaid: boolean;
  onOpen: Props["onOpen"];
};

function CauseRow({ cause, titles, isSaid, onOpen }: RowProps) {
  const consequences = cause.consequences.map((code) => titles.get(code) ?? code);
  if (isSaid && consequences.length === 0) return null;
  return (
    <li
      className={`mt-1 border-l-3 pl-2 text-body leading-5 ${BAR[cause.kind] ?? "border-base-300"}`}
      data-cause={cause.topic}
    >
      {!isSaid && (
        <button
          type="button"
          className="plain-button px-0 py-0 text-left"
          onClick={() => onOpen(cause.code, cause.axle ?? null)}
        >
          <Phrase fragments={cause.says} />
        </button>
      )}
      {consequences.length > 0 && (
        <p className="text-small leading-[18px] opacity-80">
          with it: {consequences.join(", ").toLowerCase()}
        </p>
      )}
    </li>
  );
}
