import { useState } from "react";
import type { Schemas } from "../api/client";

type Props = {
  tried: Schemas["TriedList"];
  onMap: (mapping: Record<string, string>) => void;
  onSay: (code: string, value: string) => void;
};

/** Which column of a list means what. */
export function WhichColumn({ tried, onMap, onSay }: Props) {
  // Open while no row can be read, and then as the hand leaves it.
  const [isOpen, setOpen] = useState(tried.new + tried.changed + tried.unchanged === 0);
  return (
    <details className="text-small" open={isOpen} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer">which column means what</summary>
      <div className="grid grid-cols-2 gap-x-3">
        {tried.fields.map((field) => (
          <label key={field.code} className="flex items-center justify-between gap-2">
            <span className="truncate">{field.title}</span>
            <select
              className="bg-base-200 h-[26px] w-[110px] px-1"
              value={tried.mapping[field.code] ?? ""}
              onChange={(event) => {
                const { [field.code]: _, ...others } = tried.mapping;
                onMap(event.target.value ? { ...others, [field.code]: event.target.value } : others);
              }}
            >
              <option value="">–</option>
              {tried.header.map((heading) => (
                <option key={heading}>{heading}</option>
              ))}
            </select>
          </label>
        ))}
        <label className="flex items-center justify-between gap-2">
          <span className="truncate">loads and masses in</span>
          <select
            className="bg-base-200 h-[26px] w-[110px] px-1"
            value={tried.mapping["@load_unit"] ?? ""}
            onChange={(event) => onSay("@load_unit", event.target.value)}
          >
            <option value="">as the list says</option>
            <option value="kg">kilograms</option>
            <option value="lb">pounds</option>
          </select>
        </label>
      </div>
    </details>
  );
}
