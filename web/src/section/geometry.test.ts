import { describe, expect, it } from "vitest";

import type { Column } from "../api/client";
import { columnSpans, gradeScale, halfway, rounded, spread, vehicleScale } from "./geometry";

const column = (id: string, kind: Column["kind"]) => ({ id, kind }) as Column;

describe("columnSpans", () => {
  it("fills the width without gaps, in order", () => {
    const spans = [...columnSpans([column("a", "battery"), column("b", "cable"), column("c", "fuse")], 100, 900).values()];
    expect(spans[0]?.left).toBe(100);
    expect(spans[2]?.right).toBeCloseTo(900);
    expect(spans[0]?.right).toBe(spans[1]?.left);
    expect(spans[1]!.right - spans[1]!.left).toBeGreaterThan(spans[2]!.right - spans[2]!.left);
  });
});

describe("spread", () => {
  it("leaves parts where they want to be when there is room", () => {
    expect(spread([{ at: 100, w: 20 }, { at: 300, w: 20 }], { left: 0, right: 400 })).toEqual([100, 300]);
  });
  it("keeps parts apart, in order and inside", () => {
    for (const at of [0, 50, 395, 1000, -40]) {
      const wanted = Array.from({ length: 6 }, () => ({ at, w: 30 }));
      const placed = spread(wanted, { left: 0, right: 400 });
      placed.forEach((x, i) => {
        expect(x - 15).toBeGreaterThanOrEqual(0);
        expect(x + 15).toBeLessThanOrEqual(400);
        if (i > 0) expect(x - placed[i - 1]!).toBeGreaterThanOrEqual(30);
      });
    }
  });
});

describe("vehicleScale", () => {
  it("draws lengths at most twice as large as heights, inside the box", () => {
    const box = { x: 10, y: 10, w: 1000, h: 180 };
    for (const [lengthM, heightM] of [[6, 2.6], [12, 2.7], [4.8, 1.8]] as const) {
      const s = vehicleScale({ kind: "", label: "", lengthM, heightM, outlines: [], wheels: [] }, box);
      expect(s.x(0)).toBeGreaterThanOrEqual(10);
      expect(s.x(lengthM)).toBeLessThanOrEqual(1010.001);
      expect(s.pxPerM / ((s.y(0) - s.y(heightM)) / heightM)).toBeLessThanOrEqual(2.001);
    }
  });
});

describe("gradeScale", () => {
  it("covers what is shown with few round ticks", () => {
    for (const volts of [[12.18, 14.4], [13.2, 13.25], [24.1, 29.3], [0.4, 14.8]]) {
      const g = gradeScale(volts, 0, 100);
      expect(g.ticks.length).toBeLessThanOrEqual(8);
      for (const v of volts) {
        expect(g.y(v)).toBeGreaterThanOrEqual(0);
        expect(g.y(v)).toBeLessThanOrEqual(100);
      }
      expect(g.y(volts[1]!)).toBeLessThan(g.y(volts[0]!));
    }
  });
});

describe("lines", () => {
  it("finds the point half-way", () => {
    expect(halfway([{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 30 }])).toEqual({ x: 10, y: 10 });
  });
  it("closes a rounded outline", () => {
    expect(rounded([{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 10 }], 2)).toMatch(/^M.*Z$/);
  });
});
