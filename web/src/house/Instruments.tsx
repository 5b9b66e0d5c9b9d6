import type { House } from "../api/client";
import { EditedRows } from "./EditedRows";
import { NumberField, number } from "./NumberField";
import { replaced } from "./rows";
import { TextCell } from "./TextCell";

type Props = { shown: House["instruments"]; onChange: (instruments: House["instruments"]) => void };

/** The instruments of the house, and how far each may be off. */
export function Instruments({ shown, onChange }: Props) {
  return (
    <EditedRows
      title="Instruments, and how far each may be off"
      rows={shown}
      nameOf={(one) => one.name}
      add="Add an instrument"
      fresh={{ code: "", name: "", plus_minus_mm: 1 }}
      onChange={onChange}
      cells={(one, at) => (
        <>
          <td className="py-0.5">
            <TextCell
              label="Instrument"
              most={60}
              value={one.name}
              onPut={(name) => onChange(replaced(shown, at, { name }))}
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
        </>
      )}
    />
  );
}
