import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";
import { useSheet } from "../job/JobSheet";
import { InlineFault } from "../shared/Caution";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { formatLength, inWords, percent, useUnits } from "../shared/units";
import { Uprights, uprights } from "./Uprights";

/** Every size round the fitted tire inside a band of overall diameter, as a table and to one scale. */
export function Ladder() {
  const { open } = useSheet();
  const { units } = useUnits();
  const verdict = useVerdicts();
  const { id } = open;
  const fitted = open.content.fitted;
  const [axle, setAxle] = useState<"front" | "rear">("front");
  const [tire, setTire] = useState<string | null>(null);
  /** Null: the house's own limit, which the program takes. */
  const [band, setBand] = useState<number | null>(null);
  const [listedOnly, setListedOnly] = useState(true);
  const [stockedOnly, setStockedOnly] = useState(false);
  const [marked, setMarked] = useState<string | null>(null);
  const [rim, setRim] = useState<number | null>(null);
  const line = fitted[axle] ?? fitted.front ?? fitted.rear ?? "";
  const read = useQuery({
    queryKey: keys.tireOf(line),
    queryFn: () =>
      answer(api.POST("/api/v1/bench", { body: { fitted: { front: line }, planned: {}, adjust: [] } })),
    enabled: line !== "",
  });
  const own = read.data?.axles.front.fitted?.tire ?? "";
  const asked = tire ?? own;
  const query = useQuery({
    queryKey: keys.ladder(id, axle, asked, band),
    queryFn: () =>
      answer(api.POST("/api/v1/ladder", { body: { tire: asked, band_pct: band, job: id, axle } })),
    enabled: asked !== "",
    placeholderData: (before) => before,
    retry: false,
  });
  const ladder = query.data;
  const sizes = (ladder?.sizes ?? []).filter(
    (rung) =>
      (rim === null || rung.rim_diameter_in === rim) &&
      (rung.is_listed_size || !listedOnly) &&
      (!stockedOnly || (rung.tires_that_carry ?? rung.tires_in_catalogue) > 0),
  );
  // The tire's own rim first, then up, then down.
  const order = (plus: number) => (plus < 0 ? 100 - plus : plus);
  const rims = [...new Set(sizes.map((rung) => rung.plus_in))].sort((a, b) => order(a) - order(b));
  const rimCodes = [...new Set((ladder?.sizes ?? []).map((rung) => rung.rim_diameter_in))].sort(
    (a, b) => a - b,
  );
  const isHeight = !/[/xX]/.test(asked);
  const shown = sizes.find((rung) => rung.size === marked) ?? sizes[0];
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-4 py-2">
      <div className="flex flex-wrap items-center gap-3 text-body">
        <label className="flex items-center gap-2">
          Round
          <input
            className="bg-base-200 h-[32px] w-[190px] px-2"
            aria-label="Tire the ladder stands round"
            value={asked}
            placeholder="225/45R17, or a height: 33"
            // Whoever comes to it means another one: what is typed takes its place.
            onFocus={(event) => event.target.select()}
            onChange={(event) => setTire(event.target.value)}
          />
        </label>
        {fitted.front !== fitted.rear && (
          <select
            className="bg-base-200 h-[32px] px-2"
            aria-label="Axle"
            value={axle}
            onChange={(event) => {
              setAxle(event.target.value as "front" | "rear");
              setTire(null);
            }}
          >
            <option value="front">fitted in front</option>
            <option value="rear">fitted behind</option>
          </select>
        )}
        <label className="flex items-center gap-2">
          within
          <select
            className="bg-base-200 h-[32px] px-2"
            aria-label="Band of overall diameter"
            value={band ?? ""}
            onChange={(event) => setBand(event.target.value ? Number(event.target.value) : null)}
          >
            <option value="">the house's limit</option>
            {[1, 2, 3, 5].map((pct) => (
              <option key={pct} value={pct}>
                ± {pct} %
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            checked={listedOnly}
            onChange={(event) => setListedOnly(event.target.checked)}
          />
          sizes that are made only
        </label>
        <label className="flex items-center gap-2">
          rim
          <select
            className="bg-base-200 h-[32px] px-2"
            aria-label="Only this rim"
            value={rim ?? ""}
            onChange={(event) => setRim(event.target.value ? Number(event.target.value) : null)}
          >
            <option value="">any</option>
            {rimCodes.map((code) => (
              <option key={code} value={code}>
                {code} in
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            checked={stockedOnly}
            onChange={(event) => setStockedOnly(event.target.checked)}
          />
          in the catalogue
        </label>
        <span className="text-small" data-load-need={ladder?.least_load_index}>
          {ladder?.least_load_index
            ? `each tire must carry ${ladder.load_need_kg?.toFixed(0)} kg: load index ${ladder.least_load_index}`
            : "load need not known: note the axle rating or the fitted index"}
        </span>
        {query.error && <InlineFault>{query.error.message}</InlineFault>}
      </div>
      {sizes.length === 0 ? (
        <p className="mt-4 text-body">
          {asked === ""
            ? "State the fitted tire, or type one above: the ladder stands round it."
            : "No size that is made lies inside this band: widen it, or look at all sizes."}
        </p>
      ) : (
        <div className="mt-2 flex min-h-0 flex-col gap-4 min-[1000px]:flex-row">
          <div className="min-w-0 flex-1 overflow-x-auto">
            <table className="w-full text-body">
              <thead>
                <tr className="text-left text-note">
                  <th className="font-normal">Rim</th>
                  <th className="font-normal">Size</th>
                  <th className="text-right font-normal">Overall diameter</th>
                  <th className="text-right font-normal">Change</th>
                  <th className="text-right font-normal">Sidewall</th>
                  <th className="text-right font-normal">Once round</th>
                  <th className="text-right font-normal">Turns a mile</th>
                  <th className="text-right font-normal">Rims, in</th>
                  <th className="text-right font-normal">Under the arch</th>
                  <th className="text-right font-normal">Tires · wheels</th>
                </tr>
              </thead>
              <tbody>
                {rims.flatMap((plus) =>
                  sizes
                    .filter((rung) => rung.plus_in === plus)
                    .map((rung, at) => (
                      <tr
                        key={rung.size}
                        className={`rule ${rung === shown ? "bg-accent/15" : ""}`}
                        data-rung={rung.size}
                      >
                        <td className="font-semibold whitespace-nowrap">
                          {at === 0 ? (isHeight ? `${rung.rim_diameter_in} in` : plusWords(plus)) : ""}
                        </td>
                        <td>
                          <button
                            type="button"
                            className="hover:bg-base-300/60 cursor-pointer px-1 font-medium"
                            onClick={() => setMarked(rung.size)}
                          >
                            {rung.size}
                          </button>
                        </td>
                        <td className="text-right">
                          {inWords(formatLength(rung.overall_diameter_mm, units))}
                        </td>
                        <td className="text-right">
                          {percent(rung.change_pct)}{" "}
                          <span className="text-note opacity-85">{rung.band_word}</span>
                        </td>
                        <td className="text-right">{inWords(formatLength(rung.sidewall_mm, units))}</td>
                        <td className="text-right">{inWords(formatLength(rung.circumference_mm, units))}</td>
                        <td className="text-right">{rung.revolutions_per_mile.toFixed(0)}</td>
                        <td className="text-right">
                          {rung.permitted_rim_min_in}–{rung.permitted_rim_max_in}
                        </td>
                        <td className="text-right">
                          {rung.arch_gap_mm == null || !rung.arch_verdict ? (
                            "not read"
                          ) : (
                            <span className="inline-flex items-center gap-1">
                              <Mark standing={verdict(rung.arch_verdict).standing} size={12} />
                              {inWords(formatLength(rung.arch_gap_mm, units))}
                            </span>
                          )}
                        </td>
                        <td
                          className="text-right"
                          title="tires of this size that carry the load, and wheels they may be put on"
                        >
                          {rung.tires_that_carry ?? rung.tires_in_catalogue}
                          {rung.tires_that_carry != null && rung.tires_that_carry < rung.tires_in_catalogue
                            ? ` of ${rung.tires_in_catalogue}`
                            : ""}{" "}
                          · {rung.wheels_in_catalogue}
                        </td>
                      </tr>
                    )),
                )}
              </tbody>
            </table>
          </div>
          <div className="shrink-0 min-[1000px]:w-[420px]">
            {ladder && shown && <Uprights ladder={ladder} rungs={uprights(sizes, shown)} marked={shown} />}
            <p className="mt-1 text-small">
              A larger diameter lifts the car by half of the difference and closes the gap under the arch by
              as much. Permitted rims are estimated from the measuring rim: the maker's table decides. The
              load index must be at least the factory's.
            </p>
          </div>
        </div>
      )}
    </div>
  );
}

const plusWords = (plus: number) => (plus === 0 ? "same" : plus > 0 ? `plus ${plus}` : `minus ${-plus}`);
