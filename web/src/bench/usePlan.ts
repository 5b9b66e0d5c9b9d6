import { useMemo } from "react";
import type { TireChoice } from "../api/client";
import type { Content } from "../job/content";
import type { OpenJob } from "../job/useJob";
import type { Plan } from "./useBench";

export type PairOfLevers = Content["levers"];

/** The job's plan as a question to the program; a new one whenever plan, car or readings change. */
export function usePlan({ content, id, job }: OpenJob, tire_choice: TireChoice = "same"): Plan {
  const { fitted, planned, drive, levers, wanted } = content;
  // Readings and the car's record are with the program: it is asked again once they have arrived there.
  const readings = `${job.revision}`;
  return useMemo(
    () => ({ fitted, planned, drive, levers, wanted, tire_choice, job: id, readings }),
    [fitted, planned, drive, levers, wanted, tire_choice, id, readings],
  );
}
