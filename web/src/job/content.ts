import type { Job, Lines } from "../api/client";

import { same } from "./merge";

export { same };

/** What the program keeps of a job, and readings, which have paths of their own. The rest a person can change. */
type Kept =
  | "id"
  | "number"
  | "uid"
  | "revision"
  | "token"
  | "created_at"
  | "updated_at"
  | "can_undo"
  | "can_redo"
  | "undoes"
  | "redoes"
  | "readings"
  | "troubles"
  | "unreadable";

/** What a person can change of a job on its sheet. */
export type Content = Omit<Job, Kept>;

export function contentOf(job: Job): Content {
  const {
    id,
    number,
    uid,
    revision,
    token,
    created_at,
    updated_at,
    can_undo,
    can_redo,
    undoes,
    redoes,
    readings,
    troubles,
    unreadable,
    ...content
  } = job;
  return content;
}

/** What the bench becomes when a kept setup is put on it: its lines, the work it counts on, its own parts first. */
export function benchOf(kept: Content["candidates"][number], content: Content): Partial<Content> {
  const own = kept.picked ?? [];
  const isOther = (row: Content["picked"][number]) =>
    own.every((one) => one.kind !== row.kind || one.row !== row.row);
  return {
    planned: kept.lines,
    levers: kept.levers ?? content.levers,
    picked: [...own, ...content.picked.filter(isOther)],
  };
}

/** Whether the bench holds a kept setup: the same lines on the same work. */
export const isOnBench = (kept: Content["candidates"][number], { planned, levers }: Content) =>
  same(kept.lines, planned) && same(kept.levers ?? levers, levers);

export const isEmpty = (lines: Lines) => !lines.front && !lines.rear;

/** A pair as one line, the way it is read again. */
export function asLine(lines: Lines): string {
  if (lines.front && lines.front === lines.rear) return lines.front;
  return [lines.front && `F: ${lines.front}`, lines.rear && `R: ${lines.rear}`].filter(Boolean).join("  ");
}
