import { type Ref, useImperativeHandle, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, Refused } from "../api/client";
import { keyed, newKey } from "../api/upload";
import { JUST_OPENED } from "../job/stages";
import { signedBy } from "../job/unsaved";
import { Fault } from "../shared/Caution";
import { keptHere, LINES } from "../shared/kept";
import { SetupField } from "../shared/SetupField";
import { useDeed } from "../shared/useDeed";

export type NewJobHandle = { focus: () => void };

const CAR_KEPT_AS = "dimensione.new-car";
const LINE_KEPT_AS = "new-job-line";
const KEY_KEPT_AS = "dimensione.new-job-key";

/** One key for what stands in the form: pressed again after a lost answer, it opens the job that is there already. */
function keyFor(asked: string): string {
  const drawn = keptHere.read<{ asked?: string; key?: string }>(KEY_KEPT_AS);
  if (drawn?.asked === asked && drawn.key) return drawn.key;
  const key = newKey();
  keptHere.write(KEY_KEPT_AS, { asked, key });
  return key;
}

const isOnCar = (error: unknown) =>
  error instanceof Refused && error.problem.errors.some((one) => one.pointer === "/car_label");

/** A new job in one line: a car label and what is fitted. */
export function NewJob({ ref }: { ref?: Ref<NewJobHandle> }) {
  const [car, setCar] = useState(() => keptHere.get(CAR_KEPT_AS) ?? "");
  const {
    run,
    says: trouble,
    isBusy,
  } = useDeed("Open", (error) =>
    isOnCar(error) ? "Name the car first." : `What is fitted cannot be read: ${(error as Error).message}.`,
  );
  const field = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  useImperativeHandle(ref, () => ({ focus: () => field.current?.focus() }));

  const open = () => {
    if (isBusy) return;
    const line = keptHere.get(LINES + LINE_KEPT_AS) ?? "";
    run(async () => {
      try {
        const body = { car_label: car, fitted_line: line, wish: "", signed_by: signedBy() };
        const header = keyed(keyFor(JSON.stringify(body)));
        const job = await answer(api.POST("/api/v1/jobs", { params: { header }, body }));
        keptHere.drop(KEY_KEPT_AS);
        keptHere.drop(CAR_KEPT_AS);
        keptHere.drop(LINES + LINE_KEPT_AS);
        navigate(`/jobs/${job.id}/bench`, { state: JUST_OPENED });
      } catch (error) {
        if (isOnCar(error)) field.current?.focus();
        throw error;
      }
    });
  };

  return (
    <form
      className="border-base-300 border-b px-4 py-3"
      aria-label="New job"
      onSubmit={(event) => {
        event.preventDefault();
        open();
      }}
    >
      <div className="border-accent flex flex-wrap items-center gap-3 border px-3 py-1">
        <label className="flex items-center gap-2">
          <span className="label-small">New job</span>
          <input
            ref={field}
            className="border-base-300 w-[250px] border-b bg-transparent py-1 text-head outline-none"
            value={car}
            maxLength={120}
            placeholder="Which car? (n)"
            onChange={(event) => {
              setCar(event.target.value);
              keptHere.put(CAR_KEPT_AS, event.target.value);
            }}
          />
        </label>
        <SetupField
          label="Fitted"
          tone="new"
          keptAs={LINE_KEPT_AS}
          value=""
          placeholder="17x7.5 ET45 225/45R17, typed or pasted"
          onRead={() => {}}
          onEnter={() => open()}
        />
        <button type="submit" className="btn btn-primary btn-sm" disabled={isBusy}>
          Open
        </button>
      </div>
      {trouble && <Fault className="mt-1 text-body">{trouble}</Fault>}
    </form>
  );
}
