import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Job, type JobSummary } from "../api/client";
import { fileId } from "../api/file";
import { keys } from "../api/keys";
import { InlineFault } from "../shared/Caution";
import { kept, useKept } from "../shared/kept";
import { useDeed } from "../shared/useDeed";
import { contentOf } from "./content";
import {
  allKept,
  asText,
  differences,
  forget,
  type KeptReadings,
  type Leftover,
  onTopOf,
  READINGS,
  readingIn,
} from "./setAside";
import { calledOf, keepUnsaved, readUnsaved } from "./unsaved";
import type { OpenJob } from "./useJob";

/**
 * What the browser still has that is for no job, or no revision, of this file: what it was, for which car, when; and what can be
 * done with it.
 */
export function SetAside({ open }: { open?: OpenJob }) {
  useKept();
  const { aside, waiting } = allKept();
  const tags = waiting.map(({ work }) => work.tag);
  const { data: standing } = useQuery({
    queryKey: keys.standing(tags),
    queryFn: () => answer(api.POST("/api/v1/jobs/standing", { body: tags })),
    enabled: tags.length > 0,
  });
  const foreign = waiting.filter(({ work }, at) => {
    if (work.tag.uid === fileId()) return false;
    const one = standing?.[at];
    // While nobody knows, nothing is said. Work for a job that is here goes when its sheet is open.
    return one !== undefined && one.job === null;
  });
  const all = [...aside, ...foreign];
  if (all.length === 0) return null;
  const list = (
    <ul>
      {all.map((one) => (
        <Leftovers key={one.name} one={one} open={open} />
      ))}
    </ul>
  );
  const words = "Typed for another file, or before a backup was put back: not applied here";
  if (!open) {
    return (
      <section
        aria-label={words}
        className="border-error border-b-2 px-4 py-2 text-body"
        data-set-aside={all.length}
      >
        <h2 className="font-semibold">{words}</h2>
        {list}
      </section>
    );
  }
  // On a sheet the drawing keeps its room: one line, and the rest over it when it is asked for.
  return (
    <details className="border-error relative border-b-2 px-4 py-1 text-body" data-set-aside={all.length}>
      <summary className="cursor-pointer">
        <strong>{words}</strong> ({all.length})
      </summary>
      <div className="bg-base-100 border-error absolute inset-x-0 top-full z-30 max-h-[60dvh] overflow-auto border-b-2 px-4 pb-2">
        {list}
      </div>
    </details>
  );
}

const when = (at: string) =>
  at
    ? `, typed ${new Date(at).toLocaleString([], { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" })}`
    : "";

function Leftovers({ one, open }: { one: Leftover; open?: OpenJob }) {
  const [chooses, choose] = useState(false);
  const [isSure, setSure] = useState(false);
  const { work } = one;
  const text = asText(one);
  const name = work.what === "draft" ? "typed.txt" : `typed-for-${work.called.number}.txt`;
  const canGoElsewhere = work.what !== "draft";
  return (
    <li className="rule py-1.5">
      <p className="font-medium">
        {work.what === "draft" ? work.title : `Job ${work.called.number}, ${work.called.car}${when(work.at)}`}
      </p>
      {work.what === "change" && (
        <ul className="text-small">
          {differences(work.base, work.content).map(({ title, before, after }) => (
            <li key={title} className="truncate" title={`${before} → ${after}`}>
              {title}: {before} → <strong>{after}</strong>
            </li>
          ))}
        </ul>
      )}
      {work.what === "readings" && (
        <ul className="text-small">
          {work.readings.map((reading) => (
            <li key={reading.id}>{readingIn(reading)}</li>
          ))}
        </ul>
      )}
      {work.what === "draft" && <p className="truncate text-small">{work.text}</p>}
      <p className="mt-1 flex flex-wrap items-center gap-2">
        {canGoElsewhere && (
          <button
            type="button"
            className="btn btn-sm"
            aria-pressed={chooses}
            onClick={() => choose(!chooses)}
          >
            Take over into a job…
          </button>
        )}
        <a
          className="btn btn-sm"
          download={name}
          href={`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`}
        >
          Keep as text
        </a>
        {isSure ? (
          <>
            <button type="button" className="btn btn-sm text-error" onClick={() => forget(one.name)}>
              Drop it for good
            </button>
            <button type="button" className="plain-button" onClick={() => setSure(false)}>
              Keep it
            </button>
          </>
        ) : (
          <button type="button" className="btn btn-sm" onClick={() => setSure(true)}>
            Drop…
          </button>
        )}
      </p>
      {chooses && <ChooseJob one={one} open={open} onDone={() => choose(false)} />}
    </li>
  );
}

/** Which job it is taken over into. */
function ChooseJob({ one, open, onDone }: { one: Leftover; open?: OpenJob; onDone: () => void }) {
  const [find, setFind] = useState("");
  const navigate = useNavigate();
  const { data: jobs } = useQuery({
    queryKey: keys.jobsToTakeInto(find),
    queryFn: () => answer(api.GET("/api/v1/jobs", { params: { query: { find, most: 8 } } })),
    placeholderData: (before) => before,
  });
  const { run, says } = useDeed("the job");
  const take = (summary: JobSummary) =>
    run(async () => {
      const job = await answer(api.GET("/api/v1/jobs/{id}", { params: { path: { id: summary.id } } }));
      const refused = open?.job.uid === job.uid ? takenInto(one, open) : takenOver(one, job);
      if (refused) return refused;
      onDone();
      navigate(`/jobs/${job.id}/bench`);
      return undefined;
    });
  return (
    <div className="mt-1">
      <input
        type="search"
        className="input input-sm w-[260px]"
        aria-label="Find the job"
        placeholder="number, car, wish or size"
        value={find}
        onChange={(event) => setFind(event.target.value)}
      />
      <ul className="mt-1">
        {jobs?.map((job) => (
          <li key={job.uid}>
            <button type="button" className="plain-button" onClick={() => take(job)}>
              {job.number} · {job.car_label}
            </button>
          </li>
        ))}
      </ul>
      {says && <InlineFault className="block">{says}</InlineFault>}
    </div>
  );
}

/** Puts it on top of the job whose sheet is open. */
function takenInto({ name, work }: Leftover, open: OpenJob): string {
  if (work.what === "readings") for (const reading of work.readings) open.readings.take(reading);
  if (work.what === "change") open.edit(onTopOf(work, open.content));
  forget(name);
  return "";
}

/** Puts it on top of a job's present content, or to its readings, to be sent when its sheet opens; why not, in words. */
function takenOver({ name, work }: Leftover, job: Job): string {
  const tag = { uid: job.uid, token: job.token };
  if (work.what === "readings") {
    const there = kept.read<KeptReadings>(READINGS + job.uid)?.queue ?? [];
    const queue = [...there, ...work.readings.map((reading) => ({ ...reading, tag, refused: undefined }))];
    kept.write(READINGS + job.uid, { called: calledOf(job), queue } satisfies KeptReadings);
  } else if (work.what === "change") {
    if (readUnsaved(job.uid)) return "That job has work of its own that is not sent yet: open it first.";
    const base = contentOf(job);
    const { basedOn, called, at } = {
      basedOn: job.revision,
      called: calledOf(job),
      at: new Date().toISOString(),
    };
    keepUnsaved({ tag, basedOn, called, at, base, content: onTopOf(work, base) });
  }
  forget(name);
  return "";
}
