import { describe, expect, it } from "vitest";

import { valueAt, withValue, type Doc } from "./document";
import { overlay, reduce, start, unreadOf, type Action, type Edited } from "./history";

const empty = { format: "epitrope-job", version: 1 } as Doc;
const run = (state: Edited, ...actions: Action[]) => actions.reduce(reduce, state);

/** typed is one keystroke with the server's reading of it. */
function typed(state: Edited, path: string, text: string, value: number): Edited {
  const typing = reduce(state, { type: "type", path, text });
  const { sent } = overlay(typing);
  return reduce(typing, { type: "read", doc: withValue(typing.doc, path, value), sent, problems: [] });
}

describe("answering several fields", () => {
  it("is one step back, and what was being typed in them is gone", () => {
    const typing = reduce(start(empty), { type: "type", path: "day.own", text: "park 8" });
    const s = reduce(typing, { type: "setAll", values: { "day.own": "park 8 h", "day.pattern": "own" } });
    expect(valueAt(s.doc, "day.own")).toBe("park 8 h");
    expect(valueAt(s.doc, "day.pattern")).toBe("own");
    expect(s.typing).toEqual({});
    expect(run(s, { type: "undo" }).doc).toEqual(empty);
  });
});

describe("typing", () => {
  it("gathers keystrokes of one visit to a field into one step back", () => {
    let s = start(empty);
    s = typed(s, "aux.capacityAh", "1", 1);
    s = typed(s, "aux.capacityAh", "12", 12);
    s = typed(s, "aux.capacityAh", "120", 120);
    expect(valueAt(s.doc, "aux.capacityAh")).toBe(120);
    s = run(s, { type: "leave", path: "aux.capacityAh" });
    s = typed(s, "use.dailyAh", "50", 50);
    s = reduce(s, { type: "undo" });
    expect(valueAt(s.doc, "aux.capacityAh")).toBe(120);
    s = reduce(s, { type: "undo" });
    expect(valueAt(s.doc, "aux.capacityAh")).toBeUndefined();
    s = run(s, { type: "redo" }, { type: "redo" });
    expect(valueAt(s.doc, "use.dailyAh")).toBe(50);
  });

  it("keeps text that is refused, and does not send it again", () => {
    const problem = { field: "routes.startM", value: "far", wrong: "is not a length", allowed: "0.1 to 30 m" };
    let s = run(start(withValue(empty, "routes.startM", 5)), { type: "type", path: "routes.startM", text: "far" });
    expect(valueAt(overlay(s).doc, "routes.startM")).toBe("far");
    s = run(s, { type: "read", doc: empty, sent: { "routes.startM": "far" }, problems: [problem] }, { type: "leave", path: "routes.startM" });
    expect(s.typing["routes.startM"]).toBe("far");
    expect(s.refused["routes.startM"]?.problem).toBe(problem);
    expect(valueAt(s.doc, "routes.startM")).toBe(5);
    expect(overlay(s).sent).toEqual({});
    s = reduce(s, { type: "type", path: "routes.startM", text: "6" });
    expect(overlay(s).sent).toEqual({ "routes.startM": "6" });
  });

  it("takes the way forward away when something new is done", () => {
    const s = run(start(empty), { type: "set", path: "title", value: "A" }, { type: "undo" }, { type: "set", path: "title", value: "B" });
    expect(s.future).toEqual([]);
    expect(reduce(s, { type: "redo" }).doc.title).toBe("B");
  });

  it("loses nothing that was typed and left before it was read", () => {
    const path = "alternator.label";
    let s = run(start(empty), { type: "type", path, text: "180" }, { type: "leave", path });
    const { sent } = overlay(s);
    expect(sent).toEqual({ [path]: "180" });
    s = reduce(s, { type: "read", doc: withValue(empty, path, "180 A"), sent, problems: [] });
    expect(valueAt(s.doc, path)).toBe("180 A");
    expect(s.typing).toEqual({});
    expect(valueAt(reduce(s, { type: "undo" }).doc, path)).toBeUndefined();
  });

  it("sends what was understood no more, and lets another window change it", () => {
    const s = typed(start(empty), "aux.capacityAh", "111", 111);
    expect(overlay(s).sent).toEqual({});
    const theirs = run(s, { type: "adopt", doc: withValue(empty, "aux.capacityAh", 222) });
    expect(valueAt(overlay(theirs).doc, "aux.capacityAh")).toBe(222);
    expect(theirs.typing).toEqual({});
  });

  it("keeps what is typed and not read, or refused, whatever another window changed meanwhile", () => {
    const typing = run(start(empty), { type: "type", path: "title", text: "mine" });
    const theirs = run(typing, { type: "adopt", doc: withValue(empty, "title", "theirs") });
    expect(unreadOf(typing, ["title"])).toBe(true);
    expect(unreadOf(typing, ["aux.capacityAh"])).toBe(false);
    expect(overlay(theirs).doc.title).toBe("mine");
    const problem = { field: "aux.capacityAh", value: "x", wrong: "is no number", allowed: "1 to 2000" };
    const refused = run(start(empty), { type: "type", path: "aux.capacityAh", text: "x" }, { type: "read", doc: empty, sent: { "aux.capacityAh": "x" }, problems: [problem] });
    expect(unreadOf(refused, ["aux.capacityAh"])).toBe(false);
    expect(run(refused, { type: "adopt", doc: withValue(empty, "aux.capacityAh", 222) }).typing).toEqual({ "aux.capacityAh": "x" });
    const decided = run(typing, { type: "type", path: "aux.capacityAh", text: "250" }, { type: "replace", doc: withValue(empty, "customer", "theirs") });
    expect(overlay(decided).sent).toEqual({ title: "mine", "aux.capacityAh": "250" });
  });

  it("takes in another window's draft without a step back", () => {
    const s = run(start(empty), { type: "adopt", doc: withValue(empty, "title", "theirs") });
    expect(s.past).toEqual([]);
    expect(s.doc.title).toBe("theirs");
  });
});
