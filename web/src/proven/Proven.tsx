import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, matching, Refused, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { keyed, upload } from "../api/upload";
import type { OpenJob } from "../job/useJob";
import { Caution } from "../shared/Caution";
import { FileButton } from "../shared/FileButton";
import { Mark } from "../shared/Mark";
import { useRegistry } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";
import { useDeed } from "../shared/useDeed";
import { useProven } from "./useProven";

type Fit = Schemas["ProvenView"];

/** Fits of finished jobs, ours and other shops': what went on which car, and how it did. */
export function Proven({ open }: { open: OpenJob }) {
  const [find, setFind] = useState("");
  const { data: library } = useProven(open.id, open.job.revision, find);
  const registry = useRegistry();
  const queries = useQueryClient();
  const { run, says } = useDeed();
  const words = (code: string | undefined) =>
    registry?.rubs.find((one) => one.code === code)?.name ?? "rub not noted";
  const take = (work: () => Promise<Schemas["ProvenBrought"]>) =>
    run(async () => {
      const brought = await work();
      await queries.invalidateQueries({ queryKey: keys.allProven() });
      const faults = brought.faults.map((one) => `row ${one.row}: ${one.says}`);
      return [`${brought.new} new, ${brought.known} there already`, ...faults.slice(0, 5)].join("; ");
    });
  const bring = (file: File) => {
    const query = new URLSearchParams({ file_name: file.name });
    take(() => upload<Schemas["ProvenBrought"]>(`/api/v1/proven?${query}`, file));
  };
  const remove = (call: () => Promise<{ data?: unknown; error?: unknown }>) =>
    run(async () => {
      await answer(call());
      await queries.invalidateQueries({ queryKey: keys.allProven() });
    });
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto min-[1000px]:flex-row">
      <section className="min-w-0 flex-1 px-4 py-2 min-[1000px]:overflow-y-auto" aria-label="Proven fits">
        <div className="flex flex-wrap items-center gap-3 text-body">
          <input
            type="search"
            className="input input-sm w-[240px] text-body"
            aria-label="Find in the proven fits"
            placeholder="model, size, rub"
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
          <span data-proven-total={library?.total}>{library ? `${library.total} fits` : ""}</span>
          <span className="ml-auto flex items-center gap-1 text-small">
            <FileButton text="Bring" label="File of proven fits" accept=".csv,.json,.xlsx" onFile={bring} />
            take along as
            {["csv", "json"].map((format) => (
              <a
                key={format}
                className="plain-button"
                href={`/api/v1/proven/export?format=${format}`}
                download
              >
                {format.toUpperCase()}
              </a>
            ))}
          </span>
        </div>
        {says && (
          <p role="status" className="text-small" data-proven-says>
            {says}
          </p>
        )}
        {library?.damaged.map((one) => (
          <Caution grave key={one.id} role="alert" className="mt-1">
            Fit {one.id} is damaged and counts for nothing ({one.why}).{" "}
            <button
              type="button"
              className="plain-button underline"
              onClick={() =>
                remove(() => api.DELETE("/api/v1/proven/{id}", { params: { path: { id: one.id } } }))
              }
            >
              Take it out
            </button>
          </Caution>
        ))}
        {library?.fits.length === 0 && <p className="mt-2 text-body">No fit has all of these words.</p>}
        <ul>
          {library?.fits.slice(0, 60).map((fit) => (
            <FitRow key={fit.id} fit={fit} words={words} />
          ))}
        </ul>
      </section>
      <aside className="border-base-300 shrink-0 px-3 py-2 text-body min-[1000px]:w-[400px] min-[1000px]:overflow-y-auto min-[1000px]:border-l">
        <Envelopes library={library} />
        <Imports
          imports={library?.imports ?? []}
          onRemove={(id) =>
            remove(() => api.DELETE("/api/v1/proven/imports/{id}", { params: { path: { id } } }))
          }
        />
        <FromJob open={open} onDone={take} />
        {library && <Caution className="mt-2">{library.caution}</Caution>}
      </aside>
    </div>
  );
}

function FitRow({ fit, words }: { fit: Fit; words: (code: string | undefined) => string }) {
  const { units } = useUnits();
  const registry = useRegistry();
  const { record } = fit;
  return (
    <li className="rule py-1 text-small" data-proven={fit.id}>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <strong className="text-body">{record.model}</strong>
        <span>
          {[record.body, record.generation, record.brakes, record.drive].filter(Boolean).join(" · ")}
        </span>
        <span className="ml-auto opacity-85">
          {[record.shop, record.year].filter(Boolean).join(" ")}
          {fit.likeness > 0 && " · this model"}
        </span>
      </p>
      {(["front", "rear"] as const).map((axle) => {
        const rub = record[`rub_${axle}`];
        const far = fit.distance[axle];
        return (
          record[axle] && (
            <p key={axle} className="flex items-center gap-2">
              <span className="w-[36px] opacity-85">{axle}</span>
              <span className="min-w-0 flex-1">{record[axle]}</span>
              {far && (
                <span title={far.working.map((step) => step.formula).join("; ")}>
                  {inWords(formatLength(far.mm, units))} away
                </span>
              )}
              <span>
                {[
                  record[`fender_${axle}`],
                  record[`camber_${axle}_deg`] && `${record[`camber_${axle}_deg`]}°`,
                ]
                  .filter(Boolean)
                  .join(", ")}
              </span>
              <span className="flex w-[130px] items-center gap-1">
                <Mark
                  standing={registry?.rubs.find((one) => one.code === rub)?.standing ?? "unknown"}
                  size={12}
                />
                {words(rub)}
              </span>
            </p>
          )
        );
      })}
      {record.view && <p className="opacity-85">“{record.view}”</p>}
    </li>
  );
}

