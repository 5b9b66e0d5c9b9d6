import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { answer, api, type House as HouseView, matching, type Problem, Refused } from "../api/client";
import { useFileId } from "../api/file";
import { keys } from "../api/keys";
import { keyed, newKey } from "../api/upload";
import { SetAside } from "../job/SetAside";
import { Caution } from "../shared/Caution";
import { useHouse, useRegistry } from "../shared/registry";
import { useTheme } from "../shared/theme";
import { useDeed } from "../shared/useDeed";
import { useDraft } from "../shared/useDraft";
import { Instruments } from "./Instruments";
import { Limits } from "./Limits";
import { People } from "./People";
import { Storage } from "./Storage";
import { Units } from "./Units";

/** It was for a state of the house that is no more. */
const isOfBefore = ({ problem }: Refused) => problem.status === 409 || problem.status === 412;

type Draft = Pick<HouseView, "limits" | "instruments" | "people" | "units">;

/** The house: its limits, instruments, people and units. Saved when asked, since every verdict follows. */
export function House() {
  const house = useHouse();
  const registry = useRegistry();
  const { isDark, toggle } = useTheme();
  const [draft, setDraft] = useDraft<Draft | null>(useFileId(), "house", null);
  const {
    run,
    says,
    say: setSays,
  } = useDeed("Save", (error) =>
    error instanceof Refused && isOfBefore(error)
      ? "The house was changed elsewhere meanwhile. Look at it, then press Save to put yours on top."
      : (error as Error).message,
  );
  const [errors, setErrors] = useState<Problem["errors"]>([]);
  const queries = useQueryClient();
  // One key for what stands in the draft: saved again after a lost answer it is the same change, and nobody else's.
  const sent = useRef<{ draft: Draft; revision: number; key: string } | null>(null);
  useEffect(() => {
    document.title = "House · Dimensione";
  }, []);
  const shown = draft ?? house;
  const change = (part: Partial<Draft>) => {
    if (!house) return;
    const { limits, instruments, people, units } = shown ?? house;
    setDraft({ limits, instruments, people, units, ...part });
    setSays("");
  };
  const save = () =>
    run(async () => {
      if (!draft || !house) return undefined;
      if (sent.current?.draft !== draft || sent.current.revision !== house.revision) {
        sent.current = { draft, revision: house.revision, key: newKey() };
      }
      try {
        const saved = await answer(
          api.PUT("/api/v1/house", {
            params: { header: keyed(sent.current.key) },
            headers: matching({ uid: house.file_id, token: house.token }),
            body: { ...draft, based_on_revision: house.revision },
          }),
        );
        queries.setQueryData(keys.house(), saved);
        await queries.invalidateQueries({ queryKey: keys.allSideBySide() });
        setDraft(null);
        setErrors([]);
        return "Saved. Every verdict follows from now on.";
      } catch (error) {
        if (error instanceof Refused && isOfBefore(error)) {
          await queries.invalidateQueries({ queryKey: keys.house() });
        } else if (error instanceof Refused) {
          setErrors(error.problem.errors);
        }
        throw error;
      }
    });
  const faultOf = (pointer: string) => errors.find((error) => error.pointer === pointer)?.detail;
  if (!shown || !registry) {
    return (
      <main className="p-6">
        <p role="status">Opening the house…</p>
      </main>
    );
  }
  return (
    <div className="min-h-dvh p-[10px]">
      <div className="sheet flex min-h-[calc(100dvh-20px)] flex-col">
        <header className="border-base-300 flex items-stretch border-b">
          <Link to="/" className="plain-button flex items-center font-medium">
            ‹ Counter
          </Link>
          <h1 className="flex items-center px-3 text-lead">House</h1>
          <div className="ml-auto flex items-center gap-2 px-2">
            <output className={`text-small ${errors.length ? "text-error" : ""}`}>
              {says || (draft ? "changed, not saved" : "")}
            </output>
            <button type="button" className="plain-button" disabled={!draft} onClick={() => setDraft(null)}>
              Undo changes
            </button>
            <button type="button" className="btn btn-primary btn-sm" disabled={!draft} onClick={save}>
              Save
            </button>
            <button type="button" className="plain-button" onClick={toggle}>
              {isDark ? "Light" : "Dark"}
            </button>
          </div>
        </header>
        <SetAside />
        {(house?.damaged ?? []).map((one) => (
          <Caution grave key={one} role="alert" className="mx-4 mt-2 text-body">
            Cannot be read, so the trade's figure stands in: {one}. Look at it below and press Save.
          </Caution>
        ))}
        <main className="grid flex-1 content-start gap-x-10 gap-y-5 px-4 py-3 min-[1000px]:grid-cols-[1.25fr_1fr]">
          <Limits
            limits={registry.limits}
            shown={shown.limits}
            faultOf={faultOf}
            onChange={(limits) => change({ limits })}
          />
          <div className="flex flex-col gap-5">
            <Instruments shown={shown.instruments} onChange={(instruments) => change({ instruments })} />
            <People shown={shown.people} onChange={(people) => change({ people })} />
            <Units shown={shown.units} onChange={(units) => change({ units })} />
            <section>
              <h2 className="label-small font-semibold">Clubs' rules</h2>
              <Link to="/house/clubs" className="plain-button text-accent px-0 font-medium">
                Classes of the clubs, by day
              </Link>
            </section>
            <section>
              <h2 className="label-small font-semibold">Which shop, which file</h2>
              <p className="text-small">
                Shop <code>{house?.shop_id}</code>, file <code>{house?.file_id}</code>. The shop's stays; the
                file's is new whenever a backup is put back or the file is copied.
              </p>
            </section>
            <Storage />
          </div>
        </main>
      </div>
    </div>
  );
}
