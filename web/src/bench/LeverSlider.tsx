import { memo, useEffect, useRef, useState } from "react";
import type { Axle, Registry } from "../api/client";
import { formatLength, inWords, type Units, useUnits } from "../shared/units";

type Lever = Registry["levers"][number];
type Props = {
  lever: Lever;
  axle: Axle;
  amount: number;
  hasName: boolean;
  /** The hand moves it. */
  onPull: (axle: Axle, lever: string, amount: number) => void;
  /** The hand lets go, or a key was pressed: it stays so. */
  onSet: (axle: Axle, lever: string, amount: number) => void;
};

/** One lever on one axle. While it is pulled only this slider is drawn anew; the answer brings the rest along. */
export const LeverSlider = memo(function LeverSlider({ lever, axle, amount, hasName, onPull, onSet }: Props) {
  const { units } = useUnits();
  const [at, setAt] = useState(amount);
  const held = useRef(false);
  useEffect(() => setAt(amount), [amount]);
  const letGo = () => {
    if (!held.current) return;
    held.current = false;
    onSet(axle, lever.code, at);
  };
  return (
    <label className="flex min-w-0 flex-1 items-center gap-2 text-small">
      {hasName && <span className="w-[34px] opacity-85">{axle}</span>}
      <input
        type="range"
        className="range-lever min-w-0 flex-1"
        aria-label={`${lever.title}, ${axle}`}
        min={lever.least ?? 0}
        max={lever.most ?? 0}
        step={lever.step ?? 1}
        value={at}
        onPointerDown={() => {
          held.current = true;
        }}
        onPointerUp={letGo}
        onPointerCancel={letGo}
        onBlur={letGo}
        onChange={(event) => {
          const next = Number(event.target.value);
          setAt(next);
          if (held.current) onPull(axle, lever.code, next);
          else onSet(axle, lever.code, next);
        }}
      />
      <span className="w-[62px] text-right font-semibold" data-amount={axle}>
        {said(lever, at, units)}
      </span>
    </label>
  );
});

function said(lever: Lever, amount: number, units: Units): string {
  if (amount === 0) return "—";
  if (lever.unit === "mm") return inWords(formatLength(amount, units, (lever.least ?? 0) < 0));
  return `${amount > 0 ? "+" : "−"}${Math.abs(amount).toFixed(1)}${lever.unit}`;
}
