import { useCallback, useEffect, useState } from "react";

const PREFIX = "dimensione.draft.";

export function readDraft<T>(name: string, start: T): T {
  try {
    const text = localStorage.getItem(PREFIX + name);
    return text === null ? start : (JSON.parse(text) as T);
  } catch {
    return start;
  }
}

export function keepDraft<T>(name: string, value: T, start: T) {
  if (JSON.stringify(value) === JSON.stringify(start)) localStorage.removeItem(PREFIX + name);
  else localStorage.setItem(PREFIX + name, JSON.stringify(value));
}

/**
 * What is typed and not yet handed on, by a name of its own: it outlives another choice, another screen and a reload.
 * Put back to its start it is forgotten.
 */
export function useDraft<T>(name: string, start: T): [T, (value: T | ((before: T) => T)) => void] {
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
