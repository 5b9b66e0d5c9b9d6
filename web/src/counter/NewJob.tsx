import { type Ref, useImperativeHandle, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { Away, answer, api, Refused } from "../api/client";
import { keyed, newKey } from "../api/upload";
import { signedBy } from "../job/unsaved";
import { Fault } from "../shared/Caution";
import { SetupField } from "../shared/SetupField";

export type NewJobHandle = { focus: () => void };

const CAR_KEPT_AS = "dimensione.new-car";
const LINE_KEPT_AS = "new-job-line";
const KEY_KEPT_AS = "dimensione.new-job-key";

/** One key for what stands in the form: pressed again after a lost answer, it opens the job that is there already. */
function keyFor(asked: string): string {
  const kept = JSON.parse(sessionStorage.getItem(KEY_KEPT_AS) ?? "{}") as { asked?: string; key?: string };
  if (kept.asked === asked && kept.key) return kept.key;
  const key = newKey();
  sessionStorage.setItem(KEY_KEPT_AS, JSON.stringify({ asked, key }));
  return key;
}

/** A new job in one line: a car label and what is fitted. */
export function NewJob({ ref }: { ref?: Ref<NewJobHandle> }) {
  const [car, setCar] = useState(() => sessionStorage.getItem(CAR_KEPT_AS) ?? "");
  const [trouble, setTrouble] = useState("");
  const [isBusy, setBusy] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  useImperativeHandle(ref, () => ({ focus: () => field.current?.focus() }));

  const open = async () => {
    if (isBusy) return;
    setBusy(true);
    setTrouble("");
    const line = sessionStorage.getItem(LINE_KEPT_AS) ?? "";
    try {
      const body = { car_label: car, fitted_line: line, wish: "", signed_by: signedBy() };
      const header = keyed(keyFor(JSON.stringify(body)));
      const job = await answer(api.POST("/api/v1/jobs", { params: { header }, body }));
      sessionStorage.removeItem(KEY_KEPT_AS);
      sessionStorage.removeItem(CAR_KEPT_AS);
      sessionStorage.removeItem(LINE_KEPT_AS);
      navigate(`/jobs/${job.id}/bench`);
    } catch (error) {
      setBusy(false);
      if (error instanceof Away)
        setTrouble("The program does not answer. What you typed stays here; press Open again.");
      else if (error instanceof Refused) {
        const onCar = error.problem.errors.some((one) => one.pointer === "/car_label");
        setTrouble(onCar ? "Name the car first." : `What is fitted cannot be read: ${error.message}.`);
        if (onCar) field.current?.focus();
      }
    }
  };

  return (
    <form
      className="border-base-300 border-b px-4 py-3"
      aria-label="New job"
      onSubmit={(event) => {
        event.preventDefault();
        void open();
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
              sessionStorage.setItem(CAR_KEPT_AS, event.target.value);
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
          onEnter={() => void open()}
        />
        <button type="submit" className="btn btn-primary btn-sm" disabled={isBusy}>
          Open
        </button>
      </div>
      {trouble && <Fault className="mt-1 text-body">{trouble}</Fault>}
    </form>
  );
}
