import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { type Axle, answer, api, type Column, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { asLine, benchOf } from "../job/content";
import { useSheet } from "../job/JobSheet";
import { useStretches } from "../motion/useMotion";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { format, formatLength, formatSpeed, inWords, percent, type Units, useUnits } from "../shared/units";
import { CandidateNote } from "./CandidateNote";
import { Heights } from "./Heights";

/** What is fitted stands as it is: nothing is counted as done. */
const NO_WORK = { front: [], rear: [] };

/** Kept setups side by side against what is fitted. */
export function Compare() {
  const { open } = useSheet();
  const { id, content, save, job } = open;
  const { units } = useUnits();
  const query = useQuery({
    queryKey: keys.sideBySide(id, job.revision),
    queryFn: () => answer(api.GET("/api/v1/jobs/{id}/side-by-side", { params: { path: { id } } })),
    enabled: save.is !== "saving",
    placeholderData: (before) => before,
  });
  const sides = query.data;
  const shown: Omit<Columns[number], "moving">[] = sides
    ? [
        { key: "fitted", title: "Fitted", column: sides.fitted },
        ...sides.candidates.map((column) => ({
          key: column.letter ?? "",
          title: column.letter ?? "",
          column,
        })),
        ...(sides.bench ? [{ key: "bench", title: "On the bench", column: sides.bench }] : []),
      ]
    : [];
  const moving = useStretches(
    open,
    shown.map(({ key, column }) => ({
      ...column.lines,
      levers: key === "fitted" ? NO_WORK : content.candidates.find((one) => one.letter === key)?.levers,
    })),
  );
  if (!sides) {
    return (
      <main className="flex-1 p-6">
        <h1 className="sr-only">Compare: {content.car_label}</h1>
        <p role="status">
          {query.error
            ? "The program does not answer. Trying again when the window comes back."
            : "Laying them side by side…"}
        </p>
      </main>
    );
  }
  const columns: Columns = shown.map((one, at) => ({ ...one, moving: moving[at] ?? null }));
  return (
    <main className="min-h-0 flex-1 overflow-auto p-3">
      <h1 className="sr-only">Compare: {content.car_label}</h1>
      <table className="w-full border-collapse text-body">
        <thead>
          <tr>
            <td className="label-small w-[150px] text-left align-bottom">Question</td>
            {columns.map(({ key, title, column }) => (
              <th
                key={key}
                scope="col"
                className="border-base-300 border-l px-3 pb-1 text-left align-bottom font-normal"
              >
                <Heading title={title} column={column} columnKey={key} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row" className="pr-3 text-left align-top text-small font-normal">
              <span className="block font-semibold">Heights</span>
              each axle's tires on one spot of ground; chain line: what is fitted
            </th>
            <td colSpan={columns.length} className="border-base-300 border-l p-0">
              <div className="grid min-[900px]:grid-cols-2">
                {(["front", "rear"] as const).map((axle) => (
                  <Heights
                    key={axle}
                    axle={axle}
                    shown={columns.map(({ key, title, column }) => ({
                      title,
                      column,
                      isFitted: key === "fitted",
                    }))}
                  />
                ))}
              </div>
            </td>
          </tr>
          {(["front", "rear"] as const).map((axle) => (
            <AxleRows key={axle} axle={axle} columns={columns} />
          ))}
          <Row
            title="Front against rear"
            columns={columns}
            figure={(column) => standing(column, "front-to-rear", null, units)}
          />
          <TrueSpeedRow columns={columns} />
          <tr>
            <th
              scope="rowgroup"
              colSpan={columns.length + 1}
              className="label-small pt-3 text-left font-semibold"
            >
              work and price
            </th>
          </tr>
          <Row title="Counted as done" columns={columns} figure={(column) => workCell(column, units)} />
          <Row title="Price of the set" columns={columns} figure={priceCell} skipFirst />
        </tbody>
      </table>
      {sides.candidates.length === 0 && (
        <p className="mt-4 max-w-prose text-body">
          Nothing is kept yet. Put a setup on the bench and press <span className="key">k</span>: it stays
          here beside what is fitted.
        </p>
      )}
    </main>
  );
}

function Heading({ title, column, columnKey }: { title: string; column: Column; columnKey: string }) {
  const { open } = useSheet();
  const { content, edit } = open;
  const navigate = useNavigate();
  const isKept = column.letter != null;
  return (
    <div>
      <div className="flex items-baseline gap-2">
        <span className={isKept ? "text-figure leading-7 font-semibold" : "text-lead font-semibold"}>
          {title}
        </span>
        {column.arrangement && <span className="text-small">{column.arrangement}</span>}
      </div>
      {isKept && (
        <>
          <CandidateNote
            letter={columnKey}
            note={column.note}
            onChange={(note) =>
              edit({
                candidates: content.candidates.map((kept) =>
                  kept.letter === columnKey ? { ...kept, note } : kept,
                ),
              })
            }
          />
          <div className="-ml-2 flex">
            <button
              type="button"
              className="plain-button text-accent"
              onClick={() => {
                const kept = content.candidates.find((one) => one.letter === columnKey);
                if (kept) edit(benchOf(kept, content));
                navigate(`/jobs/${open.id}/bench`);
              }}
            >
              To the bench
            </button>
            <button
              type="button"
              className="plain-button"
              onClick={() =>
                edit({ candidates: content.candidates.filter((kept) => kept.letter !== columnKey) })
              }
              aria-label={`Drop ${columnKey}; undo brings it back`}
            >
              Drop
            </button>
          </div>
        </>
      )}
      {columnKey === "bench" && (
        <button type="button" className="plain-button text-accent -ml-2" onClick={open.keep}>
          Keep <span className="key">k</span>
        </button>
      )}
    </div>
  );
}

type Columns = {
  key: string;
  title: string;
  column: Column;
  /** On the road, stretch by stretch; null until it is known. */
  moving: Schemas["StretchedPlan"] | null;
}[];
type Cell = { text: string; note?: string; mark?: Column["ledger"][number]["standing"] } | null;

function AxleRows({ axle, columns }: { axle: Axle; columns: Columns }) {
  const { units } = useUnits();
  const verdict = useVerdicts();
  const length = (mm: number | null | undefined, signed = false) =>
    mm == null ? null : { text: inWords(formatLength(mm, units, signed)) };
  return (
    <>
      <tr>
        <th
          scope="rowgroup"
          colSpan={columns.length + 1}
          className="label-small pt-3 text-left font-semibold"
        >
          {axle}
        </th>
      </tr>
      <Row title="Wheel" columns={columns} figure={({ setups }) => wheelCell(setups[axle])} />
      <Row
        title="Wheel from"
        columns={columns}
        figure={({ wheels }) => partCell(wheels[axle])}
        skipFirst
        onlyIfAny
      />
      <Row
        title="Tire from"
        columns={columns}
        figure={({ tires }) => partCell(tires[axle])}
        skipFirst
        onlyIfAny
      />
      <Row
        title="Tire"
        columns={columns}
        figure={({ setups }) => (setups[axle]?.tire ? { text: setups[axle]?.tire ?? "" } : null)}
      />
      <Row
        title="Overall diameter"
        columns={columns}
        figure={(column) => withChange(column, axle, (mm) => length(mm)?.text ?? "")}
      />
      <Row
        title="Outward"
        columns={columns}
        figure={({ change }) => length(change[axle]?.outer_change_mm, true)}
        skipFirst
      />
      <Row
        title="Inward"
        columns={columns}
        figure={({ change }) => length(change[axle]?.inner_change_mm, true)}
        skipFirst
      />
      <Row
        title="Arch gap"
        columns={columns}
        figure={({ change }) => length(change[axle]?.arch_gap_change_mm, true)}
        skipFirst
      />
      <Row title="Least room" columns={columns} figure={({ fit }) => leastRoom(fit[axle], units, verdict)} />
      {MOVING.map((stretch) => (
        <Row
          key={stretch.code}
          title={stretch.title}
          columns={columns}
          figure={(_, moving) => worstOf(moving?.[axle], stretch.code, units, verdict)}
        />
      ))}
      <Row title="Brake" columns={columns} figure={(column) => brakeCell(column, axle)} />
      <Row
        title="At the fender line"
        columns={columns}
        figure={({ fit }) => (fit[axle]?.style ? { text: fit[axle]?.style ?? "" } : null)}
      />
      <Row
        title="Tire on its rim"
        columns={columns}
        figure={(column) => standing(column, "tire-on-rim", axle, null)}
      />
      <Row
        title="Load index"
        columns={columns}
        figure={(column) => standing(column, "load-index", axle, units)}
      />
    </>
  );
}

/** Caliper to barrel and to spokes: every word that the ledger has of them. */
function brakeCell(column: Column, axle: Axle): Cell {
  const lines = column.ledger.filter((one) => one.code.startsWith("clear-caliper") && one.axle === axle);
  const open = lines.find((one) => one.standing !== "good");
  if (lines.length === 0) return null;
  const words = lines.map((one) => `${one.title.toLowerCase()}: ${one.word}`);
  return { text: words.join("; "), mark: open?.standing };
}

/** What a plan counts as done to the car; every figure of its column hangs on it. */
function workCell({ work }: Column, units: Units): Cell {
  if (work.length === 0) return null;
  const each = work.map(
    ({ axle, title, amount, in_degrees }) =>
      `${axle} ${title.toLowerCase()} ${in_degrees ? `${amount}°` : inWords(formatLength(amount, units))}`,
  );
  return { text: each.join(", "), mark: "mind" };
}

const priceCell = ({ price }: Column): Cell =>
  price == null ? null : { text: `${price.is_whole ? "" : "at least "}${price.amount.toFixed(2)}` };

/** The very part that was picked: its line, finish or kind, and how many are listed. */
function partCell(part: Column["wheels"]["front"]): Cell {
  if (!part) return null;
  const stock = part.stock == null ? "" : `, ${part.stock} listed`;
  return { text: part.line, note: `${part.detail}${stock}` };
}

/** The part with least to spare, and the axle's verdict. */
function leastRoom(fit: Column["fit"]["front"], units: Units, verdict: ReturnType<typeof useVerdicts>): Cell {
  if (!fit) return null;
  const { standing: mark, word: note } = verdict(fit.verdict);
  const { tightest } = fit;
  if (tightest?.nominal_mm == null) return { text: note, mark };
  return { text: `${tightest.name} ${inWords(formatLength(tightest.nominal_mm, units))}`, note, mark };
}

/** Rows of a plan in motion on the road; how it stands is the row before them. */
const MOVING = [
  { code: "at_lock", title: "At lock" },
  { code: "over_bumps", title: "Over bumps" },
  { code: "together", title: "Lock and bump together" },
];

/** The tightest part of a stretch. */
function worstOf(
  axle: Schemas["StretchedAxle"] | null | undefined,
  code: string,
  units: Units,
  verdict: ReturnType<typeof useVerdicts>,
): Cell {
  const worst = axle?.worst.find((one) => one.code === code);
  if (!worst) return null;
  const { standing: mark, word: note } = verdict(worst.verdict);
  return { text: `${worst.part} ${inWords(formatLength(worst.room_mm, units))}`, note, mark };
}

function wheelCell(setup: Column["setups"]["front"]): Cell {
  if (!setup?.wheel) return null;
  const offset = setup.offset_mm == null ? "offset not stated" : `ET ${setup.offset_mm}`;
  const spacer = setup.spacer_mm ? `, ${setup.spacer_mm} mm spacer` : "";
  return { text: `${setup.wheel} ${offset}${spacer}` };
}

function withChange(column: Column, axle: Axle, length: (mm: number) => string): Cell {
  const diameter = column.setups[axle]?.overall_diameter_mm;
  if (diameter == null) return null;
  const line = column.ledger.find((one) => one.code === "overall-diameter" && one.axle === axle);
  const pct = column.change[axle]?.overall_diameter_change_pct;
  const note = pct ? `${percent(pct)}, ${line?.word ?? ""}` : undefined;
  return { text: length(diameter), note, mark: pct ? line?.standing : undefined };
}

/** A line of the ledger: its figure where units are given and it has one, else its word. */
function standing(column: Column, code: string, axle: Axle | null, units: Units | null): Cell {
  const line = column.ledger.find((one) => one.code === code && (one.axle ?? null) === axle);
  if (!line) return null;
  const text = line.figure && units ? inWords(format(line.figure, units)) : line.word;
  return { text, note: text === line.word ? undefined : line.word, mark: line.standing };
}

/** The middle one of the speeds on the signs, in the reader's units. */
function TrueSpeedRow({ columns }: { columns: Columns }) {
  const { units } = useUnits();
  const at = ({ true_speeds }: Column) =>
    units.speed === "km/h" ? true_speeds?.metric[1] : true_speeds?.imperial[1];
  const shown = columns.map(({ column }) => at(column)).find((speed) => speed != null)?.shown_kmh;
  if (shown == null) return null;
  return (
    <Row
      title={`True at ${inWords(formatSpeed(shown, units))} shown`}
      columns={columns}
      figure={(column) => {
        const speed = at(column);
        const line = column.ledger.find((one) => one.code === "speedometer");
        return speed && line
          ? { text: inWords(formatSpeed(speed.true_kmh, units)), note: line.word, mark: line.standing }
          : null;
      }}
    />
  );
}

function Row({
  title,
  columns,
  figure,
  skipFirst,
  onlyIfAny,
}: {
  title: string;
  columns: Columns;
  figure: (column: Column, moving: Columns[number]["moving"]) => Cell;
  skipFirst?: boolean;
  /** Left out where no column has anything to say. */
  onlyIfAny?: boolean;
}) {
  if (onlyIfAny && columns.every(({ column, moving }) => figure(column, moving) == null)) return null;
  return (
    <tr className="rule">
      <th scope="row" className="py-0.5 pr-3 text-left font-normal">
        {title}
      </th>
      {columns.map(({ key, column, moving }, at) => {
        const cell = skipFirst && at === 0 ? null : figure(column, moving);
        return (
          <td
            key={key}
            className="border-base-300 border-l px-3 py-0.5"
            title={title === "Wheel" ? asLine(column.lines) : undefined}
          >
            {cell ? (
              <span className="flex items-center gap-1.5">
                {cell.mark && cell.mark !== "good" && <Mark standing={cell.mark} size={14} />}
                <span className="font-medium">{cell.text}</span>
                {cell.note && <span className="text-small opacity-85">{cell.note}</span>}
              </span>
            ) : (
              <span className="opacity-70">–</span>
            )}
          </td>
        );
      })}
    </tr>
  );
}
