import { expect, test } from "vitest";

import type { Schemas } from "../api/client";
import { waiting } from "../job/useQueue";
import { held, nextOpen, standing, type Tick } from "./ticks";

const tick = (id: string, step: string, done: boolean, at: string): Tick => ({ id, step, done, by: "", at });
const step = (id: string, after: string[] = [], hold = false): Schemas["Step"] => ({ id, stage: "fit", title: id, what: "", minutes: 1, usual: 1, after, checks: [], of: [], hold });

test("the last tick of a step holds as the server got them, whatever a phone's clock says", () => {
  const now = standing([tick("b", "x", true, "2031-01-02T00:00:00Z"), tick("a", "x", false, "2031-01-01T00:00:00Z"), tick("c", "y", true, "2031-01-01T00:00:00Z")]);
  expect(now.get("x")?.done).toBe(false);
  expect(now.get("y")?.done).toBe(true);
});

test("what the server has does not wait any longer", () => {
  const a = tick("a", "x", true, "2031-01-01T00:00:00Z");
  const b = tick("b", "x", false, "2031-01-02T00:00:00Z");
  expect(waiting([a, b], [a])).toEqual([b]);
});

test("the next step is the first whose forerunners are done; a hold keeps all that follows", () => {
  const steps = [step("one"), step("hold", ["one"], true), step("two", ["hold"]), step("three", ["two"]), step("aside")];
  const done = (...ids: string[]) => (id: string) => ids.includes(id);
  expect(nextOpen(steps, done())).toBe(0);
  expect(nextOpen(steps, done("one"))).toBe(1);
  expect(nextOpen(steps, done("one", "hold", "two", "three", "aside"))).toBe(-1);
  expect([...held(steps, done("one")).keys()]).toEqual(["two", "three"]);
  expect(held(steps, done("one", "hold")).size).toBe(0);
});
