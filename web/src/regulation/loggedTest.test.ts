import { describe, expect, it } from "vitest";

import { answersOf, numbersOf, type Judgement } from "./loggedTest";

const judgement: Judgement = { class: "fixed", sure: "clear", why: "", findings: [], missing: [], taken: [], medianV: 14.38, lowV: 14.3, highV: 14.45, system: 12, curve: [] };

describe("what a logged test answers", () => {
  it("is the regulation, that it was tested, and the voltage that is held", () => {
    expect(answersOf({ judgement, proves: "fixed" }, 12)).toEqual({ "alternator.regulation": "fixed", "alternator.knownBy": "test", "alternator.volts": 14.38 });
  });
  it("is no voltage where it varies, or where the recording is of another system", () => {
    expect(answersOf({ judgement, proves: "variable" }, 12)).not.toHaveProperty(["alternator.volts"]);
    expect(answersOf({ judgement, proves: "fixed" }, 24)).not.toHaveProperty(["alternator.volts"]);
  });
  it("is that of the whole system at 24 V", () => {
    expect(answersOf({ judgement: { ...judgement, system: 24 }, proves: "compensated" }, 24)).toMatchObject({ "alternator.volts": 28.76 });
  });
  it("is nothing where it proves nothing", () => {
    expect(answersOf({ judgement, proves: "unknown" }, 12)).toBeNull();
  });
});

it("leaves out a finding's number that would lie on its neighbour", () => {
  const at = (fromS: number) => ({ fromS, toS: fromS + 2, text: "" });
  const marked = numbersOf({ ...judgement, findings: [at(0), at(5), at(20)] }, (s) => s);
  expect(marked.map((n) => n.number)).toEqual([1, 3]);
});
