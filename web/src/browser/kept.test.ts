import { afterEach, expect, test } from "vitest";

import { items } from "./kept";

afterEach(() => {
  localStorage.clear();
  sessionStorage.clear();
});

test("what waits for the server comes first and is no more than is there", () => {
  localStorage.setItem("signInName", "Wren");
  localStorage.setItem("epitrope:draft:a:w1", "{}");
  localStorage.setItem("ticks:a", "[]");
  localStorage.setItem("ticks:b", '[{"step":"s1"}]');
  localStorage.setItem("somebody else's", "x");
  sessionStorage.setItem("dayTab", "map");
  const list = items();
  expect(list.map((i) => i.name)).toEqual(["ticks:b", "epitrope:draft:a:w1", "dayTab", "signInName"]);
  expect(list.map((i) => i.waits)).toEqual([true, true, false, false]);
  expect(list.find((i) => i.name === "signInName")?.size).toBe(4);
});
