import { expect, test } from "vitest";

import { casesOf, evidenceOf, helped, stayed, type Entry } from "./cases";

const day = 24 * 3600_000;
const at = (days: number) => new Date(Date.UTC(2031, 0, 1) + days * day).toISOString();
const entry = (kind: string, subject: string, text: string, days: number, more: object = {}): Entry => ({ id: `${kind}${subject}${days}`, kind, subject, entry: text, by: "Ivo", at: at(days), ...more }) as Entry;
const signed = [{ id: "s", number: 1, version: 3, by: "Ivo", at: at(10) }];

test("a case is its entries as the core takes them, another part tried among them", () => {
  const of = casesOf([
    entry("complaint", "no-charge", "no charge", 400, { case: "a" }),
    entry("complaint", "words", "it smells", 400, { case: "a" }),
    entry("traced", "charge", "0.2 A", 400, { case: "a" }),
    entry("swapped", "f1", stayed, 400, { case: "a" }),
    entry("swapped", "coupling", helped, 400, { case: "a" }),
    entry("noted", "log", "greased", 401),
  ])[0];
  expect(evidenceOf(of, [], [], 0)).toEqual({ format: "epitrope-evidence", version: 1, seen: [{ symptom: "no-charge" }, { reading: "charge", entry: "0.2 A" }, { swap: "f1", helped: false }, { swap: "coupling", helped: true }] });
});

test("a signed proof gives its last readings until then, and the years since", () => {
  const entries = [entry("reading", "charge", "11 A", 8), entry("reading", "charge", "12 A", 9), entry("reading", "charge", "3 A", 300), entry("waiver", "gate", "late", 9)];
  const e = evidenceOf(undefined, entries, signed, Date.parse(at(10)) + 2 * 365.25 * day);
  expect(e.baseline).toEqual([{ reading: "charge", text: "12 A" }]);
  expect(e.years).toBe(2);
});

test("what was found before knows nothing of the proof of what was built after", () => {
  const of = casesOf([entry("complaint", "no-charge", "no charge", 20, { case: "a", found: true })])[0];
  expect(of?.found).toBe(true);
  expect(evidenceOf(of, [entry("reading", "charge", "12 A", 9)], signed, Date.parse(at(30)))).not.toHaveProperty("baseline");
});
