import { useState } from "react";
import type { Schemas } from "../api/client";
import { saidBy, upload } from "../api/upload";
import { useSheet } from "../job/JobSheet";
import { FileButton } from "../shared/FileButton";
import { numberOf } from "../shared/number";
import { useDraft } from "../shared/useDraft";
import { Figure } from "./Figure";
import type { PartProps } from "./RoadTrack";

type Tire = Schemas["TireLog"];
type Season = Schemas["SeasonView"];

/** The way one walks round the car. */
const ROUND = ["fl", "fr", "rr", "rl"] as const;
const NAMES: Record<string, string> = {
  fl: "front left",
  fr: "front right",
  rr: "rear right",
  rl: "rear left",
  off: "off the car",
};
const PLACES = ["inner", "middle", "outer"] as const;
const NO_FIGURES: string[] = [];

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
  const [fault, setFault] = useState("");
  /** Tires of the file go on; one of the same name and place is replaced by the file's. */
  const bring = async (file: File) => {
    setFault("");
    try {
      const brought = await upload<Tire[]>("/api/v1/road/tread-log", file);
      const isIn = (tire: Tire) =>
        brought.some((one) => one.name === tire.name && one.position === tire.position);
      onChange({ tires: [...tires.filter((tire) => !isIn(tire)), ...brought] });
    } catch (error) {
      setFault(saidBy(error));
    }
  };
  return (
    <section aria-label="Tread log" className="flex flex-col gap-3">
      <p className="flex flex-wrap items-center gap-2 text-[14px]">
        <FileButton
          text="Bring a log"
          label="File of a tread log"
          accept=".csv,.json,.xlsx"
          onFile={(file) => void bring(file)}
        />
        {fault && (
          <span role="alert" className="text-error">
            {fault}
          </span>
        )}
      </p>
      {tires.length === 0 ? (
        <p className="text-[15px]">
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
              job={open.id}
              onTake={(figures, at, count, by) =>
                onChange({
                  tires: tires.map((tire) => {
                    const place = onCar.findIndex((one) => one.id === tire.id);
                    if (place < 0) return tire;
                    const [inner_mm = 0, middle_mm = 0, outer_mm = 0] = figures.slice(
                      place * 3,
                      place * 3 + 3,
                    );
                    const reading = { at, [by]: count, inner_mm, middle_mm, outer_mm };
                    return { ...tire, readings: [...(tire.readings ?? []), reading] };
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
          {answer?.rotation && (
            <p role="status" data-rotation className="rule pt-2 text-[15px]">
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

type RoundProps = {
  tires: Tire[];
  job: number;
  onTake: (figures: number[], at: string, count: number, by: "runs" | "distance_km") => void;
};

/** Twelve figures by keys alone: Enter goes on, round the car, inner to outer. */
function Round({ tires, job, onTake }: RoundProps) {
  const [figures, setFigures] = useDraft<string[]>(`tread.${job}`, NO_FIGURES);
  const [text, setText] = useState("");
  const [count, setCount] = useState<number | null>(null);
  const [by, setBy] = useState<"runs" | "distance_km">("runs");
  const [fault, setFault] = useState("");
  const at = figures.length;
  const tire = tires[Math.floor(at / 3)];
  const isDone = at >= 12;
  return (
    <form
      className="border-accent border-2 p-3"
      aria-label="Round the car"
      data-round={at}
      onSubmit={(event) => {
        event.preventDefault();
        if (isDone) {
          if (count == null) {
            setFault("Say how many runs or kilometres since they were mounted.");
            return;
          }
          onTake(figures.map(Number), new Date().toISOString().slice(0, 10), count, by);
          setFigures(NO_FIGURES);
          setFault("");
          return;
        }
        const depth = numberOf(text);
        if (!Number.isFinite(depth) || depth < 0 || depth > 25) {
          setFault("Write the depth in millimetres, as in 5.4.");
          return;
        }
        setFigures([...figures, String(depth)]);
        setText("");
        setFault("");
      }}
    >
      <h2 className="text-[18px] font-semibold">
        {isDone ? "Twelve depths read" : `${NAMES[tire?.position ?? ""]}, ${PLACES[at % 3]}`}
      </h2>
      <div className="mt-1 flex flex-wrap items-end gap-2">
        {!isDone && (
          <input
            className="bg-base-200 h-[52px] w-[110px] px-3 text-right text-[26px] font-semibold"
            aria-label={`Depth ${at + 1} of 12, mm`}
            inputMode="decimal"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        )}
        {isDone && (
          <>
            <Figure label="Since they were mounted" value={count} placeholder="how many" onPut={setCount} />
            <select
              className="bg-base-200 h-[30px] px-1"
              aria-label="Runs or kilometres"
              value={by}
              onChange={(event) => setBy(event.target.value as "runs" | "distance_km")}
            >
              <option value="runs">runs</option>
              <option value="distance_km">km</option>
            </select>
          </>
        )}
        <button type="submit" className="btn btn-primary h-[52px] px-5">
          {isDone ? "Log them" : "Next"}
        </button>
        <button
          type="button"
          className="plain-button"
          disabled={at === 0}
          onClick={() => setFigures(figures.slice(0, -1))}
        >
          One back
        </button>
        <span className="text-[14px]">{figures.join(" · ")}</span>
      </div>
      {fault && (
        <p role="alert" className="text-error text-[15px]">
          {fault}
        </p>
      )}
    </form>
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
    <li className="rule pt-2 text-[14px]" data-tire={tire.position}>
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
        {wear?.pattern && `. Wears ${wear.pattern}.`}
        {wear && wear.left_out.length > 0 && ` ${wear.left_out.length} readings grew and are left out.`}
      </p>
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

const PLOT = { width: 560, height: 130, left: 34, bottom: 22, top: 10 };

/** Depths over what was driven, a line for each place of the tread. */
function SeasonPlot({
  readings,
  leftOut,
  limit,
}: {
  readings: NonNullable<Tire["readings"]>;
  leftOut: number[];
  limit: number;
}) {
  const driven = readings.map((one) => one.runs ?? one.distance_km ?? 0);
  const most = Math.max(1, ...driven);
  const deepest = Math.max(...readings.flatMap((one) => [one.inner_mm, one.middle_mm, one.outer_mm]), 2);
  const x = (at: number) => PLOT.left + (at / most) * (PLOT.width - PLOT.left - 10);
  const y = (mm: number) =>
    PLOT.height - PLOT.bottom - (mm / deepest) * (PLOT.height - PLOT.bottom - PLOT.top);
  const kept = readings.flatMap((one, at) => (leftOut.includes(at) ? [] : [{ one, at: driven[at] ?? 0 }]));
  const line = (of: (one: (typeof readings)[number]) => number) =>
    kept
      .map(({ one, at }, index) => `${index === 0 ? "M" : "L"}${x(at).toFixed(1)} ${y(of(one)).toFixed(1)}`)
      .join("");
  return (
    <svg
      className="drawing mt-1 block w-full"
      viewBox={`0 0 ${PLOT.width} ${PLOT.height}`}
      role="img"
      aria-label="Depths at inner, middle and outer over what was driven"
    >
      <path d={`M${PLOT.left} ${y(limit)}H${PLOT.width - 10}`} stroke="var(--brass)" strokeDasharray="6 4" />
      <text className="note" x={PLOT.left - 4} y={y(deepest) + 8} textAnchor="end">
        {deepest.toFixed(1)}
      </text>
      <text className="note" x={PLOT.width - 10} y={PLOT.height - 3} textAnchor="end">
        {most} driven
      </text>
      <path d={line((one) => one.inner_mm)} fill="none" stroke="var(--scribe)" strokeWidth="2" />
      <path
        d={line((one) => one.middle_mm)}
        fill="none"
        stroke="var(--scribe)"
        strokeWidth="1.4"
        strokeDasharray="7 4"
      />
      <path
        d={line((one) => one.outer_mm)}
        fill="none"
        stroke="var(--scribe)"
        strokeWidth="1.4"
        strokeDasharray="2 3"
      />
      <text className="note" x={PLOT.left + 6} y={PLOT.height - 3}>
        inner solid · middle dashed · outer dotted
      </text>
    </svg>
  );
}
