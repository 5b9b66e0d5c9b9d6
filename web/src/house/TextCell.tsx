type Props = {
  label: string;
  placeholder?: string;
  most: number;
  value: string;
  onPut: (text: string) => void;
};

/** A text of a row, edited where it stands. */
export function TextCell({ label, placeholder, most, value, onPut }: Props) {
  return (
    <input
      className="bg-base-200 w-full px-2 leading-[28px]"
      aria-label={label}
      placeholder={placeholder}
      maxLength={most}
      value={value}
      onChange={(event) => onPut(event.target.value)}
    />
  );
}
