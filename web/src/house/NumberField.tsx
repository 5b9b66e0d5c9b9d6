import { useEffect, useState } from "react";

/** What was typed as a figure; a comma may stand for the point. */
export const number = (text: string) => (text.trim() === "" ? Number.NaN : Number(text.replace(",", ".")));

/** A figure of the house, as it is being typed. */
export function NumberField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (text: string) => void;
}) {
  const [text, setText] = useState(String(value));
  // Not while a figure is half typed: "2." is 2 already.
  useEffect(() => {
    setText((now) => (Number(now.replace(",", ".")) === value || Number.isNaN(value) ? now : String(value)));
  }, [value]);
  return (
    <input
      className="bg-base-200 w-[56px] px-2 text-right leading-[28px]"
      aria-label={label}
      inputMode="decimal"
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        onChange(event.target.value);
      }}
    />
  );
}
