import { describe, expect, it } from "vitest";

import { changed, merge, valueAt, withValue, type Doc } from "./document";

const doc = (fields: Record<string, string | number>): Doc => {
  let d = { format: "epitrope-job", version: 1 } as Doc;
  for (const [path, value] of Object.entries(fields)) d = withValue(d, path, value);
  return d;
};

describe("paths", () => {
  it("sets, reads and takes out without touching the original", () => {
    const a = doc({ "aux.capacityAh": 100 });
    const b = withValue(a, "aux.place", "rear");
    expect(valueAt(b, "aux.place")).toBe("rear");
    expect(valueAt(a, "aux.place")).toBeUndefined();
    expect(changed(b, withValue(b, "aux.place", undefined))).toEqual(["aux.place"]);
    expect(valueAt(a, "routes.startM")).toBeUndefined();
  });
});

describe("merge", () => {
  const base = doc({ title: "A", "aux.capacityAh": 100, "use.dailyAh": 40 });
  it("joins what only one side changed", () => {
    const mine = withValue(base, "title", "B");
    const theirs = withValue(base, "use.dailyAh", 50);
    const { merged, conflicts } = merge(base, mine, theirs);
    expect(conflicts).toEqual([]);
    expect(valueAt(merged, "title")).toBe("B");
    expect(valueAt(merged, "use.dailyAh")).toBe(50);
  });
  it("asks where both changed the same field differently, and loses neither", () => {
    const mine = withValue(base, "aux.capacityAh", 120);
    const theirs = withValue(base, "aux.capacityAh", 200);
    expect(merge(base, mine, theirs).conflicts).toEqual([{ path: "aux.capacityAh", mine: 120, theirs: 200 }]);
  });
  it("does not ask where both made the same change", () => {
    const same = withValue(base, "aux.capacityAh", 120);
    expect(merge(base, same, same).conflicts).toEqual([]);
  });
  it("keeps a field that one side took out", () => {
    const { merged } = merge(base, withValue(base, "use.dailyAh", undefined), withValue(base, "title", "C"));
    expect(valueAt(merged, "use.dailyAh")).toBeUndefined();
    expect(valueAt(merged, "title")).toBe("C");
  });
});
