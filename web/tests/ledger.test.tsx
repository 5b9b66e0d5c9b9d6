// @vitest-environment happy-dom
import { act, createRef, type ReactNode } from "react";
import { beforeEach, expect, test, vi } from "vitest";
import type { Bench, LedgerLine } from "../src/api/client";
import { Ledger, type LedgerHandle, Verdict } from "../src/bench/Ledger";
import { ProposalNote } from "../src/bench/ProposalNote";
import { FigureText, Phrase } from "../src/shared/Figures";
import { show as showPart } from "./shown";

let place: HTMLElement;
const show = (node: ReactNode) => {
  place = showPart(node);
};

const text = (css: string) => place.querySelector(css)?.textContent ?? "";
const click = (css: string) => act(() => place.querySelector<HTMLElement>(css)?.click());

/** A line of the ledger; the figures are made up. */
function line(code: string, more: Partial<LedgerLine> = {}): LedgerLine {
  return {
    code,
    axle: "front",
    title: `Title of ${code}`,
    standing: "good",
    word: "clears",
    figure: { kind: "length_mm", value: 12.1, signed: false },
    limit: [{ text: "house minimum " }, { quantity: { kind: "length_mm", value: 5, signed: false } }],
    says: [{ text: "Likely at least " }, { quantity: { kind: "length_mm", value: 10.2, signed: false } }],
    caution: null,
    part: null,
    working: [],
    lacks: [],
    source: { kind: "common_practice", cite: "the house" },
    ...more,
  } as LedgerLine;
}

const bench = (lines: LedgerLine[], more: object = {}): Bench =>
  ({
    ledger: lines,
    axles: { front: { fit: null }, rear: { fit: null } },
    headline: {
      standing: "stop",
      word: "stop",
      sentence: [{ text: "Load: carries 70 kg less" }],
      judged_for: "daily",
      causes: [],
    },
    true_speeds: null,
    ...more,
  }) as unknown as Bench;

const ledger = (lines: LedgerLine[], more: object = {}) => (
  <Ledger bench={bench(lines, more)} moving={null} hasPlan hasFitted onPropose={() => {}} />
);

beforeEach(() => vi.restoreAllMocks());

test("a line shows its word, its figure and what it was held against", () => {
  show(ledger([line("clear-strut")]));
  const row = "[data-code=clear-strut]";
  expect(text(row)).toContain("Title of clear-strut");
  expect(text(row)).toContain("12.1mm");
  expect(text(row)).toContain("house minimum 5.0 mm");
  expect(text(row)).toContain("clears");
  expect(text(row)).not.toContain("Likely at least");
});

test("a line that waits for the car's record leads to each fact of it", () => {
  const lacks = [
    { fact: "bolt_circle", axle: null, title: "Bolt circle" },
    { fact: "hub_bore_mm", axle: "front" as const, title: "Hub diameter" },
  ];
  show(ledger([line("hub", { figure: null, standing: "unknown", word: "not known", lacks })]));
  expect(place.querySelector("[data-lacks]")).toBeNull();
  click("[data-code=hub] button");
  const links = [...place.querySelectorAll<HTMLAnchorElement>("[data-lacks=hub] a")];
  expect(links.map((one) => one.textContent)).toEqual(["Bolt circle", "Hub diameter, front"]);
  expect(links.map((one) => one.getAttribute("href")?.split("#")[1])).toEqual([
    "fact-bolt_circle",
    "fact-hub_bore_mm-front",
  ]);
});

test("what is not known has no figure, and no number in its place", () => {
  show(ledger([line("load-index", { figure: null, standing: "unknown", word: "not known" })]));
  expect(text("[data-code=load-index]")).toContain("—");
  expect(text("[data-code=load-index]")).toContain("not known");
});

test("an opened line says what it means, with its caution beside it", () => {
  show(
    ledger([
      line("load-index", {
        caution: "A tire that carries too little fails.",
        standing: "stop",
        word: "too low",
      }),
    ]),
  );
  click("[data-code=load-index] button");
  expect(text("[data-code=load-index]")).toContain("Likely at least 10.2 mm");
  expect(text("[data-code=load-index] .caution")).toBe("A tire that carries too little fails.");
  expect(place.querySelector("[data-code=load-index] button")?.getAttribute("aria-expanded")).toBe("true");
  click("[data-code=load-index] button");
  expect(place.querySelector("[data-code=load-index] .caution")).toBeNull();
});

test("only one line is open at a time", () => {
  show(ledger([line("a"), line("b")]));
  click("[data-code=a] button");
  click("[data-code=b] button");
  const open = [...place.querySelectorAll("[aria-expanded=true]")];
  expect(open).toHaveLength(1);
  expect(open[0]?.textContent).toContain("Title of b");
});

