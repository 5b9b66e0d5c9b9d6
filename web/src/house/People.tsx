import type { House } from "../api/client";
import { EditedRows } from "./EditedRows";
import { replaced } from "./rows";
import { TextCell } from "./TextCell";

type Props = { shown: House["people"]; onChange: (people: House["people"]) => void };

/** Who signs. */
export function People({ shown, onChange }: Props) {
  return (
    <EditedRows
      title="People who sign"
      rows={shown}
      nameOf={(one) => one.initials}
      add="Add a person"
      fresh={{ initials: "", name: "" }}
      onChange={onChange}
      cells={(one, at) => (
        <>
          <td className="w-[90px] py-0.5">
            <TextCell
              label="Initials"
              placeholder="initials"
              most={8}
              value={one.initials}
              onPut={(initials) => onChange(replaced(shown, at, { initials }))}
            />
          </td>
          <td className="pl-2">
            <TextCell
              label="Name"
              placeholder="name"
              most={60}
              value={one.name}
              onPut={(name) => onChange(replaced(shown, at, { name }))}
            />
          </td>
        </>
      )}
    />
  );
}
