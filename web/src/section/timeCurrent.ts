import { scaleLog, type ScaleLogarithmic } from "d3-scale";
import { area, line } from "d3-shape";

import type { Schemas } from "../api/client";

type Curve = Schemas["Curve"];
type Point = Schemas["CurvePoint"];
type Log = ScaleLogarithmic<number, number>;

/** The picture's times, in s: what never happens is drawn at its upper edge. */
const shortest = 0.01;
const longest = 36000;

interface Frame {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** picture is the scales of a picture of time against current. */
export function picture(curve: Curve, box: Frame): { x: Log; y: Log } {
  const amps = [...curve.points.map((p) => p.amps), ...curve.marks.map((m) => m.amps)].filter((a) => a > 0);
  return {
    x: scaleLog([Math.min(...amps) * 0.8, Math.max(...amps) * 1.15], [box.left, box.width - box.right]),
    y: scaleLog([shortest, longest], [box.height - box.bottom, box.top]),
  };
}

/** until is a time as drawn: 0 means never. */
const until = (s: number): number => (s === 0 ? longest : Math.min(longest, Math.max(shortest, s)));

/** bandPath is the area between the earliest and the latest opening. */
export function bandPath(curve: Curve, x: Log, y: Log): string {
  const path = area<Point>()
    .x((p) => x(p.amps))
    .y0((p) => y(until(p.minS)))
    .y1((p) => y(until(p.maxS)));
  return path(curve.points) ?? "";
}

/** limitPath is how long the cable bears each current. */
export function limitPath(curve: Curve, x: Log, y: Log): string {
  const path = line<Point>()
    .x((p) => x(p.amps))
    .y((p) => y(until(p.bearsS)));
  return path(curve.points) ?? "";
}

/** powers are the times that are named on the upright axis. */
export function powers([from, to]: number[]): number[] {
  return [0.01, 0.1, 1, 10, 60, 600, 3600, 36000].filter((t) => t >= (from as number) && t <= (to as number));
}

/** across are the currents that are named on the level axis: no two closer than 30 px. */
export function across(x: Log): number[] {
  const [from, to] = x.domain() as [number, number];
  const named = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000].filter((a) => a >= from && a <= to);
  return named.filter((a, i) => i === 0 || x(a) - x(named[i - 1] as number) >= 30);
}
