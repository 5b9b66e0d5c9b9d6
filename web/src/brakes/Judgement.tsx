import type { Schemas } from "../api/client";
import { Caution } from "../shared/Caution";
import { FigureText } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";
import { useRegistry, useVerdicts } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";

type Props = {
  bench: Schemas["BrakeBench"];
  onSpacer: (mm: number) => void;
  onPlan: (line: string) => void;
};

/** The verdict, both gaps of each part, what spacers do, and what smaller rims can be. */
export function Judgement({ bench, onSpacer, onPlan }: Props) {
  const registry = useRegistry();
  const verdict = useVerdicts();
  const { units } = useUnits();
  const length = (mm: number | null | undefined) =>
    mm == null ? "–" : inWords(formatLength(mm, units, mm < 0));
  const { smallest } = bench;
  return (
    <>
      <p className="flex items-center gap-2 text-head" data-brake-verdict={bench.verdict}>
        <Mark standing={verdict(bench.verdict).standing} size={20} />
        <StandingWord standing={verdict(bench.verdict).standing} word={verdict(bench.verdict).word} />
        <span className="text-small">
          house: barrel {length(bench.radial_limit_mm)}, spokes {length(bench.axial_limit_mm)}
        </span>
      </p>
      <table className="w-full">
        <tbody>
          {bench.parts.map((part) => (
            <tr key={part.id} className="rule" data-part-row={part.part}>
              <td className="capitalize">{part.title}</td>
              <td>
                barrel <strong>{length(part.radial?.mm)}</strong>
                {part.weights && (
                  <span data-weights>
                    , weights <strong>{length(part.weights.mm)}</strong>
                  </span>
                )}
              </td>
              <td>
                spokes <strong>{length(part.axial?.mm)}</strong>
              </td>
              <td className="text-right text-small">± {length(part.plus_minus_mm)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {bench.parts.length > 0 && bench.wheel && (
        <div className="flex flex-wrap gap-1 py-1" role="toolbar" aria-label="Spacers">
          {bench.spacers.map((step) => (
            <button
              key={step.spacer_mm}
              type="button"
              aria-pressed={step.spacer_mm === bench.spacer_mm}
              className="border-base-300 hover:bg-base-300/60 aria-pressed:border-accent flex cursor-pointer items-center gap-1 border px-1.5 text-small"
              title={`barrel ${length(step.radial_gap_mm)}, spokes ${length(step.axial_gap_mm)}`}
              data-spacer-step={step.spacer_mm}
              onClick={() => onSpacer(step.spacer_mm)}
            >
              <Mark standing={verdict(step.verdict).standing} size={11} />
              {step.spacer_mm}
            </button>
          ))}
          <span className="text-note opacity-85">mm of spacer</span>
        </div>
      )}
      {smallest && smallest.spacer_mm > 0 && (
        <div className="border-accent border-l-3 pl-2" data-smallest={smallest.spacer_mm}>
          <p>
            <strong>The smallest spacer that clears: {smallest.spacer_mm} mm.</strong>{" "}
            <button
              type="button"
              className="plain-button text-accent py-0"
              onClick={() => onPlan(smallest.line)}
            >
              To the bench
            </button>
          </p>
          {smallest.costs.map((cost) => (
            <p key={cost} className="text-small">
              {cost}
            </p>
          ))}
        </div>
      )}
      {bench.parts.length > 0 && bench.wheel && !smallest && (
        <Caution grave data-smallest="none">
          No spacer up to {registry?.figures.thickest_spacer_mm} mm clears it: another wheel, or another rim
          size.
        </Caution>
      )}
      {bench.parts.length === 0 && (bench.radial_bound || bench.axial_bound) && (
        <p className="text-small" data-bounds>
          No profile yet; by the gaps read on the fitted wheel
          {bench.radial_bound &&
            ` the barrel leaves ${length(bench.radial_bound.least_mm)} to ${length(bench.radial_bound.most_mm)}`}
          {bench.radial_bound && bench.axial_bound && ","}
          {bench.axial_bound &&
            ` the spokes ${length(bench.axial_bound.least_mm)} to ${length(bench.axial_bound.most_mm)}`}
          : estimated from the sizes.
        </p>
      )}
      {bench.smaller_rims.length > 0 && (
        <div className="rule mt-1 pt-1 text-small" data-smaller-rims>
          {bench.smaller_rims.map((one) => (
            <p key={one.rim_in} className="flex items-center gap-1">
              <Mark standing={one.is_worth_trying ? "measure" : "stop"} size={12} />
              {one.rim_in} in: <FigureText quantity={one.gap} /> left,{" "}
              {one.is_worth_trying ? "worth trying on" : "do not lift it on"}
            </p>
          ))}
          <p className="text-note opacity-85">
            {bench.smaller_rim_rule}. {bench.smaller_rim_caution}
          </p>
        </div>
      )}
    </>
  );
}
