/**
 * Which of the shop's files this page works for. The program at an address may have another file after a start: a backup was
 * put back, or another shop was opened. What the page then still shows is nothing for the new file, and the page begins anew.
 */
import { useSyncExternalStore } from "react";

let current = "";
const listeners = new Set<() => void>();

/** The header by which the program refuses what is for another file. */
export const OF_FILE = "of-file";

/** The file as the program last said it; empty until it did. */
export const fileId = () => current;

/** The program says which file it has. */
export function fileIs(id: string) {
  if (!id || id === current) return;
  current = id;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useFileId = () => useSyncExternalStore(subscribe, fileId);

type Refusal = () => void;
let ask: Refusal = () => {};

/** What is done when the program says that it has another file: it is asked which. */
export const whenAnother = (how: Refusal) => {
  ask = how;
};
export const isAnother = () => ask();
