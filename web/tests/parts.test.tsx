// @vitest-environment happy-dom
import { act, useState } from "react";
import { expect, test, vi } from "vitest";
import { Caution, Fault, InlineFault } from "../src/shared/Caution";
import { Choice } from "../src/shared/Choice";
import { Dialog } from "../src/shared/Dialog";
import { FileButton } from "../src/shared/FileButton";
import { Mark, StandingWord } from "../src/shared/Mark";
import { NumberBox } from "../src/shared/NumberBox";
import { Segments } from "../src/shared/Segments";
import { Tabs } from "../src/shared/Tabs";
import { show } from "./shown";

const all = (place: HTMLElement, css: string) => [...place.querySelectorAll<HTMLElement>(css)];
const one = (place: HTMLElement, css: string) => {
  const found = place.querySelector<HTMLElement>(css);
  if (!found) throw new Error(`no ${css}`);
  return found;
};
const click = (element: HTMLElement) => act(() => element.click());
const key = (element: HTMLElement, name: string) =>
  act(() => {
    element.dispatchEvent(new KeyboardEvent("keydown", { key: name, bubbles: true, cancelable: true }));
  });

/** Types into a field as a browser does: React hears of it by the element's own setter. */
function type(field: HTMLElement, text: string) {
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
  act(() => {
    set?.call(field, text);
    field.dispatchEvent(new Event("input", { bubbles: true }));
  });
}

const PARTS = [
  { code: "ledger", name: "Ledger" },
  { code: "window", name: "Fit window", key: "l" },
  { code: "measure", name: "Measure 7" },
] as const;

function TabbedScreen({ onShow }: { onShow?: (code: string) => void }) {
  const [value, setValue] = useState<(typeof PARTS)[number]["code"]>("ledger");
  return (
    <Tabs
      label="Beside the drawing"
      value={value}
      tabs={PARTS}
      onShow={(code) => {
        setValue(code);
        onShow?.(code);
      }}
    />
  );
}

test("tabs: one is shown, and only that one is a stop of the tab key", () => {
  const place = show(<TabbedScreen />);
  const tabs = all(place, "[role=tab]");
  expect(tabs.map((tab) => tab.getAttribute("aria-selected"))).toEqual(["true", "false", "false"]);
  expect(tabs.map((tab) => tab.tabIndex)).toEqual([0, -1, -1]);
  expect(one(place, "[role=tablist]").getAttribute("aria-label")).toBe("Beside the drawing");
  expect(one(place, "[data-tab=window]").textContent).toContain("l");
  click(one(place, "[data-tab=measure]"));
  expect(all(place, "[role=tab]").map((tab) => tab.tabIndex)).toEqual([-1, -1, 0]);
});

test("tabs: arrow keys go on and round, take the focus along and stay with the tabs", () => {
  const seen: string[] = [];
  const place = show(<TabbedScreen onShow={(code) => seen.push(code)} />);
  const outside = vi.fn();
  document.addEventListener("keydown", outside);
  one(place, "[data-tab=ledger]").focus();
  key(one(place, "[data-tab=ledger]"), "ArrowRight");
  expect(document.activeElement?.getAttribute("data-tab")).toBe("window");
  key(one(place, "[data-tab=window]"), "ArrowRight");
  key(one(place, "[data-tab=measure]"), "ArrowRight");
  key(one(place, "[data-tab=ledger]"), "ArrowLeft");
  expect(seen).toEqual(["window", "measure", "ledger", "measure"]);
  // The screen's own arrow keys move the wheel: they must not hear of these.
  expect(outside).not.toHaveBeenCalled();
  key(one(place, "[data-tab=measure]"), "k");
  expect(outside).toHaveBeenCalledTimes(1);
  document.removeEventListener("keydown", outside);
});

test("segments: a group of radios under one name, of which one stands", () => {
  const picked: string[] = [];
  const place = show(
    <Segments
      tall
      label="The car stands"
      value="ground"
      options={[
        ["ground", "on the ground"],
        ["hanging", "hanging"],
      ]}
      onPick={(code) => picked.push(code)}
    />,
  );
  const radios = all(place, "input[type=radio]") as HTMLInputElement[];
  expect(radios.map((radio) => radio.checked)).toEqual([true, false]);
  expect(new Set(radios.map((radio) => radio.name)).size).toBe(1);
  expect(one(place, "fieldset").getAttribute("aria-label")).toBe("The car stands");
  expect(one(place, "fieldset").className).toContain("segments-tall");
  click(radios[1] as HTMLElement);
  expect(picked).toEqual(["hanging"]);
});

