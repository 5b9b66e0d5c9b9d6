import { Link, useSearchParams } from "react-router";
import type { Axle } from "../api/client";
import { useBench } from "../bench/useBench";
import { usePlan } from "../bench/usePlan";
import { asLine } from "../job/content";
import { useSheet } from "../job/JobSheet";
import { Fault } from "../shared/Caution";
import { useHouse, useRegistry } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import { BayDrawing } from "./BayDrawing";
import { rows } from "./order";

const NONE = new Set<string>();

/** The bay on paper: boxes to fill in, in the order of the screen. One sheet an axle. */
export function BaySheet() {
  const { open } = useSheet();
  const { content, id, job } = open;
  const registry = useRegistry();
  const house = useHouse();
  const [asked] = useSearchParams();
  const { fitted, planned } = content;
  const plan = usePlan(open);
  const { bench, trouble } = useBench(plan, () => {});
  const { units } = useUnits();
  const only = asked.get("axle");
  const rowsOf = (axle: Axle) => (registry ? rows(registry, bench, axle) : []);
  const axles = (["front", "rear"] as const).filter((axle) => !only || only === axle);
  const of = (axle: Axle, side: string, code: string) =>
    job.readings
      .filter(
        (one) =>
          one.axle === axle && one.what === code && (one.side === side || (!one.side && side === "left")),
      )
      .map(
        (one) => `${one.value} ${registry?.units.find((unit) => unit.code === one.unit)?.name ?? one.unit}`,
      )
      .join(", ");
  return (
    <main>
      <div className="no-print flex items-center gap-3 p-3">
        <Link className="plain-button" to={`/jobs/${id}/bay`}>
          ‹ Back to the bay
        </Link>
        <Link className="plain-button" to={`/jobs/${id}/bench`}>
          To the bench
        </Link>
        <button
          type="button"
          className="btn btn-primary btn-sm"
          onClick={() => window.print()}
          disabled={!bench}
        >
          Print {axles.length === 2 ? "two A4 sheets, one an axle" : `the ${axles[0]} axle's A4 sheet`}
        </button>
        {trouble && <Fault>{trouble}</Fault>}
      </div>
      {axles.map((axle) => (
        <article
          key={axle}
          className="paper print-sheet mx-auto mb-4 flex flex-col border border-black"
          data-sheet={axle}
        >
          <h1 className="border-b border-black px-3 py-1 text-lead font-semibold">
            Bay sheet, {axle} axle: {content.car_label}
          </h1>
          <p className="border-b border-black px-3 py-1 text-fine">
            <strong>Fitted</strong> {fitted[axle] || "not stated"} &nbsp; <strong>Plan</strong>{" "}
            {planned[axle] || asLine(planned) || "none yet"}
          </p>
          <div className="h-[312px] border-b border-black">
            <BayDrawing
              bench={bench}
              axle={axle}
              lit=""
              done={NONE}
              codes={rowsOf(axle).map((row) => row.part.code)}
              steers={rowsOf(axle).some((row) => row.part.at_lock)}
              isNumbered
              onLight={() => {}}
            />
          </div>
          <table className="w-full text-fine leading-[14px]">
            <thead>
              <tr className="border-b border-black text-left text-fine">
                <td className="w-[20px] px-1" />
                <th>What, and where the gauge goes</th>
                <th className="w-[62px]">must be</th>
                <th className="w-[86px]">left</th>
                <th className="w-[86px]">right</th>
                <th className="w-[54px]">unit</th>
                <th className="w-[62px]">with</th>
              </tr>
            </thead>
            <tbody>
              {rowsOf(axle).map(({ part, asked }, at) => (
                <tr
                  key={part.code}
                  className="h-[36px] border-b border-black/40 align-top"
                  data-row={part.code}
                >
                  <td className="px-1 pt-[2px] text-right">{at + 1}</td>
                  <td className="pt-[2px] pr-2">
                    <strong>{part.title}</strong>
                    {part.at_lock && " (at each lock)"} <span className="text-fine">{part.how}</span>
                  </td>
                  <td className="pt-[2px]">
                    {asked?.must_find_mm != null && `≥ ${inWords(formatLength(asked.must_find_mm, units))}`}
                  </td>
                  {(["left", "right"] as const).map((side) => (
                    <td key={side} className="p-[2px]">
                      <span className="block h-[30px] border border-black px-1">
                        {of(axle, side, part.code)}
                      </span>
                    </td>
                  ))}
                  <td className="p-[2px]">
                    <span className="block h-[30px] border border-black/60" />
                  </td>
                  <td className="p-[2px]">
                    <span className="block h-[30px] border border-black/60" />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="mt-auto border-t border-black px-3 py-1 text-fine leading-[14px]">
            ☐ on the ground ☐ hanging &nbsp; ☐ against the fitted wheel ☐ from the bare hub &nbsp;
            Instruments: {house?.instruments.map((one) => `${one.name} ± ${one.plus_minus_mm}`).join(" · ")}{" "}
            mm. Minus where parts overlap or the tire stands outside the lip.{" "}
            <strong>{registry?.cautions.on_the_bay_sheet}</strong>
          </div>
          <footer className="grid grid-cols-[1.6fr_1fr_1fr_1fr] divide-x divide-black border-t-2 border-black text-fine [&>div]:px-2 [&>div]:py-1">
            <div>
              <strong>{content.wish || "No wish written down"}</strong>
            </div>
            <div>
              Job {job.number} · revision {job.revision}
            </div>
            <div>Measured by</div>
            <div>Date</div>
          </footer>
        </article>
      ))}
    </main>
  );
}
