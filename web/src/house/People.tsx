import type { House } from "../api/client";
import { replaced, without } from "./rows";

type Props = { shown: House["people"]; onChange: (people: House["people"]) => void };

/** Who signs. */
export function People({ shown, onChange }: Props) {
  return (
    <section>
      <h2 className="label-small font-semibold">People who sign</h2>
      <table className="mt-1 w-full text-body">
        <tbody>
          {shown.map((one, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row's initials are what is being typed
            <tr key={at} className="rule">
              <td className="w-[90px] py-0.5">
                <input
                  className="bg-base-200 w-full px-2 leading-[28px]"
                  aria-label="Initials"
                  placeholder="initials"
                  maxLength={8}
                  value={one.initials}
                  onChange={(event) => onChange(replaced(shown, at, { initials: event.target.value }))}
                />
              </td>
              <td className="pl-2">
                <input
                  className="bg-base-200 w-full px-2 leading-[28px]"
                  aria-label="Name"
                  placeholder="name"
                  maxLength={60}
                  value={one.name}
                  onChange={(event) => onChange(replaced(shown, at, { name: event.target.value }))}
                />
              </td>
              <td className="w-[90px] text-right">
                <button
                  type="button"
                  className="plain-button py-0"
                  aria-label={`Take away ${one.initials}`}
                  onClick={() => onChange(without(shown, at))}
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
        onClick={() => onChange([...shown, { initials: "", name: "" }])}
      >
        Add a person
      </button>
    </section>
  );
}
