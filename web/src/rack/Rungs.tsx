import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, percent, useUnits } from "../shared/units";

type Rung = Schemas["RungView"];
type Props = {
  /** Plus sizes in their order. */
  rims: number[];
  sizes: Rung[];
  shown: Rung | undefined;
  /** A height was asked for, not a tire: rims are then named by their code. */
  isHeight: boolean;
  onMark: (size: string) => void;
};

/** The sizes of a ladder as a table. */
export function Rungs({ rims, sizes, shown, isHeight, onMark }: Props) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  return (
    <table className="w-full text-body">
      <thead>
        <tr className="text-left text-note">
          <th className="font-normal">Rim</th>
          <th className="font-normal">Size</th>
          <th className="text-right font-normal">Overall diameter</th>
          <th className="text-right font-normal">Change</th>
          <th className="text-right font-normal">Sidewall</th>
          <th className="text-right font-normal">Once round</th>
          <th className="text-right font-normal">Turns a mile</th>
          <th className="text-right font-normal">Rims, in</th>
          <th className="text-right font-normal">Under the arch</th>
          <th className="text-right font-normal">Tires · wheels</th>
        </tr>
      </thead>
      <tbody>
        {rims.flatMap((plus) =>
          sizes
            .filter((rung) => rung.plus_in === plus)
            .map((rung, at) => (
              <tr
                key={rung.size}
                className={`rule ${rung === shown ? "bg-accent/15" : ""}`}
                data-rung={rung.size}
              >
                <td className="font-semibold whitespace-nowrap">
                  {at === 0 ? (isHeight ? `${rung.rim_diameter_in} in` : plusWords(plus)) : ""}
                </td>
                <td>
                  <button
                    type="button"
                    className="hover:bg-base-300/60 cursor-pointer px-1 font-medium"
                    onClick={() => onMark(rung.size)}
                  >
                    {rung.size}
                  </button>
                </td>
                <td className="text-right">{inWords(formatLength(rung.overall_diameter_mm, units))}</td>
                <td className="text-right">
                  {percent(rung.change_pct)} <span className="text-note opacity-85">{rung.band_word}</span>
                </td>
                <td className="text-right">{inWords(formatLength(rung.sidewall_mm, units))}</td>
                <td className="text-right">{inWords(formatLength(rung.circumference_mm, units))}</td>
                <td className="text-right">{rung.revolutions_per_mile.toFixed(0)}</td>
                <td className="text-right">
                  {rung.permitted_rim_min_in}–{rung.permitted_rim_max_in}
                </td>
                <td className="text-right">
                  {rung.arch_gap_mm == null || !rung.arch_verdict ? (
                    "not read"
                  ) : (
                    <span className="inline-flex items-center gap-1">
                      <Mark standing={verdict(rung.arch_verdict).standing} size={12} />
                      {inWords(formatLength(rung.arch_gap_mm, units))}
                    </span>
                  )}
                </td>
                <td
                  className="text-right"
                  title="tires of this size that carry the load, and wheels they may be put on"
                >
                  {rung.tires_that_carry ?? rung.tires_in_catalogue}
                  {rung.tires_that_carry != null && rung.tires_that_carry < rung.tires_in_catalogue
                    ? ` of ${rung.tires_in_catalogue}`
                    : ""}{" "}
                  · {rung.wheels_in_catalogue}
                </td>
              </tr>
            )),
        )}
      </tbody>
    </table>
  );
}

const plusWords = (plus: number) => (plus === 0 ? "same" : plus > 0 ? `plus ${plus}` : `minus ${-plus}`);
