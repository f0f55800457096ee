import type { Method } from "./useJudged";

/** Row is a line of the comparison: what it says of a method, and how good that is. */
export interface Row {
  label: string;
  of: (m: Method) => string;
  level?: (m: Method) => "good" | "caution" | "bad" | "";
}

const hours = (h: number): string => (h < 0 ? "never" : h < 1 ? `${Math.round(h * 60)} min` : `${h.toFixed(1)} h`);

const met = (m: Method): number => m.aims.filter((a) => a.met).length;

/** The lines, from what arrives to what it costs. */
export const rows: Row[] = [
  { label: "At cruise", of: (m) => `${m.cruise.amps.toFixed(0)} A, ${m.cruise.volts.toFixed(1)} V`, level: (m) => (m.cruise.fails || m.cruise.amps === 0 ? "bad" : "") },
  { label: "At idle, hot, lamps on", of: (m) => `${m.idle.amps.toFixed(0)} A, ${m.idle.volts.toFixed(1)} V`, level: (m) => (m.idle.fails || m.idle.amps === 0 ? "caution" : "") },
  { label: "To 80 %", of: (m) => hours(m.to80H), level: (m) => (m.to80H < 0 ? "bad" : "") },
  { label: "Full", of: (m) => hours(m.fullH), level: (m) => (m.fullH < 0 ? "bad" : "") },
  { label: "Days as driven", of: (m) => `${m.week.auxLeast.toFixed(0)} to ${m.week.auxEnd.toFixed(0)} %`, level: (m) => (m.week.empty > 0 ? "bad" : "") },
  { label: "Aims met", of: (m) => `${met(m)} of ${m.aims.length}`, level: (m) => (met(m) === m.aims.length ? "good" : met(m) < m.aims.length - 2 ? "bad" : "caution") },
  { label: "Alternator load", of: (m) => `${m.loadPct.toFixed(0)} %`, level: (m) => (m.loadPct >= 100 ? "caution" : "") },
  { label: "Its windings", of: (m) => `${m.windings.toFixed(0)} of ${m.bears.toFixed(0)} °C`, level: (m) => (m.windings > m.bears ? "caution" : "") },
  { label: "Left live, start battery half empty", of: (m) => (m.fails.halfAfter < 0 ? "not in ten days" : `after ${hours(m.fails.halfAfter)}`), level: (m) => (m.fails.halfAfter >= 0 && m.fails.halfAfter < 48 ? "bad" : "") },
  { label: "Start run", of: (m) => m.start },
  { label: "Aux run", of: (m) => m.aux },
  { label: "Weakest in its chain", of: (m) => m.weakestIs },
  { label: "Copper", of: (m) => `${m.bill.copperKg.toFixed(1)} kg, ${m.bill.metres.toFixed(1)} m` },
  { label: "Work", of: (m) => `${m.bill.hours.toFixed(1)} h` },
  { label: "Cost, in 30 A chargers", of: (m) => (m.bill.cost / 100).toFixed(1) },
];

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
