import { expect, test } from "vitest";

import { isWhole, moved, whole, zoomed } from "./view";

const of = whole(1000, 400);

test("a point under the finger stays under it while it comes nearer", () => {
  const at = { x: 250, y: 300 };
  const near = zoomed(of, of, 2, at);
  expect(near.w).toBeCloseTo(500);
  expect((at.x - near.x) / near.w).toBeCloseTo(at.x / of.w);
  expect((at.y - near.y) / near.h).toBeCloseTo(at.y / of.h);
});

test("nobody leaves the drawing, goes further out than all of it, or changes its shape", () => {
  for (const times of [0.01, 0.5, 1, 3, 1e6]) {
    for (const by of [-5000, -10, 0, 10, 5000]) {
      const v = moved(zoomed(of, of, times, { x: 10, y: 390 }), of, by, -by);
      expect(v.w).toBeGreaterThan(0);
      expect(v.w / v.h).toBeCloseTo(of.w / of.h);
      expect(Math.min(v.x, v.y)).toBeGreaterThanOrEqual(0);
      expect(v.x + v.w).toBeLessThanOrEqual(of.w + 1e-9);
      expect(v.y + v.h).toBeLessThanOrEqual(of.h + 1e-9);
    }
  }
  expect(isWhole(zoomed(zoomed(of, of, 4), of, 0.1), of)).toBe(true);
});
