import type { Job, Lines } from "../api/client";

export { same } from "./merge";

/** What the program keeps of a job, and readings, which have paths of their own. The rest a person can change. */
type Kept =
  | "id"
  | "number"
  | "revision"
  | "created_at"
  | "updated_at"
  | "can_undo"
  | "can_redo"
  | "undoes"
  | "redoes"
  | "readings"
  | "troubles";

/** What a person can change of a job on its sheet. */
export type Content = Omit<Job, Kept>;

export function contentOf(job: Job): Content {
  const {
    id,
    number,
    revision,
    created_at,
    updated_at,
    can_undo,
    can_redo,
    undoes,
    redoes,
    readings,
    troubles,
    ...content
  } = job;
  return content;
}

export const isEmpty = (lines: Lines) => !lines.front && !lines.rear;

/** A pair as one line, the way it is read again. */
export function asLine(lines: Lines): string {
  if (lines.front && lines.front === lines.rear) return lines.front;
  return [lines.front && `F: ${lines.front}`, lines.rear && `R: ${lines.rear}`].filter(Boolean).join("  ");
}
