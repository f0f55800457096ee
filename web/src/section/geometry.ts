import type { Column, Plan, Schemas } from "../api/client";

/** Span is a stretch along the sheet, in px. */
export interface Span {
  left: number;
  right: number;
}

export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

export interface XY {
  x: number;
  y: number;
}

/** How wide a column is against the others, by the kind of its part. */
const share: Record<Column["kind"], number> = {
  alternator: 1.25, lead: 0.75, battery: 1.3, fuse: 1.1, cable: 1.65, plug: 1, outlet: 1, charger: 1.35, relay: 1.2, splitter: 1.2, switch: 1,
};

/** columnSpans shares a width out to the columns, left to right. */
export function columnSpans(columns: Column[], left: number, right: number): Map<string, Span> {
  const total = columns.reduce((sum, c) => sum + share[c.kind], 0);
  const spans = new Map<string, Span>();
  let at = left;
  for (const c of columns) {
    const width = ((right - left) * share[c.kind]) / total;
    spans.set(c.id, { left: at, right: at + width });
    at += width;
  }
  return spans;
}

export const middle = (s: Span): number => (s.left + s.right) / 2;

/** stretch is the most that lengths are drawn larger than heights, as in a longitudinal section. */
const stretch = 2;

/** Scale turns metres on the vehicle into px on the sheet. */
export interface Scale {
  x: (m: number) => number;
  y: (m: number) => number;
  pxPerM: number;
}

/** vehicleScale fits a vehicle into a box: true lengths, heights drawn smaller. */
export function vehicleScale(scene: Schemas["Scene"], box: Box): Scale {
  const perHeight = box.h / scene.heightM;
  const perLength = Math.min(box.w / scene.lengthM, perHeight * stretch);
  const left = box.x + (box.w - perLength * scene.lengthM) / 2;
  return { x: (m) => left + m * perLength, y: (m) => box.y + box.h - m * perHeight, pxPerM: perLength };
}

/** rounded is a closed path through points with its corners rounded. */
export function rounded(points: XY[], radius: number): string {
  const count = points.length;
  const parts: string[] = [];
  for (let i = 0; i < count; i++) {
    const before = points[(i + count - 1) % count] as XY;
    const corner = points[i] as XY;
    const after = points[(i + 1) % count] as XY;
    const start = toward(corner, before, radius);
    const end = toward(corner, after, radius);
    parts.push(`${i === 0 ? "M" : "L"}${start.x.toFixed(1)} ${start.y.toFixed(1)}Q${corner.x.toFixed(1)} ${corner.y.toFixed(1)} ${end.x.toFixed(1)} ${end.y.toFixed(1)}`);
  }
  return parts.join("") + "Z";
}

function toward(from: XY, to: XY, distance: number): XY {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const share = Math.min(distance / length, 0.5);
  return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
}

/** size is how large the symbol of a part is drawn, in px. */
export const size: Record<Column["kind"], { w: number; h: number }> = {
  alternator: { w: 26, h: 26 }, lead: { w: 0, h: 0 }, battery: { w: 46, h: 28 }, fuse: { w: 24, h: 11 },
  cable: { w: 0, h: 0 }, plug: { w: 14, h: 22 }, outlet: { w: 18, h: 18 }, charger: { w: 34, h: 38 }, relay: { w: 34, h: 24 }, splitter: { w: 34, h: 26 }, switch: { w: 26, h: 18 },
};

/** apart is the least room between two symbols, in px. */
const apart = 14;

/**
 * spread places parts along a line near where they want to be, in their order, so
 * that no two touch and all stay within the span: the later ones are pushed back,
 * then the earlier ones forward.
 */
export function spread(wanted: { at: number; w: number }[], within: Span): number[] {
  const placed = wanted.map((p) => p.at);
  for (let i = 0; i < placed.length; i++) {
    const p = wanted[i] as { at: number; w: number };
    const before = i > 0 ? (placed[i - 1] as number) + (wanted[i - 1] as { w: number }).w / 2 + apart : within.left;
    placed[i] = Math.max(placed[i] as number, before + p.w / 2);
  }
  for (let i = placed.length - 1; i >= 0; i--) {
    const p = wanted[i] as { at: number; w: number };
    const after = i < placed.length - 1 ? (placed[i + 1] as number) - (wanted[i + 1] as { w: number }).w / 2 - apart : within.right;
    placed[i] = Math.min(placed[i] as number, after - p.w / 2);
  }
  return placed;
}

