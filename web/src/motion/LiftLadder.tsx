import type { Axle } from "../api/client";
import type { OpenJob } from "../job/useJob";
import { Phrase } from "../shared/Figures";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import { type Usage, useLift } from "./useMotion";

type Props = { open: OpenJob; axle: Axle; usage: Usage };

/** Tires from low to tall against heights of lift: what clears, what must give way, and what no lift helps. */
export function LiftLadder({ open, axle, usage }: Props) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  const { data: lift, isLoading } = useLift(open, axle, usage);
  const length = (mm: number, signed = false) => inWords(formatLength(mm, units, signed));
  if (isLoading) return <p className="p-3">Lifting the car step by step…</p>;
  if (!lift || lift.tires.length === 0) return <p className="p-3">No tire of this kind goes on this rim.</p>;
  return (
    <div className="px-3 pb-2 text-[14px]" data-lift-ladder>
      {lift.says.map((said, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: sentences come in their order
        <p key={at}>
          <Phrase fragments={said} />
        </p>
      ))}
      <table className="mt-1 w-full border-collapse">
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
            <th className="pl-2 font-semibold">usually asks for</th>
          </tr>
        </thead>
        <tbody>
          {lift.tires.toReversed().map((tire) => (
            <tr key={tire.line} className="rule align-top" data-tire={tire.tire}>
              <th scope="row" className={`text-left font-normal ${tire.is_planned ? "font-semibold" : ""}`}>
                {tire.tire}
                {tire.is_planned && <span className="text-[13px]"> planned</span>}
              </th>
              <td className="whitespace-nowrap">
                {length(tire.overall_diameter_mm)} <span>({length(tire.growth_mm, true)})</span>
              </td>
              {tire.at.map((one, at) => (
                <td key={lift.lifts_mm[at]} className="pl-2" data-lift={lift.lifts_mm[at]}>
                  <span className="flex items-center gap-1 whitespace-nowrap">
                    <Mark standing={verdict(one.verdict).standing} size={12} />
                    {verdict(one.verdict).word}
                  </span>
                  {one.short.slice(0, 2).map((part) => (
                    <span key={part.name} className="block text-[13px] leading-4">
                      {part.name} −{length(part.short_mm)}
                    </span>
                  ))}
                </td>
              ))}
              <td className="pl-2 text-[13px] leading-4">{tire.usual}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="border-warning mt-2 border-l-3 pl-2">
        − is what a part is short of. Usual measures: {lift.usual_source}. {lift.caution}
      </p>
    </div>
  );
}
