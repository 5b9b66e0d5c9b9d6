import { useCallback, useEffect, useState } from "react";
import { DRAFTS, kept } from "./kept";

export function readDraft<T>(name: string, start: T): T {
  return kept.read<T>(DRAFTS + name) ?? start;
}

export function keepDraft<T>(name: string, value: T, start: T) {
  if (JSON.stringify(value) === JSON.stringify(start)) kept.drop(DRAFTS + name);
  else kept.write(DRAFTS + name, value);
}

/**
 * What is typed and not yet handed on, by whose it is (a job's uid, or the file's id) and a name of its own: it outlives
 * another choice, another screen and a reload, and is never found by another job of the same number. Put back to its start it
 * is forgotten.
 */
export function useDraft<T>(
  whose: string,
  called: string,
  start: T,
): [T, (value: T | ((before: T) => T)) => void] {
  const name = `${whose}.${called}`;
  const [value, setValue] = useState(() => readDraft(name, start));
  // biome-ignore lint/correctness/useExhaustiveDependencies: what a draft starts from does not change under its name
  const put = useCallback(
    (next: T | ((before: T) => T)) =>
      setValue((before) => {
        const made = next instanceof Function ? next(before) : next;
        keepDraft(name, made, start);
        return made;
      }),
    [name],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: as above
  useEffect(() => setValue(readDraft(name, start)), [name]);
  return [value, put];
}
