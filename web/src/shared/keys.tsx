/** Keys work when no field has the focus. One list registers them and shows them under `?`. */
import { useEffect, useRef } from "react";

export type KeyBinding = {
  /** As `KeyboardEvent.key`; with "Shift+" in front where the shift key matters. */
  keys: string[];
  /** As it is shown. */
  shown: string;
  does: string;
  run: (key: string) => void;
};

function typedInto(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName);
}

function named(event: KeyboardEvent): string {
  const arrow = event.key.startsWith("Arrow");
  return event.shiftKey && (arrow || event.key.length > 1 || /[a-z]/i.test(event.key))
    ? `Shift+${arrow ? event.key : event.key.toLowerCase()}`
    : event.key.length === 1
      ? event.key.toLowerCase()
      : event.key;
}

export function useKeys(bindings: KeyBinding[]) {
  const current = useRef(bindings);
  current.current = bindings;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (typedInto(event.target) || document.querySelector("dialog[open]")) return;
      const key = named(event);
      const binding = current.current.find((candidate) => candidate.keys.includes(key));
      if (binding) {
        event.preventDefault();
        binding.run(key);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
