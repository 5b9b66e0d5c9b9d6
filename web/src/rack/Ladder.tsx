import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";
import { useSheet } from "../job/JobSheet";
import { InlineFault } from "../shared/Caution";
import { LadderAsk, type Wanted } from "./LadderAsk";
import { Rungs } from "./Rungs";
import { Uprights, uprights } from "./Uprights";

/** Every size round the fitted tire inside a band of overall diameter, as a table and to one scale. */
export function Ladder() {
  const { open } = useSheet();
  const { id } = open;
  const fitted = open.content.fitted;
  const [axle, setAxle] = useState<"front" | "rear">("front");
  const [tire, setTire] = useState<string | null>(null);
  const [marked, setMarked] = useState<string | null>(null);
  const [wanted, setWanted] = useState<Wanted>({
    band: null,
    listedOnly: true,
    stockedOnly: false,
    rim: null,
  });
  const { band, listedOnly, stockedOnly, rim } = wanted;
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
        <LadderAsk
          asked={asked}
          axle={fitted.front === fitted.rear ? null : axle}
          wanted={wanted}
          rimCodes={rimCodes}
          onTire={setTire}
          onAxle={(axle) => {
            setAxle(axle);
            setTire(null);
          }}
          onWant={(change) => setWanted((before) => ({ ...before, ...change }))}
        />
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
            <Rungs rims={rims} sizes={sizes} shown={shown} isHeight={isHeight} onMark={setMarked} />
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
