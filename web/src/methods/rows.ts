import type { Schemas } from "../api/client";
import { figure } from "../ui/units";
import type { Method } from "./useJudged";

type Driven = Schemas["Driven"];
type Level = "good" | "caution" | "bad" | undefined;

/** Row is a line of the comparison: what it says of a method, and how good that is. */
export interface Row {
  label: string;
  of: (m: Method) => string;
  level?: (m: Method) => Level;
}

const hours = (h: number): string => (h < 0 ? "never" : h < 1 ? `${Math.round(h * 60)} min` : `${h.toFixed(1)} h`);

const met = (d: Driven): number => d.aims.filter((a) => a.met).length;

/** driven is a line of what a method comes to through time, which may not have been run yet. */
const driven = (label: string, of: (d: Driven) => string, level: (d: Driven) => Level): Row => ({
  label,
  of: (m) => (m.driven ? of(m.driven) : m.notDriven ? "no answer" : "…"),
  level: (m) => (m.driven ? level(m.driven) : undefined),
});

/** charges is what arrives in a state; what would flow where it does not hold is no figure. */
const charges = (of: { amps: number; volts: number; fails?: string }): string => (of.fails ? "not steady" : `${of.amps.toFixed(0)} A, ${of.volts.toFixed(1)} V`);

/** The lines, from what arrives to what it costs. */
export const rows: Row[] = [
  { label: "Early in bulk", of: (m) => charges(m.early), level: (m) => (m.early.fails || m.early.amps === 0 ? "bad" : undefined) },
  { label: "At idle, hot, lamps on", of: (m) => charges(m.idle), level: (m) => (m.idle.fails || m.idle.amps === 0 ? "caution" : undefined) },
  driven("To 80 %", (d) => hours(d.to80H), (d) => (d.to80H < 0 ? "bad" : undefined)),
  driven("Full", (d) => hours(d.fullH), (d) => (d.fullH < 0 ? "bad" : undefined)),
  driven("Days as driven", (d) => `${d.week.auxLeast.toFixed(0)} to ${d.week.auxEnd.toFixed(0)} %`, (d) => (d.week.empty > 0 ? "bad" : undefined)),
  driven("Aims met", (d) => `${met(d)} of ${d.aims.length}`, (d) => (met(d) === d.aims.length ? "good" : met(d) < d.aims.length - 2 ? "bad" : "caution")),
  { label: "Alternator load", of: (m) => `${m.loadPct.toFixed(0)} %`, level: (m) => (m.loadPct >= 100 ? "caution" : undefined) },
  { label: "The alternator's windings", of: (m) => `${figure(m.windings, "°C", 0).replace(/ °.$/, "")} of ${figure(m.bears, "°C", 0)}`, level: (m) => (m.windings > m.bears ? "caution" : undefined) },
  driven("Left live, start battery low", (d) => (d.fails.halfAfter < 0 ? "never" : `after ${hours(d.fails.halfAfter)}`), (d) => (d.fails.halfAfter >= 0 && d.fails.halfAfter < 48 ? "bad" : undefined)),
  { label: "Start run", of: (m) => m.start },
  { label: "Aux run", of: (m) => m.aux },
  { label: "Weakest in the chain", of: (m) => m.weakestIs },
  { label: "Copper", of: (m) => `${m.bill.copperKg.toFixed(1)} kg, ${figure(m.bill.metres, "m", 1)}` },
  { label: "Work", of: (m) => `${m.work.hours.toFixed(1)} h` },
  { label: "By the parts book", of: (m) => m.priced?.short ?? "not read" },
  { label: "Cost by rule of thumb, in 30 A chargers", of: (m) => (m.bill.cost / 100).toFixed(1) },
];

/** always are the lines that are shown wherever couplings differ in them. */
const always = ["Early in bulk", "At idle, hot, lamps on", "Days as driven", "Aims met", "Work", "Cost by rule of thumb, in 30 A chargers"];

/** mostDeciding is how many lines are read at a glance. */
const mostDeciding = 9;

/** deciding are the lines that decide between some methods: where one is good and another is not, and the main ones where they differ. */
export function deciding(list: Method[]): Row[] {
  const differ = (r: Row, of: (m: Method) => unknown) => new Set(list.map(of)).size > 1 && !!r;
  const main = (r: Row) => always.includes(r.label);
  const told = rows.filter((r) => (r.level && differ(r, (m) => r.level?.(m))) || (main(r) && differ(r, (m) => r.of(m))));
  if (told.length === 0) return rows.filter(main);
  return told.length <= mostDeciding ? told : told.filter((r) => main(r) || r.level).slice(0, mostDeciding);
}

/** because is why a method is ruled out, in a line. */
export const because = (m: Method): string => m.method.reasons.find((r) => r.effect === "rules out")?.text ?? m.worst ?? "";

/** verdict is how a method stands, in words. */
export function verdict(m: Method): string {
  if (m.method.ruledOut) return m.fitted ? "pinned, ruled out" : "ruled out";
  if (m.method.chosen) return m.fitted ? "best for this job" : "best, not fitted";
  return m.fitted ? "pinned" : "possible";
}

/** ranked puts what is fitted first, then what is possible by merit, then what is ruled out. */
export function ranked(list: Method[]): Method[] {
  const rank = (m: Method): number => (m.method.chosen ? 0 : m.method.ruledOut ? 2 : 1);
  return [...list].sort((a, b) => rank(a) - rank(b) || b.method.merit - a.method.merit);
}
