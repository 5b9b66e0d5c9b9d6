import type { Schemas } from "../api/client";
import { formatLength, formatSpeed, inWords, useUnits } from "../shared/units";
import { Figure } from "./Figure";
import type { PartProps } from "./RoadTrack";

type Props = Pick<PartProps, "sheet" | "onChange"> & { dial: Schemas["DialView"] | null | undefined };

/** What the dial shows, and what is true. */
export function Dial({ sheet, dial, onChange }: Props) {
  const { units } = useUnits();
  const speeds = units.speed === "km/h" ? dial?.metric : dial?.imperial;
  return (
    <section aria-label="Dial">
      <h2 className="label-small font-semibold">What the dial shows, and what is true</h2>
      {!dial || !speeds ? (
        <p className="text-body">State the fitted and the planned tire: the dial is held against them.</p>
      ) : (
        <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
          <table className="text-body" data-dial>
            <thead>
              <tr className="text-left text-note">
                <th scope="col" className="pr-6 font-normal">
                  shown
                </th>
                <th scope="col" className="pr-6 font-normal">
                  true, by the reference tire
                </th>
                <th scope="col" className="pr-6 font-normal">
                  true, by what the computer believes
                </th>
                <th scope="col" className="font-normal">
                  true, as the dial was measured
                </th>
              </tr>
            </thead>
            <tbody>
              {speeds.map((one) => (
                <tr key={one.shown_kmh} className="rule">
                  <td className="pr-6">{inWords(formatSpeed(one.shown_kmh, units))}</td>
                  <td className="pr-6 font-semibold">{inWords(formatSpeed(one.true_kmh, units))}</td>
                  <td>
                    {one.by_computer_kmh == null
                      ? "not read"
                      : inWords(formatSpeed(one.by_computer_kmh, units))}
                  </td>
                  <td>
                    {one.measured_kmh == null
                      ? "not measured"
                      : inWords(formatSpeed(one.measured_kmh, units))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Figure
            label="The computer believes a height of"
            unit="mm"
            value={sheet.believed_diameter_mm}
            placeholder="not read"
            onPut={(believed_diameter_mm) => onChange({ believed_diameter_mm })}
          />
          <p className="max-w-[320px] text-small">
            {dial.by_axle} axle: {inWords(formatLength(dial.reference_mm, units))} to{" "}
            {inWords(formatLength(dial.planned_mm, units))}. A hundred kilometres on the odometer are{" "}
            {dial.per_100_km.toFixed(1)}. UN R39: the dial never shows less than the truth. What it over-reads
            is measured by satellite speed and stands in the car's record.
          </p>
        </div>
      )}
    </section>
  );
}
