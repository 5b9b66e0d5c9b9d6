// @vitest-environment happy-dom
import { act, type ReactNode } from "react";
import { expect, test, vi } from "vitest";
import type { AxleFit, LedgerLine, Schemas, SetupView, Width } from "../src/api/client";
import { FitWindow } from "../src/bench/FitWindow";
import { grouped } from "../src/bench/grouping";
import { FitRuler } from "../src/drawing/FitRuler";
import type { Place } from "../src/drawing/scale";
import { StretchRow } from "../src/motion/StretchRow";
import { Conclusions } from "../src/trial/Conclusions";
import { show as showPart } from "./shown";

const VERDICTS = [
  { code: "clears", standing: "good", word: "clears" },
  { code: "tight", standing: "mind", word: "tight" },
  { code: "measure_first", standing: "measure", word: "measure first" },
  { code: "touches", standing: "stop", word: "touches" },
];

const show = (node: ReactNode) => showPart(node, { verdicts: VERDICTS });

/** A width of the window that clears between two offsets. */
function width(rim: number, more: Partial<Width> = {}): Width {
  return {
    rim_width_in: rim,
    offset_min_mm: 25.8,
    offset_max_mm: 38.6,
    min_bound_by: "fender_lateral",
    max_bound_by: "strut",
    min_bound_name: "fender lip",
    max_bound_name: "strut",
    past_the_lip: null,
    clears: true,
    short_by_mm: null,
    blocked_by: [],
    tire: "235/35R19",
    tire_permitted: true,
    wanted_min_mm: null,
    wanted_max_mm: null,
    ...more,
  };
}

const axleFit = (window: Width[]): AxleFit =>
  ({
    window,
    marks: [
      { kind: "fitted", letter: null, rim_width_in: 8, offset_mm: 34, verdict: "clears" },
      { kind: "planned", letter: null, rim_width_in: 8.5, offset_mm: 33, verdict: "clears" },
    ],
  }) as unknown as AxleFit;

const PLACE: Place = { k: 1, x: (mm) => mm, y: (mm) => mm, left: 0, right: 400, top: 0, bottom: 400 };
const PLANNED = { rim_width_in: 8.5, offset_mm: 33 } as SetupView;

const ruler = (one: Width) =>
  show(
    <svg>
      <title>corner</title>
      <FitRuler axle="front" fit={axleFit([one])} planned={PLANNED} place={PLACE} />
    </svg>,
  );

const words = (place: HTMLElement) => [...place.querySelectorAll("text")].map((text) => text.textContent);

test("the ruler names what binds on each side, and fills what clears", () => {
  const place = ruler(width(8.5));
  expect(words(place)).toContain("strut at ET 38.6");
  expect(words(place)).toContain("fender lip at ET 25.8");
  expect(place.querySelector("[data-clears]")?.getAttribute("class")).toBe("ruler-clears");
  expect(place.querySelectorAll(".ruler-edge")).toHaveLength(2);
});

test.each([
  ["outboard", { offset_min_mm: null, min_bound_name: null }, "outboard not measured"],
  ["inboard", { offset_max_mm: null, max_bound_name: null }, "inboard not measured"],
])("a side that nobody measured has no verdict's colour: %s", (_, open, said) => {
  const place = ruler(width(8.5, open));
  expect(words(place)).toContain(said);
  expect(place.querySelector("[data-clears]")?.getAttribute("class")).toBe("ruler-open");
});

test.each([
  ["clears", "outside the lip, as wanted"],
  ["measure_first", "outside the lip: measure first"],
] as const)("a wheel that is meant to poke is told so: %s", (word, said) => {
  const place = ruler(width(8.5, { offset_min_mm: null, min_bound_name: null, past_the_lip: word }));
  expect(words(place)).toContain(said);
  expect(words(place)).not.toContain("outboard not measured");
});

test("where no offset clears nothing is filled, and it is said over the ruler and not over its ticks", () => {
  const place = ruler(width(8.5, { clears: false, offset_min_mm: 40, offset_max_mm: 30, short_by_mm: 10 }));
  expect(place.querySelector("[data-clears]")).toBeNull();
  const said = [...place.querySelectorAll("text")].find((text) => text.textContent === "no offset clears");
  const ticks = [...place.querySelectorAll("text")].filter((text) => /^−?\d+$/.test(text.textContent ?? ""));
  expect(ticks.length).toBeGreaterThan(5);
  for (const tick of ticks) {
    expect(Number(said?.getAttribute("y"))).toBeLessThan(Number(tick.getAttribute("y")) - 20);
  }
  expect(words(ruler(width(8.5, { clears: false, blocked_by: ["arch"] })))).toContain(
    "blocked at any offset",
  );
});

test("the ruler stands still under a dragged wheel, and without a planned offset there is none", () => {
  const at = (offset: number) => {
    const place = show(
      <svg>
        <title>corner</title>
        <FitRuler
          axle="front"
          fit={axleFit([width(8.5)])}
          planned={{ ...PLANNED, offset_mm: offset }}
          place={PLACE}
        />
      </svg>,
    );
    return place.querySelector("[data-mark=fitted]")?.getAttribute("d");
  };
  expect(at(33)).toBe(at(28));
  const none = { ...PLANNED, offset_mm: null } as unknown as SetupView;
  const place = show(
    <svg>
      <title>corner</title>
      <FitRuler axle="front" fit={axleFit([width(8.5)])} planned={none} place={PLACE} />
    </svg>,
  );
  expect(place.querySelector("[data-ruler]")).toBeNull();
});

