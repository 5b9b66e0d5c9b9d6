import { useEffect, useState } from "react";

type Props = {
  label: string;
  value: string;
  onChange: (value: string) => void;
  placeholder?: string;
  className?: string;
  maxLength: number;
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
  required,
}: Props) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  return (
    <label className="block min-w-0">
      <span className="label-small block">{label}</span>
      <input
        className={`hover:bg-base-200 focus:bg-base-200 w-full min-w-0 truncate bg-transparent ${className}`}
        value={text}
        placeholder={placeholder}
        maxLength={maxLength}
        title={text}
        onChange={(event) => {
          setText(event.target.value);
          if (event.target.value.trim() || !required) onChange(event.target.value);
        }}
        onBlur={() => setText(value)}
        onKeyDown={(event) => (event.key === "Enter" || event.key === "Escape") && event.currentTarget.blur()}
      />
    </label>
  );
}
