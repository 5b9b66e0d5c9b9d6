import type { Schemas } from "../api/client";
import { Steps } from "../bench/Working";
import { useSheet } from "../job/JobSheet";
import { Caution } from "../shared/Caution";
import { formatPressure, inWords, useUnits } from "../shared/units";
import { useDraft } from "../shared/useDraft";
import { AgainstTest } from "./AgainstTest";
import { Figure } from "./Figure";
import { Inspections } from "./Inspections";
import type { PartProps } from "./RoadTrack";
import { SetsAtTheLimit } from "./Sets";

type Car = Schemas["CarSheet"];
type Hot = Schemas["HotSheet"];
type Case = Schemas["TrackCaseView"];

const CAR: { name: keyof Car; label: string; unit?: string }[] = [
  { name: "mass_kg", label: "Mass with driver", unit: "kg" },
  { name: "front_share", label: "Front share, 0 to 1" },
  { name: "cg_height_m", label: "Height of the centre of gravity", unit: "m" },
  { name: "wheelbase_m", label: "Wheelbase", unit: "m" },
  { name: "track_front_m", label: "Front track", unit: "m" },
  { name: "track_rear_m", label: "Rear track", unit: "m" },
  { name: "roll_share_front", label: "Roll stiffness in front, 0 to 1" },
  { name: "lateral_g", label: "Cornering", unit: "g" },
  { name: "braking_g", label: "Braking", unit: "g" },
];
const HOT: { name: keyof Hot; label: string; unit: string }[] = [
  { name: "front_hot_kpa", label: "Front, wanted hot", unit: "kPa" },
  { name: "rear_hot_kpa", label: "Rear, wanted hot", unit: "kPa" },
  { name: "cold_c", label: "Air when they are set", unit: "°C" },
  { name: "hot_c", label: "Tire at work", unit: "°C" },
];

/** Corner loads against the parts, and what to set cold for what is wanted hot. */
export function Track({ sheet, answer, onChange }: PartProps) {
  const { open } = useSheet();
  const { units } = useUnits();
  const start: Partial<Car> = {
    mass_kg: answer?.start.mass_kg ?? undefined,
    front_share: answer?.start.front_share ?? undefined,
    cg_height_m: answer?.start.cg_height_m,
    roll_share_front: answer?.start.roll_share_front,
  };
  const [typedCar, setTypedCar] = useDraft<Partial<Car>>(open.job.uid, "road.car", NOTHING);
  const [typedHot, setTypedHot] = useDraft<Partial<Hot>>(open.job.uid, "road.hot", NOTHING);
  const car = { ...start, ...sheet.car, ...typedCar };
  const hot = { ...sheet.hot, ...typedHot };
  const putCar = (name: keyof Car, value: number | null) => {
    const typed = { ...typedCar, [name]: value ?? undefined };
    setTypedCar(typed);
    const all = { ...start, ...sheet.car, ...typed };
    // It counts once every figure is there.
    if (CAR.every(({ name }) => typeof all[name] === "number")) onChange({ car: all as Car });
  };
  const putSpeed = (speed_kmh: number | null) => {
    setTypedCar({ ...typedCar, speed_kmh });
    if (sheet.car) onChange({ car: { ...sheet.car, speed_kmh } });
  };
  const putHot = (name: keyof Hot, value: number | null) => {
    const typed = { ...typedHot, [name]: value ?? undefined };
    setTypedHot(typed);
    const all = { ...sheet.hot, ...typed };
    if (HOT.every(({ name }) => typeof all[name] === "number")) onChange({ hot: all as Hot });
  };
  const cold = answer?.cold;
  return (
    <div className="flex flex-col gap-3">
      <section aria-label="Corner loads">
        <h2 className="label-small font-semibold">Corner loads</h2>
        <div className="flex flex-wrap items-end gap-3">
          {CAR.map(({ name, label, unit }) => (
            <Figure
              key={name}
              label={label}
              unit={unit}
              value={car[name]}
              onPut={(value) => putCar(name, value)}
            />
          ))}
        </div>
        <Figure
          label="Speed of the corner, for the tire's index"
          unit="km/h"
          value={car.speed_kmh}
          placeholder="not reckoned"
          onPut={(value) => putSpeed(value)}
        />
        <p className="text-note opacity-85">
          Height and roll stiffness start from estimates by the body; scales and the car's papers are better.
          ΔF = m a h λ / t for each axle, m a h / L lengthways. A wheel that would carry less than nothing
          lifts, and the other axle takes its part.
        </p>
        {answer && answer.track.length > 0 ? (
          <div className="mt-2 flex flex-wrap gap-4">
            {answer.track.map((one) => (
              <CaseView key={one.code} one={one} />
            ))}
          </div>
        ) : (
          <p className="text-body">With every figure above the four corners are worked out.</p>
        )}
        <SetsAtTheLimit sets={answer?.sets ?? []} />
        {answer && <Caution className="mt-2 max-w-[900px]">{answer.track_caution}</Caution>}
      </section>
      <Inspections sheet={sheet} answer={answer} onChange={onChange} />
      <section aria-label="Pressures">
        <h2 className="label-small font-semibold">Cold for hot</h2>
        <div className="flex flex-wrap items-end gap-3">
          {HOT.map(({ name, label, unit }) => (
            <Figure
              key={name}
              label={label}
              unit={unit}
              value={hot[name]}
              onPut={(value) => putHot(name, value)}
            />
          ))}
        </div>
        {cold && (
          <>
            <p className="mt-1 text-lead font-semibold" data-cold>
              Set cold: front {inWords(formatPressure(cold.front_cold_kpa, units))}, rear{" "}
              {inWords(formatPressure(cold.rear_cold_kpa, units))}
            </p>
            {cold.front_placard_hot_kpa != null && cold.rear_placard_hot_kpa != null && (
              <p className="text-body">
                The placard's pressures would come to{" "}
                {inWords(formatPressure(cold.front_placard_hot_kpa, units))} and{" "}
                {inWords(formatPressure(cold.rear_placard_hot_kpa, units))}.
              </p>
            )}
            <Caution className="max-w-[900px]">{cold.caution}</Caution>
          </>
        )}
        <p className="text-note opacity-85">
          P hot = (P cold + 101.3) × T hot / T cold − 101.3, gauge pressures in kPa, temperatures from
          absolute zero.
        </p>
      </section>
    </div>
  );
}

