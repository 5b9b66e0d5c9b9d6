import type { Drive, Stage } from "../api/client";

/** The stages of the work, in working order; only those with a screen of their own, which name its path, lead anywhere. */
export const STAGES: { code: Stage; name: string; path?: string }[] = [
  { code: "car", name: "Car", path: "car" },
  { code: "bay", name: "Bay", path: "bay" },
  { code: "bench", name: "Bench", path: "bench" },
  { code: "rack", name: "Rack", path: "rack" },
  { code: "brakes", name: "Brakes", path: "brakes" },
  { code: "trial_fit", name: "Trial fit", path: "trial" },
  { code: "road_and_track", name: "Road & track", path: "road" },
  { code: "handover", name: "Handover" },
];

export const stageName = (code: Stage) => STAGES.find((stage) => stage.code === code)?.name ?? code;

export const DRIVES: { code: Drive | ""; name: string }[] = [
  { code: "", name: "not known" },
  { code: "fwd", name: "front" },
  { code: "rwd", name: "rear" },
  { code: "awd", name: "all-wheel" },
];

/** Said of the way to a job's bench by the form that opened the job. */
export const JUST_OPENED = "just opened";
