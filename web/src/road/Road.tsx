import type { Schemas } from "../api/client";
import { useSheet } from "../job/JobSheet";
import { useDraft } from "../shared/useDraft";
import { CarModule } from "./CarModule";
import { Coverage } from "./Coverage";
import { Dial } from "./Dial";
import { Figure } from "./Figure";
import { Gears } from "./Gears";
import { RoadPressures } from "./RoadPressures";
import type { PartProps } from "./RoadTrack";
import { SetsOnTheRoad } from "./Sets";

/** Dial and truth, and the gears on the tires before and after. */
export function Road({ sheet, answer, onChange }: PartProps) {
  const believe = (mm: number) => {
    // As fine as it is shown: a module counts in whole millimetres of circumference.
    const believed_diameter_mm = Math.round(mm * 10) / 10;
    if (believed_diameter_mm !== sheet.believed_diameter_mm) onChange({ believed_diameter_mm });
  };
  return (
    <div className="flex flex-col gap-3">
      <Dial sheet={sheet} dial={answer?.dial} onChange={onChange} />
      <CarModule onBelieved={believe} />
      <Gears sheet={sheet} answer={answer} onChange={onChange} />
      <RoadPressures axles={answer?.pressures ?? []} caution={answer?.pressure_caution ?? ""} />
      <SetsOnTheRoad sets={answer?.sets ?? []} />
      <FittedWeights sheet={sheet} onChange={onChange} />
      <Coverage sheet={sheet} answer={answer} onChange={onChange} />
    </div>
  );
}

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
