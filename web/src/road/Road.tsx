import type { Schemas } from "../api/client";
import { useSheet } from "../job/JobSheet";
import { readNumber } from "../shared/number";
import { formatLength, formatSpeed, inWords, percent, useUnits } from "../shared/units";
import { useDraft } from "../shared/useDraft";
import { CarModule } from "./CarModule";
import { Coverage } from "./Coverage";
import { Figure } from "./Figure";
import { GearChart } from "./GearChart";
import { RoadPressures } from "./RoadPressures";
import type { PartProps, Sheet } from "./RoadTrack";
import { SetsOnTheRoad } from "./Sets";

type Typed = { ratios: string; final: number | null; low: number | null; limiter: number | null };

/** A driveline as it is typed: ratios in a row, first to top. */
const typedOf = (gears: Sheet["gears"]): Typed => ({
  ratios: gears?.ratios.join(" ") ?? "",
  final: gears?.final ?? null,
  low: gears?.low_range ?? null,
  limiter: gears?.limiter_rpm ?? null,
});

/** Dial and truth, and the gears on the tires before and after. */
export function Road({ sheet, answer, onChange }: PartProps) {
  const { open } = useSheet();
  const { units } = useUnits();
  const [typed, setTyped] = useDraft(open.job.uid, "road.gears", typedOf(sheet.gears));
  const put = (change: Partial<Typed>) => {
    const next = { ...typed, ...change };
    setTyped(next);
    const ratios = next.ratios
      .split(/[\s;/]+/)
      .filter(Boolean)
      .map(readNumber);
    const whole = ratios.flatMap((one) => (one.is === "number" ? [one.value] : []));
    // It counts once it is whole; until then what is typed stays here.
    if (whole.length > 0 && whole.length === ratios.length && next.final != null && next.limiter != null) {
      onChange({
        gears: { ratios: whole, final: next.final, low_range: next.low, limiter_rpm: next.limiter },
      });
    }
  };
  const believe = (mm: number) => {
    // As fine as it is shown: a module counts in whole millimetres of circumference.
    const believed_diameter_mm = Math.round(mm * 10) / 10;
    if (believed_diameter_mm !== sheet.believed_diameter_mm) onChange({ believed_diameter_mm });
  };
  const dial = answer?.dial;
  const speeds = units.speed === "km/h" ? dial?.metric : dial?.imperial;
  const { gearing_reference: before, gearing_planned: after } = answer ?? {};
  return (
    <div className="flex flex-col gap-3">
      <section aria-label="Dial">
        <h2 className="label-small font-semibold">What the dial shows, and what is true</h2>
        {!dial || !speeds ? (
          <p className="text-body">State the fitted and the planned tire: the dial is held against them.</p>
        ) : (
          <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
            <table className="text-body" data-dial>
              <thead>
                <tr className="text-left text-note">
                  <th scope="col" className="pr-6 font-normal">
                    shown
                  </th>
                  <th scope="col" className="pr-6 font-normal">
                    true, by the reference tire
                  </th>
                  <th scope="col" className="pr-6 font-normal">
                    true, by what the computer believes
                  </th>
                  <th scope="col" className="font-normal">
                    true, as the dial was measured
                  </th>
                </tr>
              </thead>
              <tbody>
                {speeds.map((one) => (
                  <tr key={one.shown_kmh} className="rule">
                    <td className="pr-6">{inWords(formatSpeed(one.shown_kmh, units))}</td>
                    <td className="pr-6 font-semibold">{inWords(formatSpeed(one.true_kmh, units))}</td>
                    <td>
                      {one.by_computer_kmh == null
                        ? "not read"
                        : inWords(formatSpeed(one.by_computer_kmh, units))}
                    </td>
                    <td>
                      {one.measured_kmh == null
                        ? "not measured"
                        : inWords(formatSpeed(one.measured_kmh, units))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <Figure
              label="The computer believes a height of"
              unit="mm"
              value={sheet.believed_diameter_mm}
              placeholder="not read"
              onPut={(believed_diameter_mm) => onChange({ believed_diameter_mm })}
            />
            <p className="max-w-[320px] text-small">
              {dial.by_axle} axle: {inWords(formatLength(dial.reference_mm, units))} to{" "}
              {inWords(formatLength(dial.planned_mm, units))}. A hundred kilometres on the odometer are{" "}
              {dial.per_100_km.toFixed(1)}. UN R39: the dial never shows less than the truth. What it
              over-reads is measured by satellite speed and stands in the car's record.
            </p>
          </div>
        )}
      </section>
      <CarModule onBelieved={believe} />
      <section aria-label="Gears">
        <h2 className="label-small font-semibold">Gears</h2>
        <div className="flex flex-wrap items-end gap-3">
          <label className="text-small">
            <span className="block text-note">Ratios, first to top</span>
            <input
              className="bg-base-200 h-[30px] w-[260px] px-2"
              aria-label="Ratios, first to top"
              value={typed.ratios}
              placeholder="3.60 2.10 1.40 1.00 0.80"
              onChange={(event) => put({ ratios: event.target.value })}
            />
          </label>
          <Figure label="Final drive" value={typed.final} onPut={(final) => put({ final })} />
          <Figure label="Low range" value={typed.low} placeholder="none" onPut={(low) => put({ low })} />
          <Figure label="Limiter" unit="1/min" value={typed.limiter} onPut={(limiter) => put({ limiter })} />
          <Figure
            label="Torque"
            unit="N·m"
            value={sheet.torque_nm}
            onPut={(torque_nm) => onChange({ torque_nm })}
          />
          <Figure
            label="Cruise"
            unit="km/h"
            value={sheet.cruise_kmh}
            placeholder="100"
            onPut={(cruise_kmh) => onChange({ cruise_kmh })}
          />
        </div>
        {!before || !after ? (
          <p className="mt-1 text-body">
            With ratios, final drive and limiter the gears are drawn on both tires; what nobody knows leaves
            its rows out.
          </p>
        ) : (
          <div className="mt-2 flex flex-wrap gap-4">
            <GearChart before={before} after={after} limiter={sheet.gears?.limiter_rpm ?? 0} />
            <table className="self-start text-body" data-gears>
              <thead>
                <tr className="text-left text-note">
                  <td className="pr-4" />
                  <th scope="col" className="pr-6 font-normal">
                    reference tire
                  </th>
                  <th scope="col" className="font-normal">
                    planned tire
                  </th>
                </tr>
              </thead>
              <tbody>
                {after.gears.map((gear, at) => (
                  <tr key={gear.ratio} className="rule">
                    <th scope="row" className="pr-4 text-left font-normal">
                      gear {at + 1}, {gear.ratio}
                    </th>
                    <td className="pr-6">
                      {inWords(formatSpeed(before.gears[at]?.limiter_kmh ?? 0, units))} at the limiter
                    </td>
                    <td className="font-semibold">{inWords(formatSpeed(gear.limiter_kmh, units))}</td>
                  </tr>
                ))}
                <Row
                  name={`engine at ${inWords(formatSpeed(answer?.cruise_kmh ?? 0, units))}`}
                  before={`${before.cruise_rpm.toFixed(0)} 1/min`}
                  after={`${after.cruise_rpm.toFixed(0)} 1/min`}
                />
                <Row
                  name="effective final drive"
                  before={before.effective_final.toFixed(2)}
                  after={after.effective_final.toFixed(2)}
                />
                <Row name="pull at the road" before="" after={percent(after.tractive_effort_change_pct)} />
                {answer?.first_gear_pull_n && (
                  <Row
                    name="pull in first gear at the torque"
                    before={kilonewtons(answer.first_gear_pull_n[0])}
                    after={kilonewtons(answer.first_gear_pull_n[1])}
                  />
                )}
                {after.crawl_ratio != null && (
                  <Row
                    name="crawl ratio, the tire not counted"
                    before={before.crawl_ratio?.toFixed(1) ?? ""}
                    after={after.crawl_ratio.toFixed(1)}
                  />
                )}
              </tbody>
            </table>
          </div>
        )}
        <p className="mt-1 max-w-prose text-note opacity-85">
          v = n / 60 × C / (i gear × i final), with C = 3.05 × the overall diameter (ETRTO, memory). Pull goes
          with 1 / radius at a given torque.
        </p>
      </section>
      <RoadPressures axles={answer?.pressures ?? []} caution={answer?.pressure_caution ?? ""} />
      <SetsOnTheRoad sets={answer?.sets ?? []} />
      <FittedWeights sheet={sheet} onChange={onChange} />
      <Coverage sheet={sheet} answer={answer} onChange={onChange} />
    </div>
  );
}

const kilonewtons = (newtons: number | undefined) => `${((newtons ?? 0) / 1000).toFixed(2)} kN`;

/** The fitted wheel and tire on the scale: no list has the factory's. */
function FittedWeights({ sheet, onChange }: Pick<PartProps, "sheet" | "onChange">) {
  const { open } = useSheet();
  const [typed, setTyped] = useDraft<Partial<Schemas["WeighedSheet"]>>(open.job.uid, "road.weights", {});
  const kg = { ...sheet.fitted_kg, ...typed };
  const put = (change: Partial<Schemas["WeighedSheet"]>) => {
    const next = { ...kg, ...change };
    setTyped({ ...typed, ...change });
    const { wheel_kg, tire_kg } = next;
    if (typeof wheel_kg === "number" && typeof tire_kg === "number") {
      onChange({ fitted_kg: { wheel_kg, tire_kg } });
    }
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Figure
        label="Fitted wheel on the scale"
        unit="kg"
        value={kg.wheel_kg}
        onPut={(wheel_kg) => put({ wheel_kg: wheel_kg ?? undefined })}
      />
      <Figure
        label="Fitted tire on the scale"
        unit="kg"
        value={kg.tire_kg}
        onPut={(tire_kg) => put({ tire_kg: tire_kg ?? undefined })}
      />
    </div>
  );
}

function Row({ name, before, after }: { name: string; before: string; after: string }) {
  return (
    <tr className="rule">
      <th scope="row" className="pr-4 text-left font-normal">
        {name}
      </th>
      <td className="pr-6">{before}</td>
      <td className="font-semibold">{after}</td>
    </tr>
  );
}