const NOTHING = {};

/** A case: four contact patches as large as their loads, and each wheel against its parts. */
function CaseView({ one }: { one: Case }) {
  const most = Math.max(1, ...one.wheels.map((wheel) => wheel.load_kg));
  return (
    <div data-track-case={one.code}>
      <h3 className="text-body font-semibold">{one.name}</h3>
      <svg
        className="drawing block"
        width={300}
        height={210}
        viewBox="0 0 300 210"
        role="img"
        aria-label={`${one.name}: ${one.wheels.map((wheel) => `${wheel.position} ${wheel.load_kg.toFixed(0)} kg`).join(", ")}`}
      >
        <path d="M150 18V192M90 44H210M90 166H210" stroke="var(--scribe)" strokeOpacity="0.4" fill="none" />
        {one.wheels.map((wheel, at) => {
          const side = Math.sqrt(wheel.load_kg / most) * 54;
          const [x, y] = [at % 2 === 0 ? 90 : 210, at < 2 ? 44 : 166];
          return (
            <g key={wheel.position}>
              <rect
                x={x - side / 2}
                y={y - side * 0.36}
                width={side}
                height={side * 0.72}
                rx={4}
                fill="var(--brass)"
                fillOpacity="0.55"
                stroke="var(--scribe)"
              />
              <text
                className="note"
                x={at % 2 === 0 ? x - 34 : x + 34}
                y={y + 5}
                textAnchor={at % 2 === 0 ? "end" : "start"}
              >
                {one.lifted.includes(wheel.position) ? "lifts" : `${wheel.load_kg.toFixed(0)} kg`}
              </text>
            </g>
          );
        })}
        <text className="note" x={150} y={14} textAnchor="middle">
          ahead, turning left
        </text>
      </svg>
      <table className="text-small">
        <tbody>
          {one.wheels.map((wheel) => (
            <tr key={wheel.position} className="rule">
              <th scope="row" className="pr-3 text-left font-normal">
                {wheel.position}
              </th>
              <td className="pr-3">{wheel.load_kg.toFixed(0)} kg</td>
              <td className="pr-3">
                {wheel.tire_kg == null ? "tire not stated" : `tire ${wheel.tire_kg.toFixed(0)}`}
              </td>
              <td>
                <AgainstTest wheel={wheel} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <details className="max-w-[340px] text-note" data-case-working={one.code}>
        <summary className="cursor-pointer">working</summary>
        <Steps steps={one.working} />
      </details>
    </div>
  );
}
