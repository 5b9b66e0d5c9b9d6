import { Link } from "react-router";
import { asLine } from "../job/content";
import { useSheet } from "../job/JobSheet";
import { Phrase } from "../shared/Figures";
import { useRegistry } from "../shared/registry";
import { Amount } from "./TrialLog";
import { useTrials } from "./useTrials";

const KINDS = { out: "Out", open: "Open", to_find: "To find" } as const;

/** A trial day on one A4 sheet: what was tried, what it met, what it came to. */
export function TrialSheet() {
  const { open } = useSheet();
  const { content, id, job } = open;
  const registry = useRegistry();
  const { data: trials } = useTrials(open);
  const met = (code: string) => registry?.contacts.find((one) => one.code === code)?.name ?? code;
  return (
    <main>
      <div className="no-print flex items-center gap-3 p-3">
        <Link className="plain-button" to={`/jobs/${id}/trial`}>
          ‹ Back to the trial fit
        </Link>
        <button
          type="button"
          className="btn btn-primary btn-sm"
          onClick={() => window.print()}
          disabled={!trials}
        >
          Print
        </button>
      </div>
      <article className="paper print-sheet mx-auto flex flex-col border border-black" data-sheet="trial">
        <h1 className="border-b border-black px-3 py-1 text-lead font-semibold">
          Trial fit: {content.car_label}
        </h1>
        <p className="border-b border-black px-3 py-1 text-fine">
          <strong>Fitted</strong> {asLine(content.fitted) || "not stated"} &nbsp; <strong>Plan</strong>{" "}
          {asLine(content.planned) || "none yet"} &nbsp; <strong>Job</strong> {job.number} · {job.revision}
        </p>
        <table className="mx-3 my-1 text-fine">
          <thead>
            <tr className="text-left">
              <th>Tried</th>
              <th>Where</th>
              <th>Met</th>
              <th>Seen, and next</th>
              <th>By</th>
            </tr>
          </thead>
          <tbody>
            {content.trials.map((one) => (
              <tr key={one.id} className="border-t border-black/40 align-top">
                <td className="pr-2 font-semibold">{one.setup}</td>
                <td className="pr-2">
                  {one.axle} {one.side}
                  {one.steer !== "straight" && `, at ${one.steer === "lock_left" ? "left" : "right"} lock`}
                  {one.is_hanging ? ", hanging" : ", on the ground"}
                </td>
                <td className="pr-2">
                  {met(one.contact)}
                  <Amount trial={one} />
                </td>
                <td className="pr-2">
                  {one.note} {one.next_step && `Next: ${one.next_step}`}
                </td>
                <td>{one.who}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="grid flex-1 grid-cols-2 content-start gap-4 border-t border-black px-3 py-1 text-fine">
          {(["front", "rear"] as const).map((axle) => (
            <section key={axle}>
              <h2 className="text-fine font-semibold uppercase">{axle}</h2>
              {trials?.axles[axle].lines.map((line, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: sentences come in their order
                <p key={at}>
                  <strong>{KINDS[line.kind as keyof typeof KINDS]}.</strong> <Phrase fragments={line.says} />
                </p>
              ))}
            </section>
          ))}
        </div>
        <p className="border-t border-black px-3 py-1 text-fine leading-[13px]">
          <strong>Cautions.</strong> {trials?.caution}
        </p>
      </article>
    </main>
  );
}
