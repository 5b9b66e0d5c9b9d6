// @vitest-environment happy-dom
import { beforeEach, expect, test } from "vitest";
import { keepDraft, readDraft } from "../src/shared/useDraft";

beforeEach(() => localStorage.clear());

test("a draft outlives the page, by its own name", () => {
  keepDraft("bay.4.front.left.strut", { text: "18" }, { text: "" });
  expect(readDraft("bay.4.front.left.strut", { text: "" })).toEqual({ text: "18" });
  expect(readDraft("bay.4.front.right.strut", { text: "" })).toEqual({ text: "" });
});

test("put back to its start it leaves nothing behind", () => {
  keepDraft("trial.4.setup", "17x8", "");
  keepDraft("trial.4.setup", "", "");
  expect(localStorage.length).toBe(0);
});

test("one that cannot be read counts as none", () => {
  localStorage.setItem("dimensione.draft.trial.4.setup", "{half");
  expect(readDraft("trial.4.setup", "start")).toBe("start");
});
