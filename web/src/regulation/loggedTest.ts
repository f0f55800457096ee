import type { Schemas } from "../api/client";
import type { Value } from "../job/document";

export type Judgement = Schemas["Judgement"];

/** easedV is what a battery with its charge has at least, in V at 12 V; under it a variable alternator has eased off. */
export const easedV = 13.2;

/** numbersOf places the findings' numbers above the picture; one that would lie on its neighbour is left out. */
export function numbersOf(judgement: Judgement, x: (s: number) => number): { number: number; x: number }[] {
  const placed: { number: number; x: number }[] = [];
  judgement.findings.forEach((f, i) => {
    const at = (x(f.fromS) + x(f.toS)) / 2;
    const last = placed.at(-1);
    if (!last || at - last.x >= 12) placed.push({ number: i + 1, x: at });
  });
  return placed;
}

/**
 * answersOf is what a test answers of a job: the regulation, that it was tested, and
 * the voltage that a steady one holds. null where it proves nothing.
 */
export function answersOf({ judgement, proves }: Schemas["Tested"], systemVolts: number): Record<string, Value> | null {
  if (proves === "unknown") return null;
  const answers: Record<string, Value> = { "alternator.regulation": proves, "alternator.knownBy": "test" };
  if (proves !== "variable" && judgement.system === systemVolts) {
    answers["alternator.volts"] = Number(((judgement.medianV * systemVolts) / 12).toFixed(2));
  }
  return answers;
}
