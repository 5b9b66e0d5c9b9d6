type Props = {
  /** What stands on it. */
  text: string;
  /** What it is called for a screen reader. */
  label: string;
  accept: string;
  onFile: (file: File) => void;
  className?: string;
};

/** A button that brings a file; the same file can be brought again. */
export function FileButton({ text, label, accept, onFile, className = "" }: Props) {
  return (
    <label className={`plain-button ${className}`}>
      {text}
      <input
        type="file"
        className="sr-only"
        aria-label={label}
        accept={accept}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
    </label>
  );
}
