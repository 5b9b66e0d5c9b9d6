type Props = {
  /** What stands on it. */
  text: string;
  /** What it is called for a screen reader. */
  label: string;
  accept: string;
  onFile: (file: File) => void;
  disabled?: boolean;
  className?: string;
};

/** A button that brings a file; the same file can be brought again. */
export function FileButton({ text, label, accept, onFile, disabled = false, className = "" }: Props) {
  return (
    <label
      className={`plain-button has-focus-visible:outline-2 has-focus-visible:outline-accent ${disabled ? "opacity-60" : ""} ${className}`}
    >
      {text}
      <input
        type="file"
        className="sr-only"
        aria-label={label}
        accept={accept}
        disabled={disabled}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
    </label>
  );
}
