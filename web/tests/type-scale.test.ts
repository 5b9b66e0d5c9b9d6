import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";

const SOURCES = join(import.meta.dirname, "../src");

/** Files below a folder that are written by hand. */
const files = readdirSync(SOURCES, { recursive: true, encoding: "utf8" })
  .filter((name) => /\.(tsx|css)$/.test(name))
  .map((name) => ({ name, text: readFileSync(join(SOURCES, name), "utf8") }));

test("type comes in seven sizes, named once", () => {
  const css = files.find(({ name }) => name === "styles.css")?.text ?? "";
  const named = [...css.matchAll(/^\s*--text-([a-z]+): \d+px;/gm)].map((one) => one[1]);
  expect(new Set(named).size).toBe(7);
  const others = files.flatMap(({ name, text }) =>
    [...text.matchAll(/text-\[[\d.]+(?:px|rem)\]|font-size: [\d.]+|\btext-(?:xs|sm|lg|\d?xl)\b/g)].map(
      (one) => `${name}: ${one[0]}`,
    ),
  );
  expect(others).toEqual([]);
  const used = files.flatMap(({ text }) => [
    ...text.matchAll(/\btext-(fine|note|small|body|lead|head|figure)\b/g),
  ]);
  expect(new Set(used.map((one) => one[1]))).toEqual(new Set(named));
});
