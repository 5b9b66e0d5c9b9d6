import type { Axle, Schemas } from "../api/client";
import { Caution } from "../shared/Caution";
import { Mark } from "../shared/Mark";
import { formatLength, inWords, useUnits } from "../shared/units";
import { Figure } from "./Figure";
import type { PartProps } from "./RoadTrack";

/** Whether the wing covers the planned wheel, from 30° ahead to 50° behind. */
export function Coverage({ sheet, answer, onChange }: PartProps) {
  const put = (axle: Axle, change: Schemas["WingSheet"]) =>
    onChange({
      wing: { front: {}, rear: {}, ...sheet.wing, [axle]: { ...sheet.wing?.[axle], ...change } },
    });
  if (!answer) return null;
  return (
    <section aria-label="Coverage by the wing">
      <h2 className="label-small font-semibold">Coverage by the wing</h2>
      <p className="text-small">
        Level from the lip to the fitted wheel's sidewall or flange, whichever stands further out; minus when
        the wheel stands outside. The top of the arch comes from the bay.
      </p>
      <div className="flex flex-wrap gap-x-10 gap-y-2">
        {(["front", "rear"] as const).map((axle) => (
          <div key={axle} data-coverage={axle}>
            <h3 className="text-body font-semibold capitalize">{axle}</h3>
            <div className="flex gap-3">
              <Figure
                label={`${axle}: lip 30° ahead`}
                unit="mm"
                value={sheet.wing?.[axle]?.ahead_mm}
                placeholder="not read"
                onPut={(ahead_mm) => put(axle, { ahead_mm })}
              />
              <Figure
                label={`${axle}: lip 50° behind`}
                unit="mm"
                value={sheet.wing?.[axle]?.behind_mm}
                placeholder="not read"
                onPut={(behind_mm) => put(axle, { behind_mm })}
              />
            </div>
            <table className="mt-1 text-body">
              <tbody>
                {answer.coverage[axle].map((one) => (
                  <Place key={one.place} one={one} />
                ))}
              </tbody>
            </table>
          </div>
        ))}
      </div>
      <Caution className="mt-1 max-w-[800px]">{answer.coverage_caution}</Caution>
    </section>
  );
}

function Place({ one }: { one: Schemas["CoveredView"] }) {
  const { units } = useUnits();
  return (
    <tr className="rule">
      <th scope="row" className="pr-4 text-left font-normal">
        {one.place}
      </th>
      <td className="pr-4">
        {one.by_mm == null
          ? "not read"
          : `${inWords(formatLength(one.by_mm, units, true))} ± ${inWords(formatLength(one.plus_minus_mm, units))}`}
      </td>
      <td>
        <span className="flex items-center gap-1">
          <Mark standing={one.standing} size={12} />
          {one.word}
        </span>
      </td>
    </tr>
  );
}
