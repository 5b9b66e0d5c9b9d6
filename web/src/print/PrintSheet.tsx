import { Link } from "react-router";
import type { LedgerLine } from "../api/client";
import { grouped } from "../bench/grouping";
import { useBench } from "../bench/useBench";
import { usePlan } from "../bench/usePlan";
import { CornerSheet } from "../drawing/CornerSheet";
import { asLine } from "../job/content";
import { useSheet } from "../job/JobSheet";
import { DRIVES, stageName } from "../job/stages";
import { Fault } from "../shared/Caution";
import { Phrase } from "../shared/Figures";
import { Mark } from "../shared/Mark";
import { useRegistry } from "../shared/registry";
import { format, inWords, useUnits } from "../shared/units";

const isKnown = (line: LedgerLine) => line.standing !== "unknown";

/** The bench on one A4 sheet, cautions included. */
export function PrintSheet() {
  const { open } = useSheet();
  const { content, job } = open;
  const { fitted, planned, drive } = content;
  const { bench, trouble } = useBench(usePlan(open), () => {});
  const { units } = useUnits();
  const registry = useRegistry();
  const groups = grouped(bench?.ledger ?? []);
  const cautions = [
    ...new Set((bench?.ledger ?? []).flatMap((line) => (line.caution ? [line.caution] : []))),
  ];
  return (
    <main>
      <div className="no-print flex items-center gap-3 p-3">
        <Link className="plain-button" to={`/jobs/${open.id}/bench`}>
          ‹ Back to the bench
        </Link>
        <button
          type="button"
          className="btn btn-primary btn-sm"
          onClick={() => window.print()}
          disabled={!bench}
        >
          Print on one A4 sheet
        </button>
        {trouble && <Fault>{trouble}</Fault>}
      </div>
      <article className="paper print-sheet mx-auto flex flex-col border border-black">
        <h1 className="sr-only">Bench sheet: {content.car_label}</h1>
        <div className="flex gap-4 border-b border-black px-3 py-1 text-note">
          <p className="flex-1">
            <strong>Plan</strong> {asLine(planned) || "none yet"}
            <br />
            <strong>Fitted</strong> {asLine(fitted) || "not stated"}
          </p>
        </div>
        <div className="min-h-[206px] flex-1 border-b border-black">
          <CornerSheet bench={bench} />
        </div>
        <div className="grid grid-cols-2 content-start gap-x-4 px-3 py-1">
          {groups.map((group) => (
            <section
              key={group.title}
              className={group.title === "The car" && groups.length > 2 ? "col-span-2" : ""}
            >
              <h2 className="text-fine font-semibold uppercase">{group.title}</h2>
              <table className="w-full text-fine leading-[14px]">
                <tbody>
                  {group.lines.filter(isKnown).map((line) => (
                    <tr key={line.code} className="border-t border-black/30 align-top [&_svg]:text-black">
                      <td className="w-[14px] pt-[2px]">
                        <Mark standing={line.standing} size={10} />
                      </td>
                      <td>
                        {/* Beside the title, so that what is said has the rest of the lines for itself. */}
                        <span className="float-right pl-2 whitespace-nowrap">
                          <strong>{line.figure ? inWords(format(line.figure, units)) : "–"}</strong>{" "}
                          {line.word}
                        </span>
                        <strong>{line.title}</strong>{" "}
                        {/* What is in order is told by its figure and word; the sheet has one page. */}
                        {line.standing !== "good" && (
                          <span>
                            <Phrase fragments={line.says} />
                          </span>
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {/* What nobody stated is named in one line: the sheet has one page. */}
              {!group.lines.every(isKnown) && (
                <p className="border-t border-black/30 text-fine leading-[14px]">
                  <strong>Not stated, to be found out:</strong>{" "}
                  {group.lines
                    .filter((line) => !isKnown(line))
                    .map((line) => line.title.toLowerCase())
                    .join(", ")}
                  .
                </p>
              )}
            </section>
          ))}
        </div>
        <div className="border-t border-black px-3 py-1 text-fine leading-[13px]">
          <strong>Cautions.</strong> {cautions.join(" ")} {registry?.cautions.on_the_plan}
        </div>
        <footer className="grid grid-cols-[1.4fr_1.7fr_0.6fr_0.7fr_0.8fr_1.1fr] divide-x divide-black border-t-2 border-black text-fine [&>div]:px-2 [&>div]:py-1">
          <Box title="Car" text={content.car_label} />
          <Box title="Owner's wish" text={content.wish || "–"} />
          <Box title="Drive" text={DRIVES.find((one) => one.code === (drive ?? ""))?.name ?? ""} />
          <Box title="Stage" text={stageName(content.stage)} />
          <Box title="Job · revision" text={`${job.number} · ${job.revision}`} />
          <Box title="Measured and checked by" text=" " />
        </footer>
      </article>
    </main>
  );
}

function Box({ title, text }: { title: string; text: string }) {
  return (
    <div className="min-w-0">
      <span className="block text-fine tracking-wider uppercase">{title}</span>
      <span className="line-clamp-2 font-semibold">{text}</span>
    </div>
  );
}
