import type { LedgerLine, Schemas } from "../api/client";
import { format, inWords, useUnits } from "../shared/units";

const FIRMNESS: Record<Schemas["SourceCode"], string> = {
  standard: "standard",
  common_practice: "common practice",
  from_memory: "from memory",
  measured: "measured",
  estimate: "estimate",
  geometry: "geometry",
};

/** The working of a figure: formula, figures put in, result, source. */
export function Working({ line }: { line: LedgerLine }) {
  const rule = `${line.source.cite} (${FIRMNESS[line.source.kind]})`;
  return (
    <div className="bg-base-200 mt-2 px-2 py-1.5 text-small leading-5" data-working>
      <h3 className="label-small">Working</h3>
      {line.working.length === 0 && <p>No figure: nothing was computed.</p>}
      <Steps steps={line.working} />
      <p className="rule pt-1">Judged by {rule}</p>
    </div>
  );
}

/** Steps on paper: what, formula, figures put in, result with its source. */
export function Steps({ steps }: { steps: Schemas["StepView"][] }) {
  const { units } = useUnits();
  return (
    <ol>
      {steps.map((step, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the steps of a working stand in a fixed order
        <li key={at} className="rule py-1 first:border-t-0">
          <span className="block font-medium">{step.what}</span>
          <span className="block italic">{step.formula}</span>
          {step.put_in.length > 0 && (
            <span className="block">
              {step.put_in.map((put) => `${put.symbol} = ${inWords(format(put.figure, units))}`).join(", ")}
            </span>
          )}
          <span className="block">
            = <strong>{inWords(format(step.gives, units))}</strong>{" "}
            <span className="opacity-80">
              ({FIRMNESS[step.source.kind]}: {step.source.cite})
            </span>
          </span>
        </li>
      ))}
    </ol>
  );
}