/** Layout is where everything of the drawing stands. */
export interface Layout {
  parts: Map<string, Box>;
  /** The feed, by the column it belongs to. */
  feeds: Map<string, XY[]>;
  lead: XY[];
  returns: { kind: "cable" | "chassis"; id: string; points: XY[]; label: string }[];
  earths: { id: string; at: XY }[];
  trigger: XY[] | null;
  feedPoint: XY | null;
  /** Where a column's leader starts. */
  hooks: Map<string, XY>;
}

/** layOut places the run of a plan on a scaled vehicle. */
export function layOut(plan: Plan, scale: Scale, within: Span): Layout {
  const solid = plan.columns.filter((c) => size[c.kind].w > 0);
  const places = spread(solid.map((c) => ({ at: scale.x(c.at.x), w: size[c.kind].w })), within);
  const parts = new Map<string, Box>();
  solid.forEach((c, i) => {
    const s = size[c.kind];
    parts.set(c.id, { x: (places[i] as number) - s.w / 2, y: scale.y(c.at.y) - s.h / 2, w: s.w, h: s.h });
  });
  const get = (id: string) => parts.get(id) as Box;
  const floor = scale.y(0.5);
  const steel = scale.y(0.36);

  // A machine of the run's own feeds it without the start battery.
  const source = parts.has("start") ? "start" : "alternator";
  const lead = source === "start" ? joint(get("alternator"), get("start"), floor) : [];
  const feeds = feedsOf(plan.columns, parts, source, floor);
  const charges = plan.columns.some((c) => c.id === "coupling" && c.kind === "charger");

  const foot = (b: Box, at: number): XY => ({ x: b.x + b.w * at, y: b.y + b.h });
  const start = foot(get(source), 0.82);
  const aux = foot(get("aux"), 0.82);
  const mid = foot(get("coupling"), 0.5);
  const chassis = plan.returns.some((r) => r.kind === "chassis");
  const returns: Layout["returns"] = [];
  const earths = [{ id: "E1", at: { x: start.x, y: steel } }];
  const back = charges ? mid : aux;
  if (charges) returns.push({ kind: "cable", id: "n2", label: "N2", points: [aux, { x: aux.x, y: floor + 6 }, { x: mid.x, y: floor + 6 }, mid] });
  returns.push({ kind: "cable", id: "e1", label: "", points: [start, { x: start.x, y: steel }] });
  if (chassis) {
    earths.push({ id: "E2", at: { x: back.x, y: steel } });
    returns.push({ kind: "cable", id: "n1", label: "N1", points: [back, { x: back.x, y: steel }] });
    returns.push({ kind: "chassis", id: "chassis", label: "chassis", points: [{ x: back.x, y: steel }, { x: start.x, y: steel }] });
  } else {
    returns.push({ kind: "cable", id: "n1", label: "N1", points: [back, { x: back.x, y: steel }, { x: start.x, y: steel }] });
  }

  const feed = plan.system.components.find((c) => c.kind === "feed-point");
  let trigger: XY[] | null = null;
  let feedPoint: XY | null = null;
  if (feed) {
    const told = parts.get("k2") ?? get("coupling");
    const top: XY = { x: foot(told, 0.5).x, y: told.y };
    const level = Math.min(scale.y(1.35), top.y - 16);
    feedPoint = { x: Math.min(scale.x(feed.at.x), top.x - 30), y: level };
    trigger = [feedPoint, { x: top.x, y: level }, top];
  }

  const hooks = new Map<string, XY>();
  for (const [id, box] of parts) hooks.set(id, { x: box.x + box.w / 2, y: box.y + box.h });
  if (lead.length > 0) hooks.set("lead", halfway(lead));
  for (const id of ["c1", "c2"]) {
    const feed = feeds.get(id);
    if (feed) hooks.set(id, halfway(feed));
  }
  return { parts, feeds, lead, returns, earths, trigger, feedPoint, hooks };
}

/** near is how far apart parts are still joined straight, in px. */
const near = 70;

