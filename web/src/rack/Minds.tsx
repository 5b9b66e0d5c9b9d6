import type { LedgerLine } from "../api/client";
import { Mark, StandingWord } from "../shared/Mark";

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

/** What must be minded of a setup, by what is to be done about it. */
export function Minds({ ledger }: { ledger: LedgerLine[] }) {
  const minds = mindedOf(ledger);
  return (
    <>
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
    </>
  );
}