test("every cause is named at the top with what comes of it, and leads to its line", () => {
  const cause = (code: string, topic: string, axle: string, more: object = {}) => ({
    ...{ code, topic, axle, kind: "stop", says: [{ text: `Says ${code}` }] },
    ...{ figure: null, mend: null, consequences: [], ...more },
  });
  const causes = [
    cause("load-index", "load", "front", { consequences: ["pressure"] }),
    cause("speed", "speed", "rear"),
    cause("hub", "ring", "front", { kind: "condition" }),
  ];
  const headline = { ...bench([]).headline, causes };
  show(
    ledger([line("load-index"), line("pressure"), line("speed", { axle: "rear" }), line("hub")], {
      headline,
    }),
  );
  expect(text("[data-cause=load]")).toBe("with it: title of pressure");
  expect(text("[data-cause=speed]")).toBe("Says speed");
  expect(text("[data-causes] h2")).toBe("Goes only with");
  click("[data-cause=speed] button");
  expect(place.querySelector("[data-code=speed] button")?.getAttribute("aria-expanded")).toBe("true");
});

test("the working's key opens the first stop, else the first line, and shuts it again", () => {
  const handle = createRef<LedgerHandle>();
  const lines = [line("clear-strut"), line("load-index", { standing: "stop", word: "too low" })];
  show(<Ledger ref={handle} bench={bench(lines)} moving={null} hasPlan hasFitted onPropose={() => {}} />);
  act(() => handle.current?.toggleWorking());
  expect(place.querySelector("[data-code=load-index] button")?.getAttribute("aria-expanded")).toBe("true");
  act(() => handle.current?.toggleWorking());
  expect(place.querySelector("[aria-expanded=true]")).toBeNull();
});

test("true speeds stand under the speedometer's line, and under no other", () => {
  const speeds = {
    by_axle: "front",
    metric: [{ shown_kmh: 100, true_kmh: 101.9 }],
    imperial: [{ shown_kmh: 96.56064, true_kmh: 98.4 }],
  };
  show(ledger([line("speedometer", { axle: null }), line("clear-strut")], { true_speeds: speeds }));
  click("[data-code=speedometer] button");
  expect(text("[data-code=speedometer] table")).toContain("100 km/h");
  expect(text("[data-code=speedometer] table")).toContain("101.9 km/h");
  click("[data-code=clear-strut] button");
  expect(place.querySelector("[data-code=clear-strut] table")).toBeNull();
});

test("without a plan or without what is fitted it says what to type", () => {
  show(<Ledger bench={null} moving={null} hasPlan={false} hasFitted={false} onPropose={() => {}} />);
  expect(place.textContent).toContain("Type what is fitted now");
  show(<Ledger bench={null} moving={null} hasPlan={false} hasFitted onPropose={() => {}} />);
  expect(place.textContent).toContain("Type the planned setup");
});

test("the verdict is the program's own sentence", () => {
  show(<Verdict bench={bench([])} />);
  expect(text("[data-verdict=stop]")).toBe("Load: carries 70 kg less");
  expect(text("[data-judged-for]")).toBe("judged for daily");
  show(<Verdict bench={null} />);
  expect(place.textContent).toBe("Ledger");
});

test("a mend says what it does and costs, and is tried with one press", () => {
  const taken = vi.fn();
  const proposal = {
    says: [{ text: "ET 45 clears it" }],
    can_be_undone: false,
    costs: [
      { lever: "lip_rolled", title: "Lip rolled", costs: "Paint may crack.", caution: "Rust follows." },
    ],
  };
  show(<ProposalNote axle="rear" proposal={proposal as never} onTake={taken} />);
  expect(text("[data-proposal=rear]")).toContain("ET 45 clears it");
  expect(text("[data-proposal=rear]")).toContain("cannot be undone");
  expect(text("[data-proposal=rear]")).toContain("Rust follows.");
  click("[data-proposal=rear] button");
  expect(taken).toHaveBeenCalledTimes(1);
});

test("sentences carry their figures in the reader's units, unit and figure parted by a blank", () => {
  show(
    <Phrase
      fragments={[
        { text: "There is " },
        { quantity: { kind: "length_mm", value: -0.04, signed: true } },
        { text: " left, " },
        { quantity: { kind: "percent", value: 3.25, signed: true } },
        { text: " at " },
        { quantity: { kind: "speed_kmh", value: 100, signed: false } },
        { text: "." },
      ]}
    />,
  );
  expect(place.textContent).toBe("There is 0.0 mm left, +3.3 % at 100 km/h.");
});

test("a figure without a unit has none", () => {
  show(<FigureText quantity={{ kind: "ratio", value: 0.98765, signed: false }} />);
  expect(place.textContent).toBe("0.9877");
});