/** joint is a right-angled way from one part's side to another's, along the floor where it is far. */
function joint(from: Box, to: Box, floor: number): XY[] {
  const forward = to.x > from.x;
  const a = { x: forward ? from.x + from.w : from.x, y: from.y + from.h / 2 };
  const b = { x: forward ? to.x : to.x + to.w, y: to.y + to.h / 2 };
  const gap = Math.abs(b.x - a.x);
  if (gap < near) {
    const x = (a.x + b.x) / 2;
    return a.y === b.y ? [a, b] : [a, { x, y: a.y }, { x, y: b.y }, b];
  }
  const turn = forward ? 8 : -8;
  return [a, { x: a.x + turn, y: a.y }, { x: a.x + turn, y: floor }, { x: b.x - turn, y: floor }, { x: b.x - turn, y: b.y }, b];
}

function through(from: Box, via: Box, to: Box, floor: number): XY[] {
  return [...joint(from, via, floor), ...joint(via, to, floor)];
}

/** feedsOf joins the parts of the run in their order: a cable's line by its own name, a short lead's by the part that it is beside. */
function feedsOf(columns: Column[], parts: Map<string, Box>, source: string, floor: number): Map<string, XY[]> {
  const feeds = new Map<string, XY[]>();
  let from: { id: string; box: Box } | null = null;
  let cable: string | null = null;
  let plug: Box | null = null;
  let passed = false;
  for (const c of columns) {
    const box = parts.get(c.id);
    if (c.kind === "cable") cable = c.id;
    else if (c.kind === "plug" && box) plug = box;
    else if (box && (from !== null || c.id === source)) {
      if (from) feeds.set(cable ?? (passed ? from.id : c.id), plug ? through(from.box, plug, box, floor) : joint(from.box, box, floor));
      from = { id: c.id, box };
      cable = null;
      plug = null;
      passed = passed || c.id === "coupling";
    }
  }
  return feeds;
}

/** halfway is the point half-way along a line of points. */
export function halfway(points: XY[]): XY {
  const lengths = points.slice(1).map((p, i) => Math.hypot(p.x - (points[i] as XY).x, p.y - (points[i] as XY).y));
  let left = lengths.reduce((sum, l) => sum + l, 0) / 2;
  for (let i = 0; i < lengths.length; i++) {
    const l = lengths[i] as number;
    if (left <= l && l > 0) {
      const [a, b] = [points[i] as XY, points[i + 1] as XY];
      return { x: a.x + ((b.x - a.x) * left) / l, y: a.y + ((b.y - a.y) * left) / l };
    }
    left -= l;
  }
  return points[0] as XY;
}

export const line = (points: XY[]): string => points.map((p, i) => `${i === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("");

/** Grade is the grade line's scale: which volts are shown, and where. */
export interface Grade {
  y: (volts: number) => number;
  ticks: number[];
}

/** gradeScale covers all volts that are shown, by whole half or quarter volts. */
export function gradeScale(volts: number[], top: number, bottom: number): Grade {
  const low = Math.min(...volts);
  const high = Math.max(...volts);
  const step = [0.1, 0.25, 0.5, 1, 2, 5].find((s) => (high - low) / s <= 5) ?? 10;
  const from = Math.floor((low - step * 0.15) / step) * step;
  const to = Math.ceil((high + step * 0.15) / step) * step;
  const ticks: number[] = [];
  for (let v = from; v <= to + 1e-9; v += step) ticks.push(Math.round(v * 100) / 100);
  return { y: (v) => bottom - ((v - from) / (to - from)) * (bottom - top), ticks };
}

/** broken is a path through points with a gap in the span of a relay that is open. */
export function broken(points: XY[], gap: Span | null): string {
  if (!gap) return line(points);
  const before = points.filter((p) => p.x <= gap.left + 0.5);
  const after = points.filter((p) => p.x >= gap.right - 0.5);
  return line(before) + line(after);
}

/** gradeLine is a state's volts across the columns, as points. */
export function gradeLine(state: Schemas["State"], spans: Map<string, Span>, grade: Grade): XY[] {
  return state.points.flatMap((p) => {
    const span = spans.get(p.column);
    return span ? [{ x: span.left, y: grade.y(p.inV) }, { x: span.right, y: grade.y(p.outV) }] : [];
  });
}

/** shownState is the state that is shown alone; undefined shows all in which it charges. */
export function shownState(plan: Plan, shown: string | null): Schemas["State"] | undefined {
  return plan.states.find((s) => s.id === shown);
}

/** drawn are the states whose volts are drawn: one alone, or all in which it charges. */
export function drawn(plan: Plan, shown: string | null): Schemas["State"][] {
  const alone = shownState(plan, shown);
  const states = alone ? [alone] : plan.states.filter((s) => s.kind === "charging");
  return states.filter((s) => s.points.length > 0);
}
