import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type RefObject, useEffect, useRef, useState } from "react";
import { Away, answer, api, matching, Refused, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useSheet } from "../job/JobSheet";
import { signedBy } from "../job/unsaved";
import { Caution } from "../shared/Caution";
import { Mark } from "../shared/Mark";
import { formatLength, inWords, percent, useUnits } from "../shared/units";

type Module = Schemas["ModuleView"];
type Telling = Schemas["TellingView"];
type Asked = { what: "proposed" | "restore"; telling: Telling; vehicle: string };

const MARKS: Record<string, "good" | "mind" | "stop" | "unknown"> = {
  confirmed: "good",
  unchanged: "mind",
  refused: "mind",
  differs: "stop",
  beside: "stop",
};

/** The module of the car in the bay: read, told what the plan comes to after a yes, read back, put back. */
export function CarModule({ onBelieved }: { onBelieved: (mm: number) => void }) {
  const { open } = useSheet();
  const client = useQueryClient();
  const key = keys.module(open.id);
  const path = { params: { path: { id: open.id } } };
  const log = useQuery({ queryKey: key, queryFn: () => answer(api.GET("/api/v1/jobs/{id}/module", path)) });
  const [asked, setAsked] = useState<Asked | null>(null);
  const came = (view: Module) => {
    setAsked(null);
    client.setQueryData(key, view);
    if (view.state?.believed_diameter_mm != null) onBelieved(view.state.believed_diameter_mm);
  };
  const read = useMutation({
    // What is still on its way decides what the plan asks for.
    mutationFn: async () => {
      if (!(await open.flush())) throw new Error("What was typed last is not kept yet: see above.");
      return answer(api.POST("/api/v1/jobs/{id}/module/read", path));
    },
    onSuccess: came,
  });
  const tell = useMutation({
    mutationFn: ({ what, telling, vehicle }: Asked) =>
      answer(
        api.POST("/api/v1/jobs/{id}/module/tell", {
          ...path,
          headers: matching(open.job),
          body: {
            vehicle,
            was_mm: telling.was_mm,
            to_mm: telling.to_mm,
            restore: what === "restore",
            signed_by: signedBy(),
          },
        }),
      ),
    onSuccess: came,
    onError: () => setAsked(null),
  });
  const no = useRef<HTMLButtonElement>(null);
  // Whoever asked by keyboard says yes on purpose, not by the same key again.
  useEffect(() => {
    if (asked) no.current?.focus();
  }, [asked]);
  const view = log.data;
  const error = tell.error ?? read.error;
  const isBusy = read.isPending || tell.isPending;
  if (!view || (!view.is_there && view.log.length === 0)) {
    return view ? (
      <section aria-label="Car module">
        <h2 className="label-small font-semibold">The car's module</h2>
        <p className="text-body">
          None is plugged in. A bridge to it is named when the program is started (--module).
        </p>
      </section>
    ) : null;
  }
  const { state, told } = view;
  return (
    <section aria-label="Car module" className="max-w-[1000px]">
      <h2 className="label-small font-semibold">The car's module</h2>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <button
          type="button"
          className="btn btn-sm"
          data-does="read"
          disabled={!view.is_there || isBusy}
          onClick={() => {
            tell.reset();
            read.mutate();
          }}
        >
          {isBusy ? "waiting for it" : "Read the module"}
        </button>
        {state && <Holds state={state} />}
        {state && (
          <div className="flex flex-wrap gap-x-8 gap-y-2">
            {view.proposed ? (
              <Offer
                title="For the planned tire"
                done="It holds what the planned tire asks for."
                does="proposed"
                verb="Tell it"
                telling={view.proposed}
                isBusy={isBusy}
                onAsk={(telling) => setAsked({ what: "proposed", telling, vehicle: state.vehicle })}
              />
            ) : (
              <p className="text-body">State the fitted and the planned tire: it is told by their ratio.</p>
            )}
            {view.restore && (
              <Offer
                title="What it held before"
                done=""
                does="restore"
                verb="Restore"
                telling={view.restore}
                isBusy={isBusy}
                onAsk={(telling) => tell.mutate({ what: "restore", telling, vehicle: state.vehicle })}
              />
            )}
          </div>
        )}
      </div>
      {asked && (
        <AskFirst
          asked={asked}
          isBusy={isBusy}
          no={no}
          onYes={() => tell.mutate(asked)}
          onNo={() => setAsked(null)}
        />
      )}
      <div role="status">
        {view.why_not && <p className="mt-1 text-body">{view.why_not}.</p>}
        {told && <Came one={told} />}
        {error && (
          <p className="text-error mt-1 text-body">
            {error instanceof Refused
              ? error.problem.errors.map((one) => one.detail).join("; ") || error.message
              : error instanceof Away
                ? "The program does not answer: read the module before the car is driven."
                : error.message}
          </p>
        )}
      </div>
      <Caution className="mt-2 max-w-[800px]">{view.caution}</Caution>
      {view.log.length > 0 && <WhatItWasTold log={view.log} />}
    </section>
  );
}

