import type { useSheet } from "../job/JobSheet";
import type { Shown } from "./PartRow";

type Open = ReturnType<typeof useSheet>["open"];

/** The job's readings and those still kept here, as one list; troubles by the job's own count. */
export function shownReadings(job: Open["job"], queue: Open["readings"]["queue"]): Shown[] {
  return [
    ...job.readings.map((reading, index) => ({
      id: reading.id,
      axle: reading.axle,
      side: reading.side ?? null,
      what: reading.what,
      value: reading.value,
      unit: reading.unit,
      instrument: reading.instrument,
      plusMinus: reading.plus_minus_mm as number | null,
      how: manners(reading.fitted == null, reading.stance, reading.steer, reading.radius_mm ?? null),
      isCopied: reading.is_copied,
      isSent: true,
      troubles: job.troubles.filter((one) => one.reading === index),
    })),
    ...queue.map((reading) => ({
      id: reading.id,
      axle: reading.axle,
      side: reading.side ?? null,
      what: reading.what,
      value: reading.value,
      unit: reading.unit,
      instrument: reading.instrument,
      plusMinus: reading.plus_minus_mm ?? null,
      how: manners(
        reading.bare_hub ?? false,
        reading.stance ?? "ground",
        reading.steer ?? "",
        reading.radius_mm ?? null,
      ),
      isCopied: false,
      isSent: false,
      refused: reading.refused,
      troubles: [],
    })),
  ];
}

/** How a reading was taken, where it was not the usual way. */
function manners(bareHub: boolean, stance: string, steer: string, radius: number | null): string {
  return [
    bareHub && "from the bare hub",
    stance === "hanging" && "hanging",
    steer === "lock_left" && "lock left",
    steer === "lock_right" && "lock right",
    radius != null && `${radius} mm from the axle`,
  ]
    .filter(Boolean)
    .join(", ");
}
