import { expect, test } from "vitest";

import type { Schemas } from "../api/client";
import { across, bandPath, limitPath, picture } from "./timeCurrent";

const box = { width: 300, height: 200, left: 40, right: 0, top: 0, bottom: 20 };
const curve: Schemas["Curve"] = {
  fuse: "f1", label: "F1", cable: "C1", says: [],
  points: [
    { amps: 60, minS: 14400, maxS: 0, bearsS: 0 },
    { amps: 120, minS: 1, maxS: 15, bearsS: 300 },
    { amps: 1200, minS: 0.001, maxS: 0.01, bearsS: 2 },
  ],
  marks: [{ amps: 48, text: "load" }],
};

test("what never happens is drawn at the upper edge, and what is faster than the picture at the lower", () => {
  const { x, y } = picture(curve, box);
  const heights = [...limitPath(curve, x, y).matchAll(/,([\d.]+)/g)].map((m) => Number(m[1]));
  expect(heights[0]).toBeCloseTo(0);
  expect(heights[1]).toBeGreaterThan(0);
  expect(heights[2]).toBeGreaterThan(heights[1] as number);
  const band = [...bandPath(curve, x, y).matchAll(/,([\d.]+)/g)].map((m) => Number(m[1]));
  expect(Math.max(...band)).toBeCloseTo(180);
});

test("every current that matters is inside the picture, and no two names touch", () => {
  const { x } = picture(curve, box);
  expect(x(48)).toBeGreaterThan(box.left);
  expect(x(1200)).toBeLessThan(box.width);
  const at = across(x).map((a) => x(a));
  at.slice(1).forEach((p, i) => expect(p - (at[i] as number)).toBeGreaterThanOrEqual(30));
});