test("two groups of segments on one screen do not take each other's choice", () => {
  const group = (label: string) => (
    <Segments
      label={label}
      value="a"
      options={[["a", "a"] as const, ["b", "b"] as const]}
      onPick={() => {}}
    />
  );
  const place = show(
    <>
      {group("one")}
      {group("other")}
    </>,
  );
  const checked = (all(place, "input[type=radio]") as HTMLInputElement[]).map((radio) => radio.checked);
  expect(checked).toEqual([true, false, true, false]);
});

test("a caution stands on the screen, graver where something stands against it", () => {
  const place = show(
    <>
      <Caution className="mt-2" data-of="the lift">
        Turn lock to lock first.
      </Caution>
      <Caution grave>Not to be driven.</Caution>
    </>,
  );
  const [mild, grave] = all(place, ".caution");
  expect(mild?.textContent).toBe("Turn lock to lock first.");
  expect(mild?.className).toContain("alert-warning");
  expect(mild?.className).toContain("mt-2");
  expect(mild?.dataset.of).toBe("the lift");
  expect(grave?.className).toContain("alert-error");
});

test("a fault is read out, as a paragraph or inside of a line", () => {
  const place = show(
    <>
      <Fault>Write the figure as a number.</Fault>
      <InlineFault>15 kg is no car.</InlineFault>
    </>,
  );
  expect(all(place, "[role=alert]").map((fault) => fault.tagName)).toEqual(["P", "SPAN"]);
});

test("a choice hands on the code and shows the words", () => {
  const picked: string[] = [];
  const place = show(
    <Choice
      label="Season"
      value="summer"
      options={[
        ["summer", "summer"],
        ["all_year", "all year"],
      ]}
      onPick={(code) => picked.push(code)}
    />,
  );
  const select = one(place, "select") as HTMLSelectElement;
  expect([...select.options].map((option) => option.text)).toEqual(["summer", "all year"]);
  act(() => {
    select.value = "all_year";
    select.dispatchEvent(new Event("change", { bubbles: true }));
  });
  expect(picked).toEqual(["all_year"]);
  expect(one(place, "label").textContent).toContain("Season");
});

function Figure({ put }: { put: (value: number | null) => void }) {
  const [value, setValue] = useState<number | null>(8);
  return (
    <NumberBox
      label="Smallest rim, in"
      value={value}
      onPut={(next) => {
        put(next);
        setValue(next);
      }}
    />
  );
}

test("a box for a number keeps what is half typed and says only whole figures", () => {
  const said: (number | null)[] = [];
  const field = one(show(<Figure put={(value) => said.push(value)} />), "input") as HTMLInputElement;
  expect(field.value).toBe("8");
  for (const text of ["-", "2,", "2,5", ""]) type(field, text);
  expect(said).toEqual([2, 2.5, null]);
  type(field, "nonsense");
  expect(field.value).toBe("nonsense");
  expect(said).toHaveLength(3);
  act(() => {
    field.dispatchEvent(new FocusEvent("focusout", { bubbles: true }));
  });
  expect(field.value).toBe("");
});

test("a dialog names itself, shows what it is about and closes", () => {
  const close = vi.fn();
  const opened = vi.spyOn(HTMLDialogElement.prototype, "showModal");
  const place = show(
    <Dialog title="Keys" onClose={close}>
      <p>They work when no field has the focus.</p>
    </Dialog>,
  );
  expect(opened).toHaveBeenCalled();
  const dialog = one(place, "dialog");
  expect(dialog.getAttribute("aria-label")).toBe("Keys");
  expect(dialog.className).toContain("modal");
  expect(one(place, "h2").textContent).toBe("Keys");
  click(one(place, "button"));
  expect(close).toHaveBeenCalled();
});

test("a file can be brought, and the same one again", () => {
  const brought: string[] = [];
  const place = show(
    <FileButton
      text="Choose the file"
      label="Price list file"
      accept=".csv"
      onFile={(file) => brought.push(file.name)}
    />,
  );
  const input = one(place, "input") as HTMLInputElement;
  expect([input.accept, input.getAttribute("aria-label")]).toEqual([".csv", "Price list file"]);
  for (let times = 0; times < 2; times += 1) {
    Object.defineProperty(input, "files", { value: [new File(["a;b"], "list.csv")], configurable: true });
    act(() => {
      input.dispatchEvent(new Event("change", { bubbles: true }));
    });
  }
  expect(brought).toEqual(["list.csv", "list.csv"]);
});

test("each standing has a shape and a word of its own, colour only repeats them", () => {
  const standings = ["good", "unknown", "measure", "mind", "stop"] as const;
  const shapes = standings.map((standing) =>
    one(show(<Mark standing={standing} />), "path").getAttribute("d"),
  );
  expect(new Set(shapes).size).toBe(standings.length);
  const word = one(show(<StandingWord standing="stop" word="touches" />), "span");
  expect(word.textContent).toBe("touches");
  expect(one(show(<Mark standing="good" />), "svg").getAttribute("aria-hidden")).toBe("true");
});
