import { useSheet } from "../job/JobSheet";
import { readNumber } from "../shared/number";
import { useDraft } from "../shared/useDraft";
import { Figure } from "./Figure";
import { GearTable } from "./GearTable";
import type { PartProps, Sheet } from "./RoadTrack";

type Typed = { ratios: string; final: number | null; low: number | null; limiter: number | null };

/** A driveline as it is typed: ratios in a row, first to top. */
const typedOf = (gears: Sheet["gears"]): Typed => ({
  ratios: gears?.ratios.join(" ") ?? "",
  final: gears?.final ?? null,
  low: gears?.low_range ?? null,
  limiter: gears?.limiter_rpm ?? null,
});

/** The gears on the tires before and after. */
export function Gears({ sheet, answer, onChange }: PartProps) {
  const { open } = useSheet();
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
  const { gearing_reference: before, gearing_planned: after } = answer ?? {};
  return (
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
          With ratios, final drive and limiter the gears are drawn on both tires; what nobody knows leaves its
          rows out.
        </p>
      ) : (
        <GearTable before={before} after={after} answer={answer} limiter={sheet.gears?.limiter_rpm ?? 0} />
      )}
      <p className="mt-1 max-w-prose text-note opacity-85">
        v = n / 60 × C / (i gear × i final), with C = 3.05 × the overall diameter (ETRTO, memory). Pull goes
        with 1 / radius at a given torque.
      </p>
    </section>
  );
}
