import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { answer, api, type House as HouseView, matching, type Problem, Refused } from "../api/client";
import { useFileId } from "../api/file";
import { keys } from "../api/keys";
import { keyed, newKey } from "../api/upload";
import { SetAside } from "../job/SetAside";
import { Caution, InlineFault } from "../shared/Caution";
import { useHouse, useRegistry } from "../shared/registry";
import { useTheme } from "../shared/theme";
import { useDeed } from "../shared/useDeed";
import { useDraft } from "../shared/useDraft";
import { Storage } from "./Storage";

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
  const number = (text: string) => (text.trim() === "" ? Number.NaN : Number(text.replace(",", ".")));
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
          <section>
            <h2 className="label-small font-semibold">Limits</h2>
            <p className="text-small">
              Each verdict names the limit it used. The trade's figure stands beside it; common practice, no
              source.
            </p>
            <table className="mt-1 w-full text-body">
              <tbody>
                {registry.limits.map((limit) => {
                  const value = shown.limits[limit.code] ?? limit.default;
                  const fault = faultOf(`/limits/${limit.code}`);
                  return (
                    <tr key={limit.code} className="rule">
                      <td className="py-0.5 pr-2">
                        {limit.title}
                        {fault && <InlineFault className="block text-note">{fault}</InlineFault>}
                      </td>
                      <td className="w-[110px] text-right whitespace-nowrap">
                        <NumberField
                          label={limit.title}
                          value={value}
                          onChange={(text) =>
                            change({ limits: { ...shown.limits, [limit.code]: number(text) } })
                          }
                        />{" "}
                        {limit.unit}
                      </td>
                      <td className="w-[110px] text-right">
                        {value === limit.default ? (
                          <span className="opacity-80">as the trade</span>
                        ) : (
                          <button
                            type="button"
                            className="plain-button py-0"
                            onClick={() =>
                              change({ limits: { ...shown.limits, [limit.code]: limit.default } })
                            }
                          >
                            back to {limit.default}
                          </button>
                        )}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </section>
          <div className="flex flex-col gap-5">
            <section>
              <h2 className="label-small font-semibold">Instruments, and how far each may be off</h2>
              <table className="mt-1 w-full text-body">
                <tbody>
                  {shown.instruments.map((one, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a row's name is what is being typed
                    <tr key={at} className="rule">
                      <td className="py-0.5">
                        <input
                          className="bg-base-200 w-full px-2 leading-[28px]"
                          aria-label="Instrument"
                          maxLength={60}
                          value={one.name}
                          onChange={(event) =>
                            change({
                              instruments: replaced(shown.instruments, at, { name: event.target.value }),
                            })
                          }
                        />
                      </td>
                      <td className="w-[120px] text-right whitespace-nowrap">
                        ±{" "}
                        <NumberField
                          label={`${one.name}, may be off by`}
                          value={one.plus_minus_mm}
                          onChange={(text) =>
                            change({
                              instruments: replaced(shown.instruments, at, { plus_minus_mm: number(text) }),
                            })
                          }
                        />{" "}
                        mm
                      </td>
                      <td className="w-[90px] text-right">
                        <button
                          type="button"
                          className="plain-button py-0"
                          aria-label={`Take away ${one.name}`}
                          onClick={() => change({ instruments: without(shown.instruments, at) })}
                        >
                          Take away
                        </button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <button
                type="button"
                className="plain-button text-accent font-medium"
                onClick={() =>
                  change({ instruments: [...shown.instruments, { code: "", name: "", plus_minus_mm: 1 }] })
                }
              >
                Add an instrument
              </button>
            </section>
            <section>
              <h2 className="label-small font-semibold">People who sign</h2>
              <table className="mt-1 w-full text-body">
                <tbody>
                  {shown.people.map((one, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a row's initials are what is being typed
                    <tr key={at} className="rule">
                      <td className="w-[90px] py-0.5">
                        <input
                          className="bg-base-200 w-full px-2 leading-[28px]"
                          aria-label="Initials"
                          placeholder="initials"
                          maxLength={8}
                          value={one.initials}
                          onChange={(event) =>
                            change({ people: replaced(shown.people, at, { initials: event.target.value }) })
                          }
                        />
                      </td>
                      <td className="pl-2">
                        <input
                          className="bg-base-200 w-full px-2 leading-[28px]"
                          aria-label="Name"
                          placeholder="name"
                          maxLength={60}
                          value={one.name}
                          onChange={(event) =>
                            change({ people: replaced(shown.people, at, { name: event.target.value }) })
                          }
                        />
                      </td>
                      <td className="w-[90px] text-right">
                        <button
                          type="button"
                          className="plain-button py-0"
                          aria-label={`Take away ${one.initials}`}
                          onClick={() => change({ people: without(shown.people, at) })}
                        >
                          Take away
                        </button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <button
                type="button"
                className="plain-button text-accent font-medium"
                onClick={() => change({ people: [...shown.people, { initials: "", name: "" }] })}
              >
                Add a person
              </button>
            </section>
            <section>
              <h2 className="label-small font-semibold">Units a new screen starts with</h2>
              <select
                className="bg-base-200 mt-1 h-[32px] px-2 text-body"
                aria-label="Units a new screen starts with"
                value={shown.units}
                onChange={(event) => change({ units: event.target.value })}
              >
                <option value="metric">mm, km/h</option>
                <option value="mixed">mm, mph</option>
                <option value="imperial">inches, mph</option>
              </select>
            </section>
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

function NumberField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (text: string) => void;
}) {
  const [text, setText] = useState(String(value));
  // Not while a figure is half typed: "2." is 2 already.
  useEffect(() => {
    setText((now) => (Number(now.replace(",", ".")) === value || Number.isNaN(value) ? now : String(value)));
  }, [value]);
  return (
    <input
      className="bg-base-200 w-[56px] px-2 text-right leading-[28px]"
      aria-label={label}
      inputMode="decimal"
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        onChange(event.target.value);
      }}
    />
  );
}

function replaced<T>(rows: T[], at: number, change: Partial<T>): T[] {
  return rows.map((row, index) => (index === at ? { ...row, ...change } : row));
}

const without = <T,>(rows: T[], at: number): T[] => rows.filter((_, index) => index !== at);
