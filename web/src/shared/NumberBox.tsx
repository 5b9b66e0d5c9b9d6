import { useEffect, useState } from "react";
import { numberOf, readNumber } from "./number";

type Props = {
  label: string;
  value: number | null | undefined;
  onPut: (value: number | null) => void;
  wide?: boolean;
  placeholder?: string;
};

const shown = (value: number | null | undefined) => (value == null ? "" : String(value));

/** A small box for a number, blank for none. What is half typed ("-", "1,") stays until it is one. */
export function NumberBox({ label, value, onPut, wide, placeholder = "any" }: Props) {
  const [text, setText] = useState(shown(value));
  useEffect(() => {
    setText((now) => (numberOf(now) === value ? now : shown(value)));
  }, [value]);
  return (
    <input
      className={`bg-base-200 h-[30px] px-2 text-right ${wide ? "w-[96px]" : "w-[56px]"}`}
      aria-label={label}
      inputMode="decimal"
      placeholder={placeholder}
      value={text}
      onBlur={() => setText(shown(value))}
      onChange={(event) => {
        setText(event.target.value);
        const typed = readNumber(event.target.value);
        if (typed.is === "empty") onPut(null);
        else if (typed.is === "number") onPut(typed.value);
      }}
    />
  );
}
