import { useState } from "react";
import type { Schemas } from "../api/client";

type Props = {
  tried: Schemas["TriedList"];
  onSay: (code: string, value: string) => void;
};

/** In which row, and on which sheet, a list begins. */
export function WhereItBegins({ tried, onSay }: Props) {
  // Open while no row can be read, and then as the hand leaves it.
  const [isOpen, setOpen] = useState(tried.new + tried.changed + tried.unchanged === 0);
  return (
    <details className="text-small" open={isOpen} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer">where the list begins: row {tried.header_row}</summary>
      {tried.sheets.length > 1 && (
        <label className="flex items-center gap-2 py-1">
          sheet
          <select
            className="bg-base-200 h-[28px] px-1"
            value={tried.sheet}
            onChange={(event) => onSay("@sheet", event.target.value)}
          >
            {tried.sheets.map((name, at) => (
              <option key={name} value={at + 1}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="overflow-x-auto">
        <table className="text-note">
          <tbody>
            {tried.top.map((line) => (
              <tr
                key={line.row}
                className={line.row === tried.header_row ? "bg-accent/15 font-semibold" : ""}
              >
                <td className="pr-1">
                  <button
                    type="button"
                    className="plain-button px-1 py-0"
                    disabled={line.row === tried.header_row}
                    aria-label={`Row ${line.row} is the heading`}
                    onClick={() => onSay("@header_row", String(line.row))}
                  >
                    {line.row}
                  </button>
                </td>
                {line.cells.slice(0, 12).map((cell, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a line's cells have no name but their column
                  <td key={at} className="max-w-[110px] truncate pr-2">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p>Press the number of the row with the headings.</p>
    </details>
  );
}
