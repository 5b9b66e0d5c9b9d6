import type { Fragment, Quantity } from "../api/client";
import { format, inWords, useUnits } from "./units";

/** A number in the reader's units, the unit smaller. */
export function FigureText({ quantity, big = false }: { quantity: Quantity; big?: boolean }) {
  const { units } = useUnits();
  const { figure, unit } = format(quantity, units);
  return (
    <span className="whitespace-nowrap">
      <span className={big ? "text-head font-semibold" : "font-semibold"}>{figure}</span>
      {unit && <span className="ml-[2px] text-note">{unit}</span>}
    </span>
  );
}

/** A sentence with numbers in it. */
export function Phrase({ fragments }: { fragments: Fragment[] }) {
  const { units } = useUnits();
  return (
    <>
      {fragments
        .map((fragment) => ("text" in fragment ? fragment.text : inWords(format(fragment.quantity, units))))
        .join("")}
    </>
  );
}
