import { useState } from "react";
import type { Schemas } from "../api/client";
import { Mark } from "../shared/Mark";
import type { PartProps } from "./RoadTrack";

type View = Schemas["InspectionView"];

/** Looks at the wheels: when each comes due, and what was found. */
export function Inspections({ sheet, answer, onChange }: PartProps) {
  const runs = Math.max(
    -1,
    ...(sheet.tires ?? [])
      .filter((tire) => tire.position !== "off")
      .map((tire) => tire.readings?.at(-1)?.runs ?? -1),
  );
  const note = (code: string, found: string) =>
    onChange({
      inspections: [
        ...(sheet.inspections ?? []),
        { code, at: new Date().toISOString().slice(0, 10), runs: runs < 0 ? null : runs, found },
      ],
    });
  return (
    <section aria-label="Inspection of the wheels">
      <h2 className="label-small font-semibold">Every wheel is a wear part: looks that come due</h2>
      <ul className="max-w-[900px]" data-inspections>
        {answer?.inspections.map((one) => (
          <Look key={one.code} one={one} onNote={(found) => note(one.code, found)} />
        ))}
      </ul>
    </section>
  );
}

function Look({ one, onNote }: { one: View; onNote: (found: string) => void }) {
  const [found, setFound] = useState("");
  return (
    <li className="rule py-1 text-body" data-look={one.code}>
      <form
        className="flex flex-wrap items-center gap-x-3"
        onSubmit={(event) => {
          event.preventDefault();
          onNote(found);
          setFound("");
        }}
      >
        <span className="flex items-center gap-1 font-semibold">
          <Mark standing={one.standing} size={14} />
          {one.title}
        </span>
        <span>{one.says}</span>
        <span className="ml-auto flex items-center gap-2">
          <input
            className="bg-base-200 h-[28px] w-[200px] px-2"
            aria-label={`${one.title}: what was found`}
            placeholder="what was found"
            maxLength={200}
            value={found}
            onChange={(event) => setFound(event.target.value)}
          />
          <button type="submit" className="btn btn-sm">
            Looked at today
          </button>
        </span>
      </form>
      <p className="text-note opacity-85">
        {one.how}
        {one.last_at && ` Last on ${one.last_at}: ${one.found ?? "nothing noted"}.`}
      </p>
    </li>
  );
}