/** The most that is proven on this model, by what was done to the fender. */
function Envelopes({ library }: { library: Schemas["ProvenLibrary"] | undefined }) {
  const { units } = useUnits();
  if (!library) return null;
  const all = [...library.envelopes.front, ...library.envelopes.rear];
  return (
    <section aria-label="Envelope">
      <h2 className="label-small font-semibold">The most that did not rub on this model</h2>
      {all.length === 0 && <p className="text-small">No fit of this model is in the library yet.</p>}
      {(["front", "rear"] as const).map((axle) => (
        <div key={axle} data-envelope={axle}>
          {library.envelopes[axle].map((one) => (
            <p key={one.fender} className="rule py-1 text-small">
              <strong>{axle}</strong>, fender {one.fender}: {inWords(formatLength(one.outer_mm, units))} out
              from the hub, <span className="whitespace-nowrap">{one.furthest_out}</span>. {one.cars}{" "}
              {one.cars === 1 ? "car" : "cars"} without rub, {one.rubbed} rubbed.
            </p>
          ))}
        </div>
      ))}
      <p className="text-note opacity-85">Nearness and envelope: {library.source.cite}.</p>
    </section>
  );
}

type ImportsProps = {
  imports: Schemas["ImportView"][];
  onRemove: (id: number) => void;
};

/** Files of fits that were brought: what one of them brought goes out again as one. */
function Imports({ imports, onRemove }: ImportsProps) {
  const [asked, setAsked] = useState<number | null>(null);
  if (imports.length === 0) return null;
  return (
    <section aria-label="Files that were brought" className="rule mt-3 pt-1">
      <h2 className="label-small font-semibold">Files that were brought</h2>
      {imports.map((one) => (
        <p key={one.id} className="flex items-center gap-2 text-small" data-import={one.id}>
          <span className="min-w-0 flex-1 truncate">
            {one.name || "without a name"}, {one.brought_at.slice(0, 10)}: {one.fits}{" "}
            {one.fits === 1 ? "fit" : "fits"}
          </span>
          {asked === one.id ? (
            <>
              <button
                type="button"
                className="plain-button text-error"
                onClick={() => {
                  setAsked(null);
                  onRemove(one.id);
                }}
              >
                Take {one.fits} out for good
              </button>
              <button type="button" className="plain-button" onClick={() => setAsked(null)}>
                Keep
              </button>
            </>
          ) : (
            <button type="button" className="plain-button" onClick={() => setAsked(one.id)}>
              Take out…
            </button>
          )}
        </p>
      ))}
    </section>
  );
}

type FromJobProps = {
  open: OpenJob;
  onDone: (work: () => Promise<Schemas["ProvenBrought"]>) => void;
};

/** This job's plan becomes a proven fit: how it rubs, and what the owner says. */
function FromJob({ open, onDone }: FromJobProps) {
  const registry = useRegistry();
  const [rubs, setRubs] = useState({ front: "none", rear: "none" });
  const [view, setView] = useState("");
  const [uses, setUses] = useState("");
  /** What a trial says against it, until it is answered. */
  const [against, setAgainst] = useState("");
  const keep = (in_spite: boolean) =>
    onDone(async () => {
      setAgainst("");
      try {
        return await answer(
          api.POST("/api/v1/jobs/{id}/proven", {
            params: { path: { id: open.id }, header: keyed() },
            headers: matching(open.job),
            body: { rub_front: rubs.front, rub_rear: rubs.rear, view, uses, in_spite },
          }),
        );
      } catch (error) {
        const said = error instanceof Refused ? error.problem.errors : [];
        if (said.some((one) => one.pointer.startsWith("/rub_"))) {
          setAgainst(said.map((one) => one.detail).join("; "));
        }
        throw error;
      }
    });
  return (
    <form
      className="rule mt-3 flex flex-col gap-1 pt-1"
      aria-label="This job as a proven fit"
      onSubmit={(event) => {
        event.preventDefault();
        void keep(false);
      }}
    >
      <h2 className="label-small font-semibold">This job is finished: what is on the bench is proven</h2>
      {(["front", "rear"] as const).map((axle) => (
        <label key={axle} className="flex items-center gap-2">
          <span className="w-[40px]">{axle}</span>
          <select
            className="bg-base-200 h-[30px] flex-1 px-1"
            aria-label={`How the ${axle} rubs`}
            value={rubs[axle]}
            onChange={(event) => setRubs({ ...rubs, [axle]: event.target.value })}
          >
            {registry?.rubs.map((one) => (
              <option key={one.code} value={one.code}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      ))}
      <input
        className="bg-base-200 h-[30px] px-2"
        aria-label="What it is used for"
        placeholder="what it is used for"
        value={uses}
        maxLength={400}
        onChange={(event) => setUses(event.target.value)}
      />
      <input
        className="bg-base-200 h-[30px] px-2"
        aria-label="What the owner says"
        placeholder="what the owner says"
        value={view}
        maxLength={400}
        onChange={(event) => setView(event.target.value)}
      />
      <button type="submit" className="btn btn-primary btn-sm">
        Keep as a proven fit
      </button>
      {against && (
        <Caution role="alert" data-against>
          {against}.{" "}
          <button type="button" className="btn btn-sm" onClick={() => void keep(true)}>
            Keep it in spite of the trial
          </button>
        </Caution>
      )}
    </form>
  );
}
