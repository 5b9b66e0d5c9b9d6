// @vitest-environment happy-dom
// @vitest-environment-options {"url": "http://shop.test/"}
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Away, type Job, type NewReading, Refused } from "../src/api/client";
import { type Lane, useLane } from "../src/job/lane";
import type { Sent } from "../src/job/unsaved";
import { show } from "./shown";

/** The client takes the browser's way of asking as it finds it when it is loaded. */
const program = vi.hoisted(() => {
  const program = { answer: async (_: Request): Promise<Response> => Response.error() };
  globalThis.fetch = (input) => program.answer(input as Request);
  return program;
});

type Asked = { method: string; path: string; key: string | null; of: string | null };
type Answer = { status: number; body: object } | "away";

let asked: Asked[];
/** What the program answers in turn; then, and when there is nothing in turn, a job. */
let answers: Answer[];
let lane: Lane;

function Job7() {
  lane = useLane(7);
  return null;
}

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  asked = [];
  answers = [];
  program.answer = async (request) => {
    const { pathname } = new URL(request.url);
    const { headers } = request;
    const key = headers.get("idempotency-key");
    asked.push({ method: request.method, path: pathname, key, of: headers.get("if-match") });
    const next = answers.shift() ?? { status: 200, body: { id: 7, revision: asked.length } };
    if (next === "away") throw new TypeError("Failed to fetch");
    return Response.json(next.body, { status: next.status });
  };
  show(<Job7 />);
  // The hook speaks by its promises here; what it shows of itself is nobody's.
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = false;
});
afterEach(() => vi.useRealTimers());
const passed = (ms: number) => vi.advanceTimersByTimeAsync(ms);
const TAG = { uid: "seven", token: "three" };
const sent = (key: string): Sent => ({ content: {} as Sent["content"], tag: TAG, basedOn: 3, key });
const readings = [{ id: "a" }] as unknown as NewReading[];

test("a save goes again under its own key until the program answers, and says meanwhile that it is away", async () => {
  answers = ["away", { status: 503, body: { title: "busy", detail: "its file is held", status: 503 } }];
  const isAway = vi.fn();
  const saved = lane.put(sent("k1"), isAway);
  await passed(0);
  expect(isAway).toHaveBeenCalledTimes(1);
  await passed(10_000);
  expect((await saved).revision).toBe(3);
  expect(isAway).toHaveBeenCalledTimes(2);
  expect(asked.map(({ method, key }) => [method, key])).toEqual([
    ["PUT", "k1"],
    ["PUT", "k1"],
    ["PUT", "k1"],
  ]);
});

test("a browser that thinks itself off the network asks all the same", async () => {
  vi.spyOn(navigator, "onLine", "get").mockReturnValue(false);
  window.dispatchEvent(new Event("offline"));
  const saved = lane.put(sent("k1"), () => {});
  await passed(0);
  expect((await saved).revision).toBe(1);
  vi.restoreAllMocks();
  window.dispatchEvent(new Event("online"));
});

test("sheet and readings go one after the other, in the order they were asked", async () => {
  answers = ["away"];
  const order: string[] = [];
  void lane.put(sent("k1"), () => {}).then(() => order.push("sheet"));
  void lane.take(readings, TAG, () => {}).then(() => order.push("readings"));
  await passed(0);
  expect(asked).toHaveLength(1);
  await passed(10_000);
  expect(order).toEqual(["sheet", "readings"]);
  expect(asked.map((one) => one.method)).toEqual(["PUT", "PUT", "POST"]);
});

test("what a hand asks for does not wait behind what waits for the program", async () => {
  answers = ["away", "away"];
  const waiting = lane.take(readings, TAG, () => {});
  await passed(0);
  await expect(lane.remove("a", TAG)).rejects.toBeInstanceOf(Away);
  await expect(lane.copyOver("front", "left", TAG)).rejects.toBeInstanceOf(Away);
  expect(asked).toHaveLength(1);
  await passed(10_000);
  await waiting;
  await lane.remove("a", TAG);
  expect(asked.at(-1)).toMatchObject({ method: "DELETE", path: "/api/v1/jobs/7/readings/a" });
});

test("a hand's step is tried once, and a refusal comes back in the program's words", async () => {
  answers = ["away", { status: 409, body: { title: "stale", detail: "changed meanwhile", errors: [] } }];
  const base = { ...TAG, revision: 3 } as Job;
  await expect(lane.step({ does: "undo", base })).rejects.toBeInstanceOf(Away);
  await expect(lane.step({ does: "redo", base })).rejects.toThrow("changed meanwhile");
  await expect(lane.step({ does: "candidates", base })).resolves.toMatchObject({ id: 7 });
  expect(asked.map((one) => one.path.split("/").at(-1))).toEqual(["undo", "redo", "candidates"]);
  expect(new Set(asked.map((one) => one.key)).size).toBe(3);
});

test("a refused save is not sent again", async () => {
  answers = [{ status: 422, body: { title: "refused", detail: "400 to 6000 kg", errors: [] } }];
  await expect(lane.put(sent("k1"), () => {})).rejects.toBeInstanceOf(Refused);
  await passed(10_000);
  expect(asked).toHaveLength(1);
});

test("everything says which very job it is for, and readings follow it to its present revision", async () => {
  const current = { ...TAG, token: "four", revision: 4 };
  answers = [{ status: 412, body: { title: "stale", detail: "changed", errors: [], status: 412, current } }];
  await lane.take(readings, TAG, () => {});
  await lane.step({ does: "undo", base: { ...current } as unknown as Job });
  await lane.put(sent("k1"), () => {});
  expect(asked.map((one) => one.of)).toEqual([
    '"seven.three"',
    '"seven.four"',
    '"seven.four"',
    '"seven.three"',
  ]);
});

test("readings of another file's job are refused, and asked only once", async () => {
  answers = [{ status: 412, body: { title: "foreign", detail: "of another file", errors: [], status: 412 } }];
  await expect(lane.take(readings, TAG, () => {})).rejects.toThrow("of another file");
  expect(asked).toHaveLength(1);
});
