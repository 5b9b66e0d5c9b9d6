type Props = {
  label: string;
  value: string;
  options: (readonly [string, string])[];
  onPick: (code: string) => void;
  /** As tall as a thumb wants it, in the bay. */
  tall?: boolean;
};

/** One of a few, under its label. */
export function Choice({ label, value, options, onPick, tall }: Props) {
  return (
    <label className="block">
      <span className="label-small block">{label}</span>
      <select
        className={`bg-base-200 w-full px-2 ${tall ? "h-[44px]" : "h-[32px]"}`}
        value={value}
        onChange={(event) => onPick(event.target.value)}
      >
        {options.map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
