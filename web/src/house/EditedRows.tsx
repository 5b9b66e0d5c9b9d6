import type { ReactNode } from "react";
import { without } from "./rows";

type Props<T> = {
  title: string;
  rows: T[];
  /** What a row is called when it is taken away. */
  nameOf: (row: T) => string;
  /** The cells of a row. */
  cells: (row: T, at: number) => ReactNode;
  add: string;
  fresh: T;
  onChange: (rows: T[]) => void;
};

/** A list of the house: each row edited where it stands, taken away, or added. */
export function EditedRows<T>({ title, rows, nameOf, cells, add, fresh, onChange }: Props<T>) {
  return (
    <section>
      <h2 className="label-small font-semibold">{title}</h2>
      <table className="mt-1 w-full text-body">
        <tbody>
          {rows.map((one, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row's name is what is being typed
            <tr key={at} className="rule">
              {cells(one, at)}
              <td className="w-[90px] text-right">
                <button
                  type="button"
                  className="plain-button py-0"
                  aria-label={`Take away ${nameOf(one)}`}
                  onClick={() => onChange(without(rows, at))}
                >
                  Take away
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="plain-button text-accent font-medium"
        onClick={() => onChange([...rows, fresh])}
      >
        {add}
      </button>
    </section>
  );
}
