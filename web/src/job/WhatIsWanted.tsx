import type { Axle, Wanted } from "../api/client";
import { Choice } from "../shared/Choice";
import { NumberBox } from "../shared/NumberBox";
import { useRegistry } from "../shared/registry";
import type { OpenJob } from "./useJob";

const AXLES: Axle[] = ["front", "rear"];

/** What the job is for, asked once: the finder, the window and the bench know it from here. Each of it may be left open. */
export function WhatIsWanted({ open }: { open: OpenJob }) {
  const registry = useRegistry();
  const { content, edit } = open;
  const choices = registry?.wishes;
  const wishes = { ...choices?.start, ...content.wishes };
  const uses = wishes.uses ?? [];
  const put = (change: Partial<typeof wishes>) => edit({ wishes: { ...wishes, ...change } });
  const look = content.wanted.front?.style ?? content.wanted.rear?.style ?? "";
  const putLook = (style: string) => {
    const one = (axle: Axle): Wanted | null =>
      style ? { stance: false, ...content.wanted[axle], style } : null;
    edit({ wanted: { front: one("front"), rear: one("rear") } });
  };
  return (
    <section id="wanted" aria-label="What is wanted" className="border-accent mt-2 border px-3 py-2">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="label-small font-semibold">What is wanted</h2>
        <p className="text-small opacity-85">
          {content.wishes == null
            ? "Asked once, known everywhere. Leave open what nobody has said."
            : "Known to the finder; both change it."}
        </p>
        {content.wishes == null && (
          <button type="button" className="plain-button ml-auto" onClick={() => put({})}>
            Skip
          </button>
        )}
      </div>
      <div className="mt-1 flex flex-wrap items-end gap-x-5 gap-y-2 text-body">
        <fieldset className="flex flex-wrap gap-x-3 gap-y-1">
          <legend className="label-small">The car is for</legend>
          {choices?.uses.map(({ code, name }) => (
            <label key={code} className="flex min-h-[32px] items-center gap-1.5">
              <input
                type="checkbox"
                checked={uses.includes(code)}
                onChange={(event) =>
                  put({ uses: event.target.checked ? [...uses, code] : uses.filter((one) => one !== code) })
                }
              />
              {name}
            </label>
          ))}
        </fieldset>
        <div className="w-[130px]">
          <Choice
            label="Season"
            value={wishes.season ?? ""}
            options={[
              ["", "any"],
              ...(choices?.seasons ?? []).map(({ code, name }) => [code, name] as const),
            ]}
            onPick={(season) => put({ season: season || null })}
          />
        </div>
        <div className="w-[130px]">
          <Choice
            label="Look"
            value={AXLES.every((axle) => (content.wanted[axle]?.style ?? "") === look) ? look : ""}
            options={[
              ["", "no wish"],
              ...(registry?.looks ?? []).map(({ code, name }) => [code, name] as const),
            ]}
            onPick={putLook}
          />
        </div>
        <div className="w-[200px]">
          <Choice
            label="Axles"
            value={wishes.arrangement ?? ""}
            options={(choices?.arrangements ?? []).map(({ code, name }) => [code, name] as const)}
            onPick={(arrangement) => put({ arrangement })}
          />
        </div>
        <div>
          <span className="label-small block">Budget of the set</span>
          <NumberBox
            label="Budget of the set"
            value={wishes.budget}
            placeholder="none said"
            onPut={(budget) => put({ budget })}
            wide
          />
        </div>
      </div>
    </section>
  );
}
