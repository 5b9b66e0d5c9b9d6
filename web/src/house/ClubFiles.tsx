import type { Schemas } from "../api/client";

type Kept = Schemas["KeptClubView"];
type Props = { all: Kept[]; onEdit: (one: Kept) => void; onTakeOut: (one: Kept) => void };

/** A rule file by its club and day. */
export const keyOf = (one: { club: string; from: string }) => `${one.club} ${one.from}`;

/** The rule files that are here. */
export function ClubFiles({ all, onEdit, onTakeOut }: Props) {
  return (
    <table className="mt-2 w-full text-body" data-clubs>
      <tbody>
        {all.map((one) => (
          <tr key={keyOf(one)} className="rule align-top">
            <td className="py-1 pr-3">
              {one.club}
              <span className="block text-note opacity-85">
                {one.damaged
                  ? `cannot be read: ${one.damaged}`
                  : one.classes.map(({ name }) => name).join(", ")}
              </span>
            </td>
            <td className="pr-3 whitespace-nowrap">
              from {one.from}
              <span className="block text-note opacity-85">
                {one.counts ? "counts now" : "does not count now"}
                {one.ships ? "; as shipped" : one.who ? `; by ${one.who}` : ""}
              </span>
            </td>
            <td className="text-right whitespace-nowrap">
              {!one.damaged && (
                <>
                  <button
                    type="button"
                    className="plain-button py-0"
                    aria-label={`Edit ${keyOf(one)}`}
                    onClick={() => onEdit(one)}
                  >
                    Edit
                  </button>
                  <a
                    className="plain-button py-0"
                    aria-label={`File of ${keyOf(one)}`}
                    download
                    href={`/api/v1/clubs/file?${new URLSearchParams({ club: one.club, from: one.from })}`}
                  >
                    File
                  </a>
                </>
              )}
              {!one.ships && (
                <button
                  type="button"
                  className="plain-button py-0"
                  aria-label={`Take out ${keyOf(one)}`}
                  onClick={() => onTakeOut(one)}
                >
                  Take out
                </button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
