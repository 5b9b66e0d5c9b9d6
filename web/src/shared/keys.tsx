/** Keys work when no field has the focus. One list registers them and shows them under `?`. */
import { useEffect, useRef } from "react";

export type KeyBinding = {
  /** As `KeyboardEvent.key`; with "Shift+" in front where the shift key matters. */
  keys: string[];
  /** As it is shown. */
  shown: string;
  does: string;
  /** Means a digit as part of a figure: it works while one is typed. */
  takesFigures?: boolean;
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

/** Part of a figure: whoever was typing one does not mean a stage of the work by the next digit. */
const IS_OF_A_FIGURE = /^[0-9.,+-]$/;

export function useKeys(bindings: KeyBinding[]) {
  const current = useRef(bindings);
  current.current = bindings;
  const isTypingFigures = useRef(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (typedInto(event.target) || document.querySelector("dialog[open]")) {
        if (IS_OF_A_FIGURE.test(event.key)) isTypingFigures.current = true;
        else if (event.key.length === 1) isTypingFigures.current = false;
        return;
      }
      const wasTyping = isTypingFigures.current;
      // Enter and Tab end a figure and begin the next one; any other key is about something else.
      if (!["Enter", "Tab", "Shift"].includes(event.key) && !IS_OF_A_FIGURE.test(event.key)) {
        isTypingFigures.current = false;
      }
      const key = named(event);
      const binding = current.current.find((candidate) => candidate.keys.includes(key));
      if (wasTyping && IS_OF_A_FIGURE.test(event.key) && !binding?.takesFigures) return;
      if (binding) {
        event.preventDefault();
        binding.run(key);
      }
    };
    const onPress = () => {
      isTypingFigures.current = false;
    };
    window.addEventListener("keydown", onKey);
    window.addEventListener("pointerdown", onPress);
    return () => {
      window.removeEventListener("keydown", onKey);
      window.removeEventListener("pointerdown", onPress);
    };
  }, []);
}
