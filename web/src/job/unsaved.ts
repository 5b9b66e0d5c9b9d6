/**
 * Work that the program has not taken yet is kept in the browser until it has: by the job's uid, with the revision that it was
 * typed on, so that no other job of the same number ever finds it.
 */
import type { Job, Tag } from "../api/client";
import { kept } from "../shared/kept";
import type { Content } from "./content";

/** A change that was sent and not answered: it may be applied already, and goes again under its key. */
export type Sent = { content: Content; tag: Tag; basedOn: number; key: string };

/** What people call the job by. */
export type Called = { number: string; car: string };

export type Unsaved = {
  tag: Tag;
  /** The revision's number, as people say it. */
  basedOn: number;
  called: Called;
  /** When it was last typed, RFC 3339. */
  at: string;
  /** The job's content in that revision: what was typed is the difference. */
  base: Content;
  content: Content;
  sent?: Sent | null;
};

export const UNSAVED = "dimensione.unsaved.";

export const keepUnsaved = (unsaved: Unsaved) => kept.write(UNSAVED + unsaved.tag.uid, unsaved);
export const forgetUnsaved = (uid: string) => kept.drop(UNSAVED + uid);
export const readUnsaved = (uid: string) => kept.read<Unsaved>(UNSAVED + uid);

export const calledOf = (job: Pick<Job, "number" | "car_label">): Called => ({
  number: job.number,
  car: job.car_label,
});

const SIGN = "dimensione.signed-by";

/** Who signs the sheet, on this machine. */
export const signedBy = () => kept.get(SIGN) ?? "";
export const setSignedBy = (initials: string) => kept.put(SIGN, initials);
