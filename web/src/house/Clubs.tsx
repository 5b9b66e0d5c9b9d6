import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { api, ofState, type Problem, Refused, type Schemas, withState } from "../api/client";
import { useFileId } from "../api/file";
import { keys } from "../api/keys";
import { signedBy } from "../job/unsaved";
import { useRegistry } from "../shared/registry";
import { useDeed } from "../shared/useDeed";
import { useDraft } from "../shared/useDraft";
import { ClubFiles, keyOf } from "./ClubFiles";
import { RulesForm } from "./RulesForm";

export type Rules = Schemas["ClubView"];
type Kept = Schemas["KeptClubView"];
/** What is being written; of a file that was there, where it stood. */
type Draft = { rules: Rules; of: { club: string; from: string } | null };

const readClubs = () => withState(api.GET("/api/v1/clubs"));

const NEW: Rules = { club: "", from: "", classes: [{ name: "", clauses: [] }] };
const plain = ({ club, from, classes }: Rules): Rules => ({ club, from, classes });

/** Clubs' rule files: dated, written as a form, brought and handed on as JSON. */
export function Clubs() {
  const registry = useRegistry();
  const queries = useQueryClient();
  const clubs = useQuery({ queryKey: keys.clubs(), queryFn: readClubs });
  const [draft, setDraft] = useDraft<Draft | null>(useFileId(), "house.club", null);
  const { run, says, say: setSays } = useDeed("Save", (error) => (error as Error).message);
  const [errors, setErrors] = useState<Problem["errors"]>([]);
  /** How to take the last step back. */
  const [back, setBack] = useState<{ put: Rules | null; remove: Rules | null } | null>(null);
  useEffect(() => {
    document.title = "Clubs' rules · Dimensione";
  }, []);
  const all = clubs.data?.of ?? [];
  const put = (rules: Rules) =>
    withState(
      api.PUT("/api/v1/clubs", {
        params: { query: { signed_by: signedBy() } },
        headers: ofState(clubs.data?.state),
        body: plain(rules),
      }),
    );
  const remove = ({ club, from }: Rules) =>
    withState(
      api.DELETE("/api/v1/clubs", { params: { query: { club, from } }, headers: ofState(clubs.data?.state) }),
    );
  const attempt = (work: () => Promise<unknown>) => {
    setErrors([]);
    run(async () => {
      try {
        const said = await work();
        await queries.invalidateQueries({ queryKey: keys.allRoad() });
        return said;
      } catch (error) {
        if (error instanceof Refused) setErrors(error.problem.errors);
        // Changed meanwhile: what is there now is shown, and what was written stays.
        if (error instanceof Refused && error.problem.status === 412)
          await queries.invalidateQueries({ queryKey: keys.clubs() });
        throw error;
      }
    });
  };
  const save = () =>
    attempt(async () => {
      if (!draft) return undefined;
      const list = await put(draft.rules);
      const key = keyOf({ club: draft.rules.club.trim(), from: draft.rules.from.trim() });
      const before = all.find((one) => keyOf(one) === key);
      queries.setQueryData(keys.clubs(), list);
      setDraft(null);
      setBack(before && !before.ships ? { put: before, remove: null } : { put: null, remove: draft.rules });
      return `Saved: ${key}.`;
    });
  const takeOut = (one: Kept) =>
    attempt(async () => {
      queries.setQueryData(keys.clubs(), await remove(one));
      setBack(one.damaged ? null : { put: one, remove: null });
      return `Taken out: ${keyOf(one)}.`;
    });
  const takeBack = () =>
    attempt(async () => {
      if (!back) return undefined;
      if (back.put) queries.setQueryData(keys.clubs(), await put(back.put));
      if (back.remove) queries.setQueryData(keys.clubs(), await remove(back.remove));
      setBack(null);
      return "Taken back.";
    });
  const bring = async (chosen: File | undefined) => {
    if (!chosen) return;
    setErrors([]);
    try {
      const read = JSON.parse(await chosen.text()) as Partial<Rules>;
      if (!Array.isArray(read?.classes)) throw new Error("no classes");
      const classes = read.classes.map((one) => ({ name: one.name ?? "", clauses: one.clauses ?? [] }));
      setDraft({ rules: { club: read.club ?? "", from: read.from ?? "", classes }, of: null });
      setSays(`${chosen.name} is in the form; look at it and press Save.`);
    } catch {
      setSays(`${chosen.name} is no rule file: JSON with club, from and classes. Nothing was changed.`);
    }
  };
  const title = draft?.of ? `${draft.of.club}, from ${draft.of.from}` : "New rules";
  return (
    <div className="min-h-dvh p-[10px]">
      <div className="sheet flex min-h-[calc(100dvh-20px)] flex-col">
        <header className="border-base-300 flex items-stretch border-b">
          <Link to="/house" className="plain-button flex items-center font-medium">
            ‹ House
          </Link>
          <h1 className="flex items-center px-3 text-lead">Clubs' rules</h1>
          <div className="ml-auto flex items-center gap-2 px-2">
            <output className={`text-small ${errors.length ? "text-error" : ""}`}>{says}</output>
            {back && (
              <button type="button" className="plain-button" onClick={() => void takeBack()}>
                Take back
              </button>
            )}
          </div>
        </header>
        <main className="grid flex-1 content-start gap-x-10 gap-y-5 px-4 py-3 min-[1000px]:grid-cols-[1fr_1.4fr]">
          <section aria-label="Rule files">
            <p className="max-w-prose text-small">
              Of each club the newest rules that have begun count. A file with a later day waits for it. The
              club's current rulebook and its scrutineer decide.
            </p>
            <ClubFiles
              all={all}
              onEdit={(one) => {
                setErrors([]);
                setSays("");
                setDraft({ rules: plain(one), of: { club: one.club, from: one.from } });
              }}
              onTakeOut={(one) => void takeOut(one)}
            />
            <MoreRules
              onNew={() => setDraft({ rules: NEW, of: null })}
              onBring={(chosen) => void bring(chosen)}
            />
          </section>
          {draft && registry ? (
            <RulesForm
              title={title}
              rules={draft.rules}
              registry={registry}
              errors={errors}
              onChange={(rules) => setDraft({ ...draft, rules })}
              onSave={() => void save()}
              onCancel={() => {
                setDraft(null);
                setErrors([]);
                setSays("");
              }}
            />
          ) : (
            <p className="text-body">
              Edit rules, write new ones, or bring a file. With another day the rules before stay as they are.
            </p>
          )}
        </main>
      </div>
    </div>
  );
}

/** Rules written anew, or brought as a file. */
function MoreRules({ onNew, onBring }: { onNew: () => void; onBring: (chosen: File | undefined) => void }) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <div className="mt-2 flex gap-3">
      <button type="button" className="plain-button text-accent font-medium" onClick={onNew}>
        Write new rules
      </button>
      <button
        type="button"
        className="plain-button text-accent font-medium"
        onClick={() => file.current?.click()}
      >
        Bring a file
      </button>
      <a className="plain-button" href="/api/v1/clubs/schema" download="club-rules.schema.json">
        Schema
      </a>
      <input
        ref={file}
        type="file"
        hidden
        accept=".json,application/json"
        aria-label="Rule file"
        onChange={(event) => {
          onBring(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
    </div>
  );
}
