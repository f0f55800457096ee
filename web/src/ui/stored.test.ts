import { act, renderHook } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";

import { keep, names, recall, useStored } from "./stored";

afterEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
});

test("what is kept is there again, and gone when it is taken out", () => {
  expect(keep("a", "1")).toBe(true);
  expect(recall("a")).toBe("1");
  expect(names()).toEqual(["a"]);
  keep("a", null);
  expect(recall("a")).toBeNull();
});

test("a full store costs the copy alone: what was chosen holds", () => {
  vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  expect(keep("a", "1")).toBe(false);
  const { result } = renderHook(() => useStored("tab", "first"));
  act(() => result.current[1]("second"));
  expect(result.current[0]).toBe("second");
});

test("a forbidden store is as an empty one", () => {
  vi.spyOn(window, "localStorage", "get").mockImplementation(() => {
    throw new DOMException("forbidden", "SecurityError");
  });
  expect(keep("a", "1")).toBe(false);
  expect(recall("a")).toBeNull();
  expect(names()).toEqual([]);
});
