import { scaleLinear } from "d3-scale";
import { expect, test } from "vitest";

import { charts, cut, pathOf, scaleOf, shownCurves, stretches, voltsReach, type Chart, type Series } from "./curves";
import { number } from "../ui/units";
import { clock, indexAt, windows } from "./time";

const t = [0, 100, 200, 300, 400];
const series = {
  t, kind: ["park", "crank", "town", "idle", "park"], auxSOC: [50, 50, 51, 52, 52], startSOC: [90, 89, 90, 91, 91],
  auxV: [13, 13, 14, 14, 13], busV: [12.5, 9, 14.2, 14.2, 12.8], inV: [12.5, 9, 14, 14, 12.8],
  caseC: [0, 0, 0, 0, 0], solarA: [0, 0, 0, 0, 0], windingC: [20, 30, 60, 80, 70], cableC: [20, 20, 30, 35, 30],
} as unknown as Series;

test("the reach of a long run's voltages leaves dead parts out", () => {
  const long = Array.from({ length: 200_000 }, (_, i) => [12 + (i % 100) / 50, 0]);
  expect(voltsReach(long)).toEqual({ low: 12, high: 13.98 });
  expect(voltsReach([[0, 0]])).toEqual({ low: 0, high: 16 });
});

test("a moment is found by halving, and said as a day and an hour", () => {
  expect([-5, 0, 99, 100, 250, 9999].map((at) => indexAt(t, at))).toEqual([0, 0, 0, 1, 2, 4]);
  expect(clock(0)).toBe("day 1, 06:00");
  expect(clock(18.5 * 3600)).toBe("day 2, 00:30");
});

test("days are shown from midnight to midnight, and cover the run", () => {
  const list = windows(3 * 86400);
  expect(list.map((w) => w.label)).toEqual(["all 3 days", "day 1", "day 2", "day 3", "day 4"]);
  expect(list[1]?.window).toEqual({ from: 0, to: 18 * 3600 });
  expect(list.at(-1)?.window.to).toBe(3 * 86400);
  expect(windows(86400)).toHaveLength(1);
});

test("a window keeps a moment on each side, so that lines run to its edges", () => {
  expect(cut(t, { from: 150, to: 250 })).toEqual([1, 4]);
  expect(cut(t, { from: 0, to: 400 })).toEqual([0, 5]);
});

test("a scale covers every curve that is shown and what it must", () => {
  const volts = charts.find((c) => c.id === "volts") as Chart;
  const y = scaleOf(volts, series, [0, 5], 100);
  expect(y.domain()[0]).toBeLessThanOrEqual(12.5);
  expect(y.domain()[0]).toBeGreaterThan(9); // but for cranking
  expect(y.domain()[1]).toBeGreaterThanOrEqual(14.2);
  const charge = charts.find((c) => c.id === "charge") as Chart;
  expect(scaleOf(charge, series, [0, 5], 100).domain()).toEqual([0, 100]);
});

test("numbers have a true minus sign, and never a minus zero", () => {
  expect([number(-3.2, 0), number(-0.2, 0), number(-0.04, 1), number(12.345, 2)]).toEqual(["−3", "0", "0.0", "12.35"]);
});

test("what a run does not have is not drawn", () => {
  const heat = charts.find((c) => c.id === "heat") as Chart;
  expect(shownCurves(heat, series).map((c) => c.name)).toEqual(["alternator", "cable"]);
});

test("a line goes through every moment", () => {
  const x = scaleLinear([0, 400], [0, 400]);
  const y = scaleLinear([0, 100], [100, 0]);
  expect(pathOf(series, "auxSOC", x, y, [0, 5])).toBe("M0,50L100,50L200,49L300,48L400,48");
});

test("what the vehicle does is joined into stretches", () => {
  expect(stretches(series, { from: 0, to: 400 }, 1).map((s) => [s.kind, s.from, s.to])).toEqual([
    ["parked", 0, 100], ["driving", 100, 300], ["idling", 300, 400],
  ]);
});
