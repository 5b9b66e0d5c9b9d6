import type { Schemas } from "../api/client";
import { Caution } from "../shared/Caution";
import { formatPressure, inWords, useUnits } from "../shared/units";

/** Cold pressures of the planned tire for the road: equal load, full load, top speed. */
export function RoadPressures({
  axles,
  caution,
}: {
  axles: Schemas["AxlePressuresView"][];
  caution: string;
}) {
  const { units } = useUnits();
  if (axles.length === 0) return null;
  return (
    <section aria-label="Cold pressures">
      <h2 className="label-small font-semibold">Cold pressures of the planned tire</h2>
      <div className="flex flex-wrap gap-x-8 gap-y-2">
        {axles.map((one) => (
          <table key={one.axle} className="self-start text-body" data-pressures={one.axle}>
            <caption className="text-left text-note">{one.axle}</caption>
            <tbody>
              {one.cases.map(({ case: name, load_kg, kpa }) => (
                <tr key={name} className="rule">
                  <th scope="row" className="pr-4 text-left font-normal">
                    {name}
                  </th>
                  <td className="pr-4">{load_kg.toFixed(0)} kg</td>
                  <td className="font-semibold">
                    {kpa == null ? "not this tire" : inWords(formatPressure(kpa, units))}
                  </td>
                </tr>
              ))}
              {one.cases.length === 0 && (
                <tr>
                  <td>
                    {one.none_says ??
                      "With the placard's pressure, the axle's rating or the top speed in the car's record."}
                  </td>
                </tr>
              )}
            </tbody>
          </table>
        ))}
      </div>
      <Caution className="mt-1 max-w-[800px]">{caution}</Caution>
      <p className="text-note opacity-85">
        P = P ref × (L / L max)^(1 / n), never under the placard; at top speed L max by the speed symbol's
        share (UN R30, memory).
      </p>
    </section>
  );
}
