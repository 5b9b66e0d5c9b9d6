// @vitest-environment happy-dom
// @vitest-environment-options {"url": "http://shop.test/"}
import { act, useState } from "react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { SetupField } from "../src/shared/SetupField";
import { show } from "./shown";

/** The client takes the browser's way of asking as it finds it when it is loaded. */
const program = vi.hoisted(() => {
  const program = { answer: async (_: Request): Promise<Response> => Response.error() };
  globalThis.fetch = (input) => program.answer(input as Request);
  return program;
});

const asked: string[] = [];
const edits: string[] = [];

/** Reads what the tests write: figures are a wheel, "4.x" is asked about, words are left aside. */
async function read(request: Request): Promise<Response> {
  const { text } = (await request.json()) as { text: string };
  asked.push(text);
  const stretches = text.split(/(\s+)/).map((word) => ({
    text: word,
    kind: /^\s*$/.test(word) ? "gap" : /^\d/.test(word) ? "wheel" : "left_aside",
    problem: word.endsWith("?") ? "is half a size" : null,
    example: null,
  }));
  const left_aside = stretches.flatMap((one) => (one.kind === "left_aside" ? [one.text] : []));
  const front = stretches.flatMap((one) => (one.kind === "wheel" ? [one.text.toUpperCase()] : [])).join(" ");
  const is_sound = !stretches.some((one) => one.problem);
  return Response.json({ stretches, is_sound, names_axles: false, lines: { front }, left_aside, ask: [] });
}

function Plan() {
  const [value, setValue] = useState("17X7 ET45");
  return (
    <SetupField
      label="Planned"
      tone="planned"
      keptAs="plan-front"
      value={value}
      placeholder=""
      onRead={({ lines }) => {
        edits.push(lines.front ?? "");
        setValue(lines.front ?? "");
      }}
    />
  );
}

let place: HTMLElement;
const field = () => place.querySelector("textarea") as HTMLTextAreaElement;
const isOnItsWay = () => place.querySelector("[data-on-its-way]") !== null;
/** Time goes by: first the program's answer is shown, then what waits for a pause. */
async function passed(ms: number) {
  await act(() => vi.advanceTimersByTimeAsync(1));
  await act(() => vi.advanceTimersByTimeAsync(ms));
}
function type(text: string) {
  act(() => {
    field().focus();
    // React hears only what changes the field by its own setter.
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, "value")?.set?.call(field(), text);
    field().dispatchEvent(new Event("input", { bubbles: true }));
  });
}
const press = (key: string) =>
  act(() => {
    field().dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
  });

beforeEach(() => {
  vi.useFakeTimers();
  sessionStorage.clear();
  asked.length = 0;
  edits.length = 0;
  program.answer = read;
  place = show(<Plan />);
});
afterEach(() => vi.useRealTimers());

test("a line goes over once it is whole, and what is no part of it is said after it is gone", async () => {
  type("18x8 et30 ball seats");
  expect(isOnItsWay()).toBe(true);
  press("Enter");
  await passed(10);
  expect(edits).toEqual(["18X8"]);
  await passed(500);
  expect(field().value).toBe("18X8");
  expect(place.querySelector("[data-dropped]")?.textContent).toBe(
    "Left aside, as no part of a wheel or tire: et30 ball seats.",
  );
  expect(isOnItsWay()).toBe(false);
  type("19x8");
  expect(place.querySelector("[data-dropped]")).toBeNull();
});

test("half a size is no plan: it stays as it was typed, with its fault, over leaving", async () => {
  type("18x?");
  await passed(2000);
  press("Enter");
  await passed(2000);
  expect(edits).toEqual([]);
  expect(field().value).toBe("18x?");
  expect(place.textContent).toContain("is half a size");
  expect(isOnItsWay()).toBe(false);
  expect(sessionStorage.getItem("dimensione.line.plan-front")).toBe("18x?");
});

test("a pause at a readable whole hands it on once; Escape takes back what was not", async () => {
  type("18x8");
  await passed(5000);
  expect(edits).toEqual(["18X8"]);
  expect(isOnItsWay()).toBe(false);
  type("19");
  expect(isOnItsWay()).toBe(true);
  press("Escape");
  await passed(5000);
  expect(edits).toEqual(["18X8"]);
  expect(field().value).toBe("18X8");
});

test("while the program is away the line stays, is on its way, and follows when it is back", async () => {
  program.answer = async () => Promise.reject(new TypeError("Failed to fetch"));
  type("18x8");
  press("Enter");
  await passed(100);
  expect(place.textContent).toContain("What you typed stays here");
  expect(isOnItsWay()).toBe(true);
  program.answer = read;
  await passed(3000);
  expect(edits).toEqual(["18X8"]);
  expect(isOnItsWay()).toBe(false);
});
