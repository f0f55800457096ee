import { scaleLinear, type ScaleLinear } from "d3-scale";
import { line } from "d3-shape";

import type { Schemas } from "../api/client";
import type { Window } from "./time";

export type Series = Schemas["Series"];
export type Linear = ScaleLinear<number, number>;

/** Curve is one line of a chart. */
export interface Curve {
  key: keyof Series;
  name: string;
  className: string;
  digits: number;
}

/** Chart is some curves of one unit over the same time. */
export interface Chart {
  id: string;
  label: string;
  unit: string;
  curves: Curve[];
  /** What the scale always covers. */
  cover: number[];
}

export const charts: Chart[] = [
  {
    id: "charge", label: "Charge", unit: "%", cover: [0, 100],
    curves: [
      { key: "auxSOC", name: "aux", className: "auxLine", digits: 0 },
      { key: "startSOC", name: "start", className: "startLine", digits: 0 },
    ],
  },
  {
    id: "volts", label: "Volts", unit: "V", cover: [],
    curves: [
      { key: "auxV", name: "aux", className: "auxLine", digits: 2 },
      { key: "busV", name: "start", className: "startLine", digits: 2 },
      { key: "inV", name: "coupling in", className: "thirdLine", digits: 2 },
    ],
  },
  {
    id: "amps", label: "Amps", unit: "A", cover: [0],
    curves: [
      { key: "auxA", name: "into aux", className: "auxLine", digits: 0 },
      { key: "startA", name: "into start", className: "startLine", digits: 0 },
      { key: "machineA", name: "alternator", className: "thirdLine", digits: 0 },
      { key: "solarA", name: "solar", className: "solarLine", digits: 0 },
    ],
  },
  {
    id: "heat", label: "Heat", unit: "°C", cover: [],
    curves: [
      { key: "windingC", name: "alternator", className: "heatLine", digits: 0 },
      { key: "caseC", name: "charger", className: "startLine", digits: 0 },
      { key: "cableC", name: "cable", className: "thirdLine", digits: 0 },
    ],
  },
];

export const valuesOf = (series: Series, key: keyof Series): number[] => series[key] as number[];

/** shownCurves leaves out curves that this run does not have: no charger, no solar. */
export function shownCurves(chart: Chart, series: Series): Curve[] {
  return chart.curves.filter((c) => (c.key !== "solarA" && c.key !== "caseC") || valuesOf(series, c.key).some((v) => v !== 0));
}

/** Cut is the moments of a window, with one more on each side so that lines run to its edges. */
export function cut(t: readonly number[], window: Window): [number, number] {
  const from = Math.max(0, t.findIndex((at) => at >= window.from) - 1);
  let to = t.length;
  while (to > 1 && (t[to - 2] as number) > window.to) to--;
  return [from, to];
}

/** scaleOf covers the values of a chart in a window, by round steps. */
export function scaleOf(chart: Chart, series: Series, [from, to]: [number, number], height: number): Linear {
  let low = Math.min(...chart.cover, Infinity);
  let high = Math.max(...chart.cover, -Infinity);
  for (const c of shownCurves(chart, series)) {
    const values = valuesOf(series, c.key);
    for (let i = from; i < to; i++) {
      const kind = series.kind[i];
      if (kind === "crank" || kind === "assist") continue; // two seconds that would flatten the rest; the verdict names them
      const v = values[i] as number;
      if (v < low) low = v;
      if (v > high) high = v;
    }
  }
  if (!(high > low)) {
    low -= 1;
    high = low + 2;
  }
  return scaleLinear([low, high], [height - 4, 6]).nice(3);
}

/** pathOf is a curve of a window as a line. */
export function pathOf(series: Series, key: keyof Series, x: Linear, y: Linear, [from, to]: [number, number]): string {
  const values = valuesOf(series, key);
  const draw = line<number>()
    .x((i) => x(series.t[i] as number))
    .y((i) => y(values[i] as number));
  return draw(Array.from({ length: to - from }, (_, k) => from + k)) ?? "";
}

/** Stretch is a time in which the vehicle does one thing. */
export interface Stretch {
  kind: string;
  from: number;
  to: number;
}

/** stretches are what the vehicle does in a window: drives, idling and starts by their kinds, shorter than a pixel joined to their neighbours. */
export function stretches(series: Series, window: Window, least: number): Stretch[] {
  const out: Stretch[] = [];
  series.t.forEach((t, i) => {
    const kind = doing(series.kind[i] as string);
    const next = series.t[i + 1] ?? t;
    if (next <= t || next < window.from || t > window.to) return;
    const last = out.at(-1);
    if (last && (last.kind === kind || next - last.from < least)) last.to = next;
    else out.push({ kind, from: Math.max(t, window.from), to: next });
  });
  return out.map((s) => ({ ...s, to: Math.min(s.to, window.to) }));
}

/** doing is a kind of segment as people say it. */
export function doing(kind: string): string {
  if (kind === "town" || kind === "highway" || kind === "lift-off" || kind === "crank" || kind === "assist") return "driving";
  if (kind === "idle") return "idling";
  if (kind === "park") return "parked";
  return kind;
}

/** voltsReach is the lowest and the highest of a run's voltages, but for parts that are dead. */
export function voltsReach(grade: readonly (readonly number[] | null)[]): { low: number; high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (const volts of grade) {
    for (const v of volts ?? []) {
      if (v <= 0.5) continue;
      if (v < low) low = v;
      if (v > high) high = v;
    }
  }
  return high >= low ? { low, high } : { low: 0, high: 16 }; // all dead: any scale will do
}
