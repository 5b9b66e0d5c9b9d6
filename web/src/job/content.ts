import type { Job, Lines } from "../api/client";

/** What a person can change of a job on its sheet. Readings have paths of their own. */
export type Content = Pick<
  Job,
  | "car_label"
  | "wish"
  | "stage"
  | "drive"
  | "notes"
  | "fitted"
  | "planned"
  | "candidates"
  | "put_away"
  | "car"
  | "levers"
  | "wanted"
  | "picked"
  | "answered"
  | "templates"
  | "trials"
>;

export function contentOf(job: Job): Content {
  const { car_label, wish, stage, drive, notes, fitted, planned, candidates, put_away } = job;
  const { car, levers, wanted, picked, answered, templates, trials } = job;
  return {
    car_label,
    wish,
    stage,
    drive,
    notes,
    fitted,
    planned,
    candidates,
    put_away,
    car,
    levers,
    wanted,
    picked,
    answered,
    templates,
    trials,
  };
}

export const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

export const isEmpty = (lines: Lines) => !lines.front && !lines.rear;

/** A pair as one line, the way it is read again. */
export function asLine(lines: Lines): string {
  if (lines.front && lines.front === lines.rear) return lines.front;
  return [lines.front && `F: ${lines.front}`, lines.rear && `R: ${lines.rear}`].filter(Boolean).join("  ");
}