/** What it holds, in one row. */
function Holds({ state }: { state: Schemas["ModuleStateView"] }) {
  const { units } = useUnits();
  const believed = state.believed_diameter_mm;
  const columns = [
    ["car", state.vehicle],
    ["counts by", `${state.stored_mm} mm`],
    ["factory's tire", `${state.factory_mm} mm`],
    ["so it believes a height of", believed == null ? "not known" : inWords(formatLength(believed, units))],
    ["axle ratio", state.axle_ratio.toFixed(2)],
    ["engine", state.engine_runs ? "runs" : "off"],
    ["battery", `${state.battery_v.toFixed(1)} V`],
  ];
  return (
    <table className="text-body" data-module>
      <thead>
        <tr className="text-left text-note">
          {columns.map(([name]) => (
            <th key={name} scope="col" className="pr-5 font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <tr className="rule">
          {columns.map(([name, value]) => (
            <td key={name} className="pr-5 whitespace-nowrap">
              {value}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

function Came({ one }: { one: Schemas["ModuleLogView"] }) {
  return (
    <span className="flex items-start gap-1" data-outcome={one.outcome}>
      <Mark standing={MARKS[one.outcome] ?? "unknown"} size={14} />
      {one.says}
    </span>
  );
}

/** One thing that it could be told, with what stands against it. */
function Offer({
  title,
  done,
  does,
  verb,
  telling,
  isBusy,
  onAsk,
}: {
  title: string;
  done: string;
  does: Asked["what"];
  verb: string;
  telling: Telling;
  isBusy: boolean;
  onAsk: (telling: Telling) => void;
}) {
  if (telling.to_mm === telling.was_mm) return <p className="text-body">{done}</p>;
  return (
    <div className="text-body">
      <span className="label-small block">{title}</span>
      <p>
        {telling.was_mm} to <b>{telling.to_mm} mm</b>, {percent(telling.change_pct)};{" "}
        {percent(telling.from_factory_pct)} from the factory's
      </p>
      {telling.blocked.map((says) => (
        <p key={says} className="flex items-start gap-1">
          <Mark standing="stop" size={14} />
          {says}
        </p>
      ))}
      <button
        type="button"
        className="btn btn-sm mt-1"
        data-does={does}
        disabled={isBusy || telling.blocked.length > 0}
        onClick={() => onAsk(telling)}
      >
        {verb} {telling.to_mm} mm
      </button>
    </div>
  );
}

type AskFirstProps = {
  asked: Asked;
  isBusy: boolean;
  no: RefObject<HTMLButtonElement | null>;
  onYes: () => void;
  onNo: () => void;
};

/** Asked before the module is told anything. */
function AskFirst({ asked, isBusy, no, onYes, onNo }: AskFirstProps) {
  return (
    <div
      role="alertdialog"
      aria-label="Tell the module"
      className="border-accent mt-2 border-2 p-3"
      onKeyDown={(event) => event.key === "Escape" && onNo()}
    >
      <p className="text-lead">
        {asked.vehicle}: <b>{asked.telling.was_mm} mm</b> becomes <b>{asked.telling.to_mm} mm</b>.
      </p>
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="btn btn-sm btn-primary"
          data-does="yes"
          disabled={isBusy}
          onClick={onYes}
        >
          Yes, tell it {asked.telling.to_mm} mm
        </button>
        <button type="button" ref={no} className="btn btn-sm" onClick={onNo}>
          No
        </button>
      </div>
    </div>
  );
}

/** What the module was told for this job. */
function WhatItWasTold({ log }: { log: Schemas["ModuleLogView"][] }) {
  return (
    <table className="mt-2 text-small" data-module-log>
      <caption className="label-small text-left">What it was told for this job</caption>
      <tbody>
        {log.map((one) => (
          <tr key={one.at} className="rule align-top">
            <td className="pr-4 whitespace-nowrap">{new Date(one.at).toLocaleString()}</td>
            <td className="pr-4">{one.who || "nobody signed"}</td>
            <td className="pr-4 whitespace-nowrap">{one.vehicle}</td>
            <td className="pr-4 whitespace-nowrap">
              {one.is_restore ? "restored " : ""}
              {one.was_mm} to {one.told_mm} mm
            </td>
            <td>
              <Came one={one} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
