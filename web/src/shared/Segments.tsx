import { type ReactNode, useId } from "react";

type Props<Code extends string> = {
  /** What is chosen, for a screen reader. */
  label: string;
  value: Code;
  options: readonly (readonly [Code, ReactNode])[];
  onPick: (code: Code) => void;
  /** As tall as a thumb wants it, in the bay. */
  tall?: boolean;
  className?: string;
};

/** A few choices side by side, of which one stands: arrow keys move between them. */
export function Segments<Code extends string>({
  label,
  value,
  options,
  onPick,
  tall,
  className = "",
}: Props<Code>) {
  const name = useId();
  return (
    <fieldset className={`join segments ${tall ? "segments-tall" : ""} ${className}`} aria-label={label}>
      {options.map(([code, shown]) => (
        <label key={code} className="join-item">
          <input
            type="radio"
            name={name}
            className="sr-only"
            checked={value === code}
            onChange={() => onPick(code)}
          />
          {shown}
        </label>
      ))}
    </fieldset>
  );
}
