import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useSheet } from "../job/JobSheet";
import { formatLength, inWords, useUnits } from "../shared/units";

type Rung = Schemas["RungView"];

const BANDS = { ideal: "ideal", good: "good", limit: "at the limit", beyond: "beyond the limit" } as const;

/** Every size round the fitted tire inside a band of overall diameter, as a table and to one scale. */
export function Ladder() {
  const { open } = useSheet();
  const { units } = useUnits();
  const fitted = open.content.fitted;
  const [axle, setAxle] = useState<"front" | "rear">("front");
  const [tire, setTire] = useState<string | null>(null);
  const [band, setBand] = useState(3);
  const [listedOnly, setListedOnly] = useState(true);
  const [marked, setMarked] = useState<string | null>(null);
  const line = fitted[axle] ?? fitted.front ?? fitted.rear ?? "";
  const read = useQuery({
    queryKey: ["tire-of", line],
    queryFn: () =>
      answer(api.POST("/api/v1/bench", { body: { fitted: { front: line }, planned: {}, adjust: [] } })),
    enabled: line !== "",
  });
  const own = read.data?.axles.front.fitted?.tire ?? "";
  const asked = tire ?? own;
  const query = useQuery({
    queryKey: ["ladder", asked, band],
    queryFn: () => answer(api.POST("/api/v1/ladder", { body: { tire: asked, band_pct: band } })),
    enabled: asked !== "",
    placeholderData: (before) => before,
    retry: false,
  });
  const sizes = (query.data?.sizes ?? []).filter((rung) => rung.is_listed_size || !listedOnly);
  // The tire's own rim first, then up, then down.
  const order = (plus: number) => (plus < 0 ? 100 - plus : plus);
  const rims = [...new Set(sizes.map((rung) => rung.plus_in))].sort((a, b) => order(a) - order(b));
  const shown = sizes.find((rung) => rung.size === marked) ?? sizes[0];
  const base = sizes.find((rung) => rung.change_pct === 0) ?? sizes[0];
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-4 py-2">
      <div className="flex flex-wrap items-center gap-3 text-[15px]">
        <label className="flex items-center gap-2">
          Round
          <input
            className="bg-base-200 h-[32px] w-[190px] px-2"
            aria-label="Tire the ladder stands round"
            value={asked}
            placeholder="225/45R17"
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
            value={band}
            onChange={(event) => setBand(Number(event.target.value))}
          >
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
          listed sizes only
        </label>
        {query.error && (
          <span role="alert" className="text-error">
            {query.error.message}
          </span>
        )}
      </div>
      {sizes.length === 0 ? (
        <p className="mt-4 text-[15px]">
          {asked === ""
            ? "State the fitted tire, or type one above: the ladder stands round it."
            : "No size of the grid lies inside this band."}
        </p>
      ) : (
        <div className="mt-2 flex min-h-0 flex-col gap-4 min-[1000px]:flex-row">
          <div className="min-w-0 flex-1 overflow-x-auto">
            <table className="w-full text-[15px]">
              <thead>
                <tr className="text-left text-[13px]">
                  <th className="font-normal">Rim</th>
                  <th className="font-normal">Size</th>
                  <th className="text-right font-normal">Overall diameter</th>
                  <th className="text-right font-normal">Change</th>
                  <th className="text-right font-normal">Sidewall</th>
                  <th className="text-right font-normal">Rims, in</th>
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
                        <td className="font-semibold">{at === 0 ? plusWords(plus) : ""}</td>
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
                          {rung.change_pct > 0 ? "+" : rung.change_pct < 0 ? "−" : ""}
                          {Math.abs(rung.change_pct).toFixed(1)} %{" "}
                          <span className="text-[13px] opacity-85">
                            {BANDS[rung.band as keyof typeof BANDS]}
                          </span>
                        </td>
                        <td className="text-right">{inWords(formatLength(rung.sidewall_mm, units))}</td>
                        <td className="text-right">
                          {rung.permitted_rim_min_in}–{rung.permitted_rim_max_in}
                        </td>
                      </tr>
                    )),
                )}
              </tbody>
            </table>
          </div>
          <div className="shrink-0 min-[1000px]:w-[420px]">
            {shown && base && <Heights shown={shown} base={base} />}
            <p className="mt-1 text-[14px]">
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

/** Two tires from the side on one ground, to one scale: the ladder's own in chain line. */
function Heights({ shown, base }: { shown: Rung; base: Rung }) {
  const { units } = useUnits();
  const k = 0.42;
  const ground = 330;
  const x = 205;
  const circle = (rung: Rung) => ({
    r: (rung.overall_diameter_mm / 2) * k,
    cy: ground - (rung.overall_diameter_mm / 2) * k,
  });
  const rim = (rung: Rung) => (rung.overall_diameter_mm / 2 - rung.sidewall_mm) * k;
  const [a, b] = [circle(shown), circle(base)];
  const higher = shown.overall_diameter_mm - base.overall_diameter_mm;
  return (
    <div className="drawing">
      <svg
        width="100%"
        viewBox="0 0 420 360"
        role="img"
        aria-label={`${shown.size} beside ${base.size}, to scale`}
      >
        <line className="axis" x1={14} x2={406} y1={ground} y2={ground} />
        <circle
          cx={x}
          cy={a.cy}
          r={a.r}
          fill="var(--rubber)"
          fillOpacity={0.45}
          stroke="var(--scribe)"
          strokeWidth={1.5}
        />
        <circle cx={x} cy={a.cy} r={rim(shown)} fill="var(--blue)" stroke="var(--brass)" strokeWidth={1.5} />
        <circle className="phantom" cx={x} cy={b.cy} r={b.r} />
        <circle className="phantom" cx={x} cy={b.cy} r={rim(base)} />
        <text className="figure" x={x} y={a.cy + 5} textAnchor="middle">
          {shown.size}
        </text>
        <text className="note" x={14} y={24}>
          chain line: {base.size}
        </text>
        <text x={406} y={24} textAnchor="end">
          Ø <tspan className="figure">{inWords(formatLength(higher, units, true))}</tspan>
        </text>
      </svg>
    </div>
  );
}
