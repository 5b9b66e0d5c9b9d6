import type { Schemas } from "../api/client";
import { upload } from "../api/upload";
import { useSheet } from "../job/JobSheet";
import { InlineFault } from "../shared/Caution";
import { FileButton } from "../shared/FileButton";
import { useDeed } from "../shared/useDeed";
import { Figure } from "./Figure";
import type { PartProps } from "./RoadTrack";
import { Round } from "./Round";
import { SeasonPlot } from "./SeasonPlot";
import { SetPlot } from "./SetPlot";
import { NAMES, ROUND } from "./walk";

type Tire = Schemas["TireLog"];
type Season = Schemas["SeasonView"];

/** Tires with their seasons: twelve depths in one go round the car, and what they say. */
export function TreadLog({ sheet, answer, onChange }: PartProps) {
  const { open } = useSheet();
  const tires = sheet.tires ?? [];
  const put = (changed: Tire) =>
    onChange({ tires: tires.map((one) => (one.id === changed.id ? changed : one)) });
  const add = () =>
    onChange({
      tires: [
        ...tires,
        ...ROUND.map((position) => ({
          id: crypto.randomUUID(),
          name: NAMES[position] ?? position,
          position,
          readings: [],
        })),
      ],
    });
  const onCar = ROUND.flatMap((position) => tires.filter((one) => one.position === position).slice(0, 1));
  const { run, says: fault } = useDeed();
  /** Tires of the file go on; one of the same name and place is replaced by the file's. */
  const bring = (file: File) =>
    run(async () => {
      const brought = await upload<Tire[]>("/api/v1/road/tread-log", file);
      const isIn = (tire: Tire) =>
        brought.some((one) => one.name === tire.name && one.position === tire.position);
      onChange({ tires: [...tires.filter((tire) => !isIn(tire)), ...brought] });
    });
  return (
    <section aria-label="Tread log" className="flex flex-col gap-3">
      <p className="flex flex-wrap items-center gap-2 text-small">
        <FileButton text="Bring a log" label="File of a tread log" accept=".csv,.json,.xlsx" onFile={bring} />
        {fault && <InlineFault>{fault}</InlineFault>}
      </p>
      {tires.length === 0 ? (
        <p className="text-body">
          No tire has a log yet.{" "}
          <button type="button" className="btn btn-primary btn-sm" onClick={add}>
            Begin with the four on the car
          </button>
        </p>
      ) : (
        <>
          {onCar.length === 4 && (
            <Round
              key={onCar.map((one) => one.id).join()}
              tires={onCar}
              whose={open.job.uid}
              onTake={(readings) =>
                onChange({
                  tires: tires.map((tire) => {
                    const reading = readings[onCar.findIndex((one) => one.id === tire.id)];
                    return reading ? { ...tire, readings: [...(tire.readings ?? []), reading] } : tire;
                  }),
                })
              }
            />
          )}
          <div className="flex flex-wrap items-end gap-3">
            <Figure
              label="Done at a depth of"
              unit="mm"
              value={sheet.limit_mm}
              placeholder="1.6"
              onPut={(limit_mm) => onChange({ limit_mm })}
            />
            <button type="button" className="btn btn-sm" onClick={add}>
              Another set of four
            </button>
            <a className="plain-button" href={`/api/v1/jobs/${open.id}/road/tread-log.csv`} download>
              Take along as CSV
            </a>
          </div>
          {onCar.length === 4 && <SetPlot tires={onCar} limit={answer?.limit_mm ?? 0} />}
          {answer?.rotation && (
            <p role="status" data-rotation className="rule pt-2 text-body">
              <strong>{answer.rotation}</strong> {answer.rotation_caution}
            </p>
          )}
          <ul className="grid gap-3 min-[900px]:grid-cols-2">
            {tires.map((tire) => (
              <TireView
                key={tire.id}
                tire={tire}
                limit={answer?.limit_mm ?? 0}
                season={answer?.seasons.find((one) => one.id === tire.id) ?? null}
                onPut={put}
                onRemove={() => onChange({ tires: tires.filter((one) => one.id !== tire.id) })}
              />
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

type TireProps = {
  tire: Tire;
  limit: number;
  season: Season | null;
  onPut: (tire: Tire) => void;
  onRemove: () => void;
};

/** One tire: who it is, its season drawn, and what that comes to. */
function TireView({ tire, limit, season, onPut, onRemove }: TireProps) {
  const readings = tire.readings ?? [];
  const wear = season?.wear;
  const rate = wear?.rate_mm_per_run ?? wear?.rate_mm_per_1000_km;
  const each = wear?.rate_mm_per_run != null ? "run" : "1000 km";
  return (
    <li className="rule pt-2 text-small" data-tire={tire.position}>
      <div className="flex flex-wrap items-center gap-2">
        <input
          className="bg-base-200 h-[28px] min-w-0 flex-1 px-2"
          aria-label="Name of the tire"
          value={tire.name}
          maxLength={80}
          onChange={(event) => onPut({ ...tire, name: event.target.value })}
        />
        <select
          className="bg-base-200 h-[28px] px-1"
          aria-label="Where it is"
          value={tire.position}
          onChange={(event) => onPut({ ...tire, position: event.target.value })}
        >
          {Object.entries(NAMES).map(([code, name]) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
        <input
          className="bg-base-200 h-[28px] w-[84px] px-2"
          aria-label="Date code"
          placeholder="date code"
          value={tire.date_code ?? ""}
          maxLength={20}
          onChange={(event) => onPut({ ...tire, date_code: event.target.value })}
        />
        <button
          type="button"
          className="plain-button px-1"
          aria-label={`Take ${tire.name} off the log`}
          onClick={onRemove}
        >
          ✕
        </button>
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-x-4">
        <Mark
          label="turns one way only"
          on={tire.is_directional ?? false}
          onPut={(is_directional) => onPut({ ...tire, is_directional })}
        />
        <Mark
          label="one side is marked outside"
          on={tire.is_asymmetric ?? false}
          onPut={(is_asymmetric) => onPut({ ...tire, is_asymmetric })}
        />
        <Mark
          label="turned over on its rim"
          on={tire.turned_over ?? false}
          onPut={(turned_over) => onPut({ ...tire, turned_over })}
        />
        <Figure label="Price" value={tire.price} onPut={(price) => onPut({ ...tire, price })} />
      </div>
      {readings.length > 0 && <SeasonPlot readings={readings} leftOut={wear?.left_out ?? []} limit={limit} />}
      <p>
        {readings.length} readings.{" "}
        {rate != null && (
          <strong>
            {rate.toFixed(3)}
            {wear?.plus_minus != null && ` ± ${wear.plus_minus.toFixed(3)}`} mm each {each}
          </strong>
        )}
        {wear?.left_runs != null && `, ${wear.left_runs.toFixed(0)} runs left`}
        {wear?.left_km != null && `, ${wear.left_km.toFixed(0)} km left`}
        {season?.cost != null && `, ${season.cost.toFixed(2)} each ${each === "run" ? "run" : "100 km"}`}
        {wear?.pattern && `. Wears ${wear.pattern}${tire.turned_over ? " (sides as first mounted)" : ""}.`}
        {wear && wear.left_out.length > 0 && ` ${wear.left_out.length} readings grew and are left out.`}
      </p>
      {season?.heat && <p data-heat>Temperatures as last read: {season.heat}.</p>}
      {season && season.stood.length > 0 && (
        <p data-stood>
          Stood{" "}
          {season.stood
            .map((one) => `${NAMES[one.position] ?? one.position} from ${one.from} (${one.readings})`)
            .join(", then ")}
          .
        </p>
      )}
      {season?.advice.map((says) => (
        <p key={says} data-advice>
          {says}
        </p>
      ))}
    </li>
  );
}

type MarkProps = { label: string; on: boolean; onPut: (on: boolean) => void };

/** What stands on a tire's sidewall, or does not. */
function Mark({ label, on, onPut }: MarkProps) {
  return (
    <label className="flex items-center gap-1">
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        checked={on}
        onChange={(event) => onPut(event.target.checked)}
      />
      {label}
    </label>
  );
}
