import { Fragment } from "react";
import type { Axle } from "../api/client";
import type { OpenJob } from "../job/useJob";
import { Caution } from "../shared/Caution";
import { Phrase } from "../shared/Figures";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import { type Lift, type Usage, useLift } from "./useMotion";

type Props = { open: OpenJob; axle: Axle; usage: Usage };

/** Tires from low to tall against heights of lift: what clears, what must give way, and what no lift helps. */
export function LiftLadder({ open, axle, usage }: Props) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  const { data: lift, isLoading } = useLift(open, axle, usage);
  const other: Axle = axle === "front" ? "rear" : "front";
  const { data: there } = useLift(open, other, usage);
  const length = (mm: number, signed = false) => inWords(formatLength(mm, units, signed));
  if (isLoading)
    return (
      <p className="p-3" data-loading>
        Lifting the car step by step…
      </p>
    );
  if (!lift || lift.tires.length === 0) return <p className="p-3">No tire of this kind goes on this rim.</p>;
  return (
    <div className="px-3 pb-2 text-small" data-lift-ladder>
      {lift.says.map((said, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: sentences come in their order
        <p key={at}>
          <Phrase fragments={said} />
        </p>
      ))}
      {there && there.tires.length > 0 && (
        <p data-other-axle>
          At the {other}:{" "}
          {there.says.map((said, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: sentences come in their order
            <span key={at}>
              <Phrase fragments={said} />{" "}
            </span>
          ))}
        </p>
      )}
      <table className="relative mt-2 w-full border-collapse">
        <caption className="sr-only">Tires against heights of lift</caption>
        <thead>
          <tr className="text-left align-bottom">
            <th className="font-semibold">tire</th>
            <th className="font-semibold">against the {lift.reference}</th>
            {lift.lifts_mm.map((mm) => (
              <th key={mm} className="pl-2 font-semibold whitespace-nowrap">
                {mm === 0 ? "as it is" : `lift ${length(mm)}`}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {classes(lift.tires).map(({ usual, tires }) => (
            <Fragment key={usual}>
              <tr>
                <th
                  scope="rowgroup"
                  colSpan={lift.lifts_mm.length + 2}
                  className="label-small pt-1 text-left font-semibold"
                >
                  usually: {usual}
                </th>
              </tr>
              {tires.map((tire) => (
                <tr key={tire.line} className="rule align-top" data-tire={tire.tire}>
                  <th
                    scope="row"
                    className={`pr-2 text-left ${tire.is_planned ? "font-semibold" : "font-normal"}`}
                  >
                    {tire.tire}
                    {tire.is_planned && <span className="block text-note leading-4">planned</span>}
                  </th>
                  <td className="whitespace-nowrap">
                    {length(tire.overall_diameter_mm)} ({length(tire.growth_mm, true)})
                  </td>
                  {tire.at.map((one, at) => {
                    const { standing, word } = verdict(one.verdict);
                    const [worst] = one.short;
                    const before = at > 0 ? tire.at[at - 1]?.short[0]?.name : null;
                    return (
                      <td key={lift.lifts_mm[at]} className="relative pl-2" data-lift={lift.lifts_mm[at]}>
                        <span className="flex items-center gap-1 whitespace-nowrap">
                          <Mark standing={standing} size={13} />
                          <span className={worst ? "sr-only" : ""}>{word} </span>
                          {worst && `−${length(worst.short_mm)}`}
                        </span>
                        {worst && worst.name !== before && (
                          <span className="block text-note leading-4">{worst.name}</span>
                        )}
                        {!worst && at === 0 && one.measure.length > 0 && (
                          <span className="block text-note leading-4">{one.measure.join(", ")}</span>
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
      <Caution className="mt-2">
        − is what a part is short of. Usual measures: {lift.usual_source}. {lift.caution}
      </Caution>
    </div>
  );
}

type Tires = Lift["tires"];

/** The tallest first, by what their growth usually asks for. */
function classes(all: Tires): { usual: string; tires: Tires }[] {
  const found: { usual: string; tires: Tires }[] = [];
  for (const tire of all.toReversed()) {
    const last = found.at(-1);
    if (last?.usual === tire.usual) last.tires.push(tire);
    else found.push({ usual: tire.usual, tires: [tire] });
  }
  return found;
}
