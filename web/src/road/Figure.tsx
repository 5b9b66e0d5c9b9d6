import { NumberBox } from "../shared/NumberBox";

type Props = {
  label: string;
  unit?: string;
  value: number | null | undefined;
  onPut: (value: number | null) => void;
  placeholder?: string;
};

/** A figure under its label, with its unit behind it. */
export function Figure({ label, unit = "", value, onPut, placeholder = "not known" }: Props) {
  return (
    <div className="text-small">
      <span className="block text-note">{label}</span>
      <span className="flex items-center gap-1">
        <NumberBox
          label={unit ? `${label}, ${unit}` : label}
          value={value}
          placeholder={placeholder}
          onPut={onPut}
          wide
        />
        {unit}
      </span>
    </div>
  );
}
