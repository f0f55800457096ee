import { expect, test } from "vitest";

import { because, deciding, ranked, rows, verdict } from "./rows";
import type { Method } from "./useJudged";

const method = (kind: string, merit: number, change: object = {}): Method =>
  ({
    method: { kind, label: kind, merit, ruledOut: false, chosen: false, reasons: [] }, fitted: false, early: { amps: 40, volts: 13.3 }, idle: { amps: 0, volts: 12.1 },
    driven: { to80H: 0.5, fullH: -1, fails: { halfAfter: 12 }, aims: [{ met: true }, { met: false }], week: { auxLeast: 20, auxEnd: 60, empty: 0 } }, work: { hours: 6.7 }, bill: { cost: 173, copperKg: 1.64, metres: 8.4 },
    loadPct: 98, windings: 151, bears: 180, ...change,
  }) as unknown as Method;

test("what is best comes first, then what is possible by merit, then what is ruled out", () => {
  const list = [method("a", -3, { method: { kind: "a", merit: 5, ruledOut: true, chosen: false } }), method("b", 1), method("c", 2), method("d", 0, { method: { kind: "d", merit: 3, ruledOut: false, chosen: true } })];
  expect(ranked(list).map((m) => m.method.kind)).toEqual(["d", "c", "b", "a"]);
});

test("each line says its figure with its unit, and what is bad about it", () => {
  const m = method("b", 1);
  const say = (label: string) => rows.find((r) => r.label === label);
  expect(say("Early in bulk")?.of(m)).toBe("40 A, 13.3 V");
  expect(say("At idle, hot, lamps on")?.level?.(m)).toBe("caution");
  expect(say("At idle, hot, lamps on")?.of(method("b", 1, { idle: { amps: 40, volts: 14.1, fails: "the charger stops" } }))).toBe("not steady");
  expect(say("To 80 %")?.of(m)).toBe("30 min");
  expect(say("Full")?.of(m)).toBe("never");
  expect(say("Full")?.level?.(m)).toBe("bad");
  expect(say("Left live, start battery low")?.of(m)).toBe("after 12.0 h");
  expect(say("Cost by rule of thumb, in 30 A chargers")?.of(m)).toBe("1.7");
});

test("the lines that decide are those in which methods differ, the main ones and where one is good and another is not", () => {
  const short = method("a", 1, { early: { amps: 10, volts: 13.1 } });
  const long = method("b", 1);
  const labels = (list: Method[]) => deciding(list).map((r) => r.label);
  expect(labels([short, long])).toContain("Early in bulk");
  expect(labels([short, long])).not.toContain("Work");
  expect(labels([method("a", 1, { loadPct: 120 }), long])).toContain("Alternator load");
  expect(labels([long, method("c", 1)]).length).toBeGreaterThan(0); // where none differ, the main ones
});

test("what is ruled out says by which rule", () => {
  const m = method("a", 1, { worst: "too hot", method: { reasons: [{ effect: "warns", text: "near" }, { effect: "rules out", text: "far" }] } });
  expect(because(m)).toBe("far");
  expect(because(method("b", 1, { worst: "too hot" }))).toBe("too hot");
});

test("a method that is pinned against the rules says so", () => {
  expect(verdict(method("a", 0, { fitted: true, method: { ruledOut: true, chosen: false } }))).toBe("pinned, ruled out");
  expect(verdict(method("a", 0, { fitted: true, method: { ruledOut: false, chosen: true } }))).toBe("best for this job");
  expect(verdict(method("a", 0))).toBe("possible");
});

test("what has not been run yet says so, and is neither good nor bad", () => {
  const full = rows.find((r) => r.label === "Full");
  expect(full?.of(method("b", 1, { driven: undefined }))).toBe("…");
  expect(full?.level?.(method("b", 1, { driven: undefined }))).toBeUndefined();
  expect(full?.of(method("b", 1, { driven: undefined, notDriven: true }))).toBe("no answer");
});