const map = (widths: Width[], moving: Width[] | null = null, onPick = () => {}) =>
  show(
    <FitWindow
      axle="rear"
      fit={axleFit(widths)}
      moving={moving}
      width={400}
      height={200}
      proven={[]}
      classBox={null}
      onPick={onPick}
    />,
  );

test("the window: what clears is filled, what is open on a side is dashed, what is blocked is neither", () => {
  const place = map([
    width(8),
    width(8.5, { offset_min_mm: null }),
    width(9, { blocked_by: ["arch"], clears: false }),
    width(9.5, { tire_permitted: false }),
  ]);
  const classes = [...place.querySelectorAll("g path")].map((path) => path.getAttribute("class"));
  for (const kind of ["clears", "open-side", "blocked", "clears-unfit"]) expect(classes).toContain(kind);
  expect(place.querySelector("svg")?.getAttribute("aria-label")).toContain("rear");
});

test("a window of an axle that nobody measured carries no verdict's colour at all", () => {
  const open = { offset_min_mm: null, offset_max_mm: null, min_bound_name: null, max_bound_name: null };
  const place = map([width(8, open), width(8.5, open), width(9, open)]);
  const classes = [...place.querySelectorAll("path")].map((path) => path.getAttribute("class"));
  expect(classes).not.toContain("clears");
  expect(place.textContent).toContain("nothing measured");
});

test("what clears on the road as well is drawn inside of what clears standing", () => {
  const widths = [width(8), width(8.5), width(9)];
  const moving = widths.map((one) => ({ ...one, offset_min_mm: 28, offset_max_mm: 36 }));
  expect(map(widths).querySelectorAll("[data-clears-moving]")).toHaveLength(0);
  expect(map(widths, moving).querySelectorAll("[data-clears-moving]")).toHaveLength(3);
});

test("a place pointed at is a rim width and a whole offset", () => {
  const picked = vi.fn();
  const place = map([width(8), width(8.5), width(9)], null, picked);
  const svg = place.querySelector("svg") as SVGSVGElement;
  svg.getBoundingClientRect = () => ({ left: 0, top: 0, width: 400, height: 200 }) as DOMRect;
  const point = (x: number, y: number) =>
    act(() => {
      svg.dispatchEvent(new PointerEvent("pointerup", { clientX: x, clientY: y, bubbles: true }));
    });
  point(215, 90);
  expect(picked).toHaveBeenCalledTimes(1);
  const [axle, rim, offset] = picked.mock.calls[0] ?? [];
  expect([axle, rim]).toEqual(["rear", 8.5]);
  expect(Number.isInteger(offset)).toBe(true);
  // Beside the plot nothing is planned.
  point(215, 199);
  expect(picked).toHaveBeenCalledTimes(1);
});

const line = (code: string, axle: "front" | "rear" | null, word = "clears") =>
  ({ code, axle, word, title: code }) as unknown as LedgerLine;

test("a set that reads the same front and rear is shown once; else axle by axle", () => {
  const titles = (lines: LedgerLine[]) => grouped(lines).map((group) => group.title);
  const alike = [line("strut", "front"), line("strut", "rear"), line("speedometer", null)];
  expect(titles(alike)).toEqual(["Front and rear alike", "The car"]);
  const other = [line("strut", "front"), line("strut", "rear", "tight")];
  expect(titles(other)).toEqual(["Front", "Rear"]);
  const one = [line("strut", "front"), line("strut", "rear"), line("lock", "front")];
  expect(titles(one)).toEqual(["Front", "Rear"]);
  expect(titles([line("speedometer", null)])).toEqual(["The car"]);
  expect(titles([])).toEqual([]);
});

test("a part in motion: each stretch with its room, and its word for who does not see the mark", () => {
  const place = show(
    <StretchRow
      stretches={
        [
          { code: "standing", name: "standing", room_mm: 39.2, verdict: "clears" },
          { code: "at_lock", name: "at lock", room_mm: -4.1, verdict: "touches" },
        ] as unknown as Schemas["StretchView"][]
      }
    />,
  );
  expect(place.querySelector("[data-stretch=standing]")?.textContent).toContain("39.2 mm");
  const lock = place.querySelector("[data-stretch=at_lock]");
  expect(lock?.textContent).toContain("−4.1 mm");
  expect(lock?.querySelector(".sr-only")?.textContent).toBe("touches, ");
});

test("conclusions: what follows, what to try next, and each wheel's word with whether it was tried", () => {
  const axle = (more: object) => ({ lines: [], next: null, judged: [], ...more });
  const trials = {
    caution: "Never force a wheel on.",
    source: { kind: "common_practice", cite: "a wheel that hits rules out every smaller rim" },
    axles: {
      front: axle({
        lines: [{ kind: "out", says: [{ text: "17x8 does not go over." }] }],
        next: [{ text: "18x8.5 ET40" }],
        judged: [
          { name: "bench", line: "18x8.5 ET38", verdict: "touches", was_tried: true },
          { name: "A", line: "18x8.5 ET40", verdict: "clears", was_tried: false },
        ],
      }),
      rear: axle({}),
    },
  };
  const place = show(<Conclusions trials={trials as unknown as Schemas["TrialsView"]} />);
  expect(place.querySelector("[data-conclusion=front]")?.textContent).toContain("17x8 does not go over.");
  expect(place.querySelector("[data-next]")?.textContent).toContain("18x8.5 ET40");
  expect(place.querySelector("[data-judged=bench]")?.textContent).toContain("touches, tried");
  expect(place.querySelector("[data-judged=A]")?.textContent).not.toContain("tried");
  expect(place.querySelector("[data-conclusion=rear]")?.textContent).toContain("Nothing was tried");
  expect(place.querySelector(".caution")?.textContent).toBe("Never force a wheel on.");
});
