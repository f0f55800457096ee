import { expect, test } from "vitest";

import { withValue, type Doc } from "./document";
import { emptied, isList, keysOf, newKey } from "./rows";

const doc = { format: "epitrope-job", version: 1, loads: { b2: { kind: "fan" }, a1: { kind: "fridge", hours: 24 }, c3: {} } } as unknown as Doc;

test("rows come in the order of their names, without those that were emptied", () => {
  expect(keysOf(doc, "loads")).toEqual(["a1", "b2"]);
  expect(keysOf(doc, "found")).toEqual([]);
  expect(isList("loads") && !isList("use")).toBe(true);
});

test("a row is taken out answer by answer, and nothing else", () => {
  const changes = emptied(doc, "loads", "a1");
  expect(Object.keys(changes).sort()).toEqual(["loads.a1.hours", "loads.a1.kind"]);
  let left = doc;
  for (const [path, value] of Object.entries(changes)) left = withValue(left, path, value);
  expect(keysOf(left, "loads")).toEqual(["b2"]);
});

test("names rise with time and can be used as names of rows", () => {
  const first = newKey(1_700_000_000_000, 0.999);
  const later = newKey(1_700_000_000_001, 0);
  expect(later > first).toBe(true);
  expect(first).toMatch(/^[a-z0-9]{1,24}$/);
});
