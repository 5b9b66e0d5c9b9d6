/** Work the program has not taken yet is kept in the browser until it has. */
import type { Content } from "./content";

/** A change that was sent and not answered: it may be applied already, and goes again under its key. */
export type Sent = { content: Content; basedOn: number; key: string };

type Unsaved = { basedOn: number; content: Content; sent?: Sent | null };

const keptAs = (id: number) => `dimensione.unsaved.${id}`;

export function keepUnsaved(id: number, unsaved: Unsaved) {
  localStorage.setItem(keptAs(id), JSON.stringify(unsaved));
}

export function forgetUnsaved(id: number) {
  localStorage.removeItem(keptAs(id));
}

export function readUnsaved(id: number): Unsaved | null {
  try {
    const text = localStorage.getItem(keptAs(id));
    return text ? (JSON.parse(text) as Unsaved) : null;
  } catch {
    return null;
  }
}

const SIGN = "dimensione.signed-by";

/** Who signs the sheet, on this machine. */
export const signedBy = () => localStorage.getItem(SIGN) ?? "";
export const setSignedBy = (initials: string) => localStorage.setItem(SIGN, initials);
