// @vitest-environment happy-dom
import { act, StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { beforeEach, expect, test } from "vitest";
import { type KeyBinding, useKeys } from "../src/shared/keys";

let ran: string[] = [];
const stage: KeyBinding = { keys: ["2", "k"], shown: "2", does: "a screen", run: (key) => ran.push(key) };

function Screen({ bindings }: { bindings: KeyBinding[] }) {
  useKeys(bindings);
  return <input aria-label="figure" />;
}

function open(bindings: KeyBinding[]): HTMLInputElement {
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
  document.body.innerHTML = "<main></main>";
  const place = document.querySelector("main") as HTMLElement;
  act(() =>
    createRoot(place).render(
      <StrictMode>
        <Screen bindings={bindings} />
      </StrictMode>,
    ),
  );
  return place.querySelector("input") as HTMLInputElement;
}

const press = (key: string, target: EventTarget = document.body) =>
  target.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));

beforeEach(() => {
  ran = [];
});

test("a digit is a stage of the work when no figure is typed", () => {
  open([stage]);
  press("2");
  expect(ran).toEqual(["2"]);
});

test("after a figure was typed the next digit is no stage, until something else is done", () => {
  const field = open([stage]);
  press("1", field);
  press("Enter", field);
  press("2");
  expect(ran).toEqual([]);
  document.body.dispatchEvent(new Event("pointerdown", { bubbles: true }));
  press("2");
  expect(ran).toEqual(["2"]);
});

test("a letter ends the figure, and keys in a field are the field's", () => {
  const field = open([stage]);
  press("1", field);
  press("k");
  press("2");
  expect(ran).toEqual(["k", "2"]);
  press("2", field);
  expect(ran).toEqual(["k", "2"]);
});

test("a screen that takes figures has its digits at once, and before the stages", () => {
  const taken: string[] = [];
  const figures = {
    keys: ["2"],
    shown: "0…9",
    does: "figure",
    takesFigures: true,
    run: (key: string) => taken.push(key),
  };
  const field = open([figures, stage]);
  press("1", field);
  press("2");
  expect([taken, ran]).toEqual([["2"], []]);
});
