import { expect, test } from "vitest";

import type { Plan } from "../api/client";
import { columnOf, litBy } from "./picking";

const wire = (id: string, run: string, from: string, to: string, role = "feed") => ({ id, run, role, from: { component: from }, to: { component: to } });
const plan = {
  columns: ["start", "f1", "c1", "coupling", "c2", "f2", "aux"].map((id) => ({ id })),
  system: { components: [], wires: [wire("c1a", "c1", "start", "f1"), wire("c1", "c1", "f1", "k1"), wire("k1a", "c1", "k1", "coupling"), wire("n1", "c1", "coupling", "e2", "return"), wire("t1", "t1", "feed", "f3", "signal")] },
} as unknown as Plan;

test("a wire stands in its run's column, a relay beside the charger in the coupling's, a signal in none", () => {
  expect(["c1", "c1a", "k1", "k1a", "n1", "t1", "e2", null].map((id) => columnOf(plan, id))).toEqual(["c1", "c1", "coupling", "c1", "c1", null, null, null]);
});

test("a wire lights its ends, a run its wires, a part what ends at it", () => {
  expect([...litBy(plan, "c1a")].sort()).toEqual(["c1a", "f1", "start"]);
  expect([...litBy(plan, "c1")].sort()).toEqual(["c1", "c1a", "f1", "k1", "k1a"]);
  expect([...litBy(plan, "k1")].sort()).toEqual(["c1", "k1", "k1a"]);
  expect(litBy(plan, null).size).toBe(0);
});
