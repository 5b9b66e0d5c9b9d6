import type { House } from "../api/client";
import { NumberField, number } from "./NumberField";
import { replaced, without } from "./rows";

type Props = { shown: House["instruments"]; onChange: (instruments: House["instruments"]) => void };

/** The instruments of the house, and how far each may be off. */
export function Instruments({ shown, onChange }: Props) {
  return (
    <section>
      <h2 className="label-small font-semibold">Instruments, and how far each may be off</h2>
      <table className="mt-1 w-full text-body">
        <tbody>
          {shown.map((one, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row's name is what is being typed
            <tr key={at} className="rule">
              <td className="py-0.5">
                <input
                  className="bg-base-200 w-full px-2 leading-[28px]"
                  aria-label="Instrument"
                  maxLength={60}
                  value={one.name}
                  onChange={(event) => onChange(replaced(shown, at, { name: event.target.value }))}
                />
              </td>
              <td className="w-[120px] text-right whitespace-nowrap">
                ±{" "}
                <NumberField
                  label={`${one.name}, may be off by`}
                  value={one.plus_minus_mm}
                  onChange={(text) => onChange(replaced(shown, at, { plus_minus_mm: number(text) }))}
                />{" "}
                mm
              </td>
              <td className="w-[90px] text-right">
                <button
                  type="button"
                  className="plain-button py-0"
                  aria-label={`Take away ${one.name}`}
                  onClick={() => onChange(without(shown, at))}
                >
                  Take away
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="plain-button text-accent font-medium"
        onClick={() => onChange([...shown, { code: "", name: "", plus_minus_mm: 1 }])}
      >
        Add an instrument
      </button>
    </section>
  );
}
