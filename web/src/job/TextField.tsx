import { useEffect, useId, useState } from "react";

type Props = {
  label: string;
  value: string;
  onChange: (value: string) => void;
  placeholder?: string;
  className?: string;
  maxLength: number;
  /** What is offered while typing. */
  offers?: { value: string; label: string }[];
  /** A value that may not be left empty springs back. */
  required?: boolean;
};

/** A text on the sheet that is edited where it stands. */
export function TextField({
  label,
  value,
  onChange,
  placeholder,
  className = "",
  maxLength,
  offers,
  required,
}: Props) {
  const [text, setText] = useState(value);
  const list = useId();
  useEffect(() => setText(value), [value]);
  return (
    <label className="block min-w-0">
      <span className="label-small block">{label}</span>
      <input
        className={`hover:bg-base-200 focus:bg-base-200 w-full min-w-0 truncate bg-transparent ${className}`}
        value={text}
        placeholder={placeholder}
        maxLength={maxLength}
        list={offers ? list : undefined}
        title={text}
        onChange={(event) => {
          setText(event.target.value);
          if (event.target.value.trim() || !required) onChange(event.target.value);
        }}
        onBlur={() => setText(value)}
        onKeyDown={(event) => (event.key === "Enter" || event.key === "Escape") && event.currentTarget.blur()}
      />
      {offers && (
        <datalist id={list}>
          {offers.map((offer) => (
            <option key={offer.value} value={offer.value} label={offer.label} />
          ))}
        </datalist>
      )}
    </label>
  );
}
