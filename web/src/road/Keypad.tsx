const KEYS = ["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫"];

/** Figures for a thumb: on a tablet beside the car, where there is no keyboard. */
export function Keypad({ onKey }: { onKey: (key: string) => void }) {
  return (
    <div className="mt-2 hidden w-[264px] grid-cols-3 gap-2 max-[1000px]:grid" data-keypad>
      {KEYS.map((key) => (
        <button
          key={key}
          type="button"
          className="btn h-[56px] text-head"
          aria-label={key === "⌫" ? "Take the last figure away" : key}
          onClick={() => onKey(key)}
        >
          {key}
        </button>
      ))}
    </div>
  );
}
