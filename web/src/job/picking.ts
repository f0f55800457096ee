import type { Plan } from "../api/client";

/** columnOf is the section's column of a part or a wire: its own, or that of the run or the device that it belongs to. */
export function columnOf(plan: Pick<Plan, "columns" | "system">, thing: string | null): string | null {
  if (thing === null) return null;
  const wire = plan.system.wires.find((w) => w.id === thing);
  const homes = [thing, wire?.run, thing === "k1" ? "coupling" : undefined];
  return homes.find((id) => plan.columns.some((c) => c.id === id)) ?? null;
}

/** litBy are the parts and wires that light up with what is picked: a run's wires with its column, a wire's ends with it. */
export function litBy(plan: Pick<Plan, "system">, thing: string | null): Set<string> {
  if (thing === null) return new Set();
  const lit = new Set([thing]);
  for (const w of plan.system.wires) {
    if (w.run === thing && w.role === "feed") lit.add(w.id);
    if (w.id === thing) lit.add(w.from.component).add(w.to.component);
    if (w.from.component === thing || w.to.component === thing) lit.add(w.id);
  }
  return lit;
}
