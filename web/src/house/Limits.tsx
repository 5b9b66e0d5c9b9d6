import type { House, Registry } from "../api/client";
import { InlineFault } from "../shared/Caution";
import { NumberField, number } from "./NumberField";

type Props = {
  limits: Registry["limits"];
  shown: House["limits"];
  faultOf: (pointer: string) => string | undefined;
  onChange: (limits: House["limits"]) => void;
};

/** The house's limits, each beside the trade's figure. */
export function Limits({ limits, shown, faultOf, onChange }: Props) {
  return (
    <section>
      <h2 className="label-small font-semibold">Limits</h2>
      <p className="text-small">
        Each verdict names the limit it used. The trade's figure stands beside it; common practice, no source.
      </p>
      <table className="mt-1 w-full text-body">
        <tbody>
          {limits.map((limit) => {
            const value = shown[limit.code] ?? limit.default;
            const fault = faultOf(`/limits/${limit.code}`);
            return (
              <tr key={limit.code} className="rule">
                <td className="py-0.5 pr-2">
                  {limit.title}
                  {fault && <InlineFault className="block text-note">{fault}</InlineFault>}
                </td>
                <td className="w-[110px] text-right whitespace-nowrap">
                  <NumberField
                    label={limit.title}
                    value={value}
                    onChange={(text) => onChange({ ...shown, [limit.code]: number(text) })}
                  />{" "}
                  {limit.unit}
                </td>
                <td className="w-[110px] text-right">
                  {value === limit.default ? (
                    <span className="opacity-80">as the trade</span>
                  ) : (
                    <button
                      type="button"
                      className="plain-button py-0"
                      onClick={() => onChange({ ...shown, [limit.code]: limit.default })}
                    >
                      back to {limit.default}
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
