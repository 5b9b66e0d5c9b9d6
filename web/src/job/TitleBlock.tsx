import { useState } from "react";
import { useNavigate } from "react-router";
import type { Drive, Stage } from "../api/client";
import { useHouse } from "../shared/registry";
import { asLine, benchOf, isEmpty, isOnBench } from "./content";
import { DRIVES, STAGES } from "./stages";
import { TextField } from "./TextField";
import { setSignedBy, signedBy } from "./unsaved";
import type { OpenJob } from "./useJob";

/** The sheet's title block: car, wish, drive, kept setups, who signs, job and revision. */
export function TitleBlock({ open }: { open: OpenJob }) {
  const { content, edit, job, keep } = open;
  const [initials, setInitials] = useState(signedBy);
  const navigate = useNavigate();
  const house = useHouse();
  return (
    <footer className="border-base-300 divide-base-300 grid grid-cols-2 border-t-2 min-[1100px]:grid-cols-[1.25fr_1.7fr_0.6fr_2.1fr_0.5fr_0.75fr] min-[1100px]:divide-x [&>*]:px-3 [&>*]:py-1.5">
      <div>
        <TextField
          label="Car"
          className="text-lead font-semibold"
          value={content.car_label}
          maxLength={120}
          required
          onChange={(car_label) => edit({ car_label })}
        />
        <TextField
          label="Notes"
          className="text-small"
          value={content.notes}
          maxLength={10_000}
          placeholder="none yet"
          onChange={(notes) => edit({ notes })}
        />
      </div>
      <div>
        <label className="block">
          <span className="label-small block">Owner's wish</span>
          <textarea
            className="hover:bg-base-200 focus:bg-base-200 h-[54px] w-full resize-none bg-transparent text-body leading-[18px]"
            value={content.wish}
            maxLength={400}
            placeholder="What does the owner want to see, and what must not happen?"
            onChange={(event) => edit({ wish: event.target.value })}
          />
        </label>
      </div>
      <div className="flex gap-x-3 min-[1100px]:block">
        <label className="block">
          <span className="label-small block">Drive</span>
          <select
            className="hover:bg-base-200 w-full bg-transparent text-body"
            value={content.drive ?? ""}
            onChange={(event) => edit({ drive: (event.target.value || null) as Drive | null })}
          >
            {DRIVES.map((drive) => (
              <option key={drive.code} value={drive.code} className="bg-base-100">
                {drive.name}
              </option>
            ))}
          </select>
        </label>
        <label className="block">
          <span className="label-small block">Stands at</span>
          <select
            className="hover:bg-base-200 w-full bg-transparent text-body"
            value={content.stage}
            onChange={(event) => edit({ stage: event.target.value as Stage })}
          >
            {STAGES.map((stage) => (
              <option key={stage.code} value={stage.code} className="bg-base-100">
                {stage.name}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div>
        <span className="label-small block">Kept</span>
        <div className="mt-0.5 flex flex-wrap items-center gap-1">
          {content.candidates.map((kept) => (
            <button
              key={kept.letter}
              type="button"
              aria-pressed={isOnBench(kept, content)}
              className="border-base-300 hover:bg-base-300/60 aria-pressed:border-accent aria-pressed:bg-accent/15 cursor-pointer border px-2.5 py-0.5 text-body font-semibold"
              title={`${asLine(kept.lines)}${kept.note ? `: ${kept.note}` : ""}`}
              onClick={() => {
                edit(benchOf(kept, content));
                navigate(`/jobs/${open.id}/bench`);
              }}
            >
              {kept.letter}
            </button>
          ))}
          <button
            type="button"
            className="plain-button text-accent font-medium"
            disabled={isEmpty(content.planned)}
            onClick={keep}
          >
            Keep this plan <span className="key">k</span>
          </button>
        </div>
      </div>
      <TextField
        label="Signed"
        className="text-body"
        value={initials}
        maxLength={40}
        placeholder="initials"
        offers={house?.people.map(({ initials, name }) => ({ value: initials, label: name }))}
        onChange={(text) => {
          setInitials(text);
          setSignedBy(text);
        }}
      />
      <div>
        <span className="label-small block">Job · revision</span>
        <span className="text-lead font-semibold" data-revision={job.revision}>
          {job.number} · {job.revision}
        </span>
      </div>
    </footer>
  );
}
