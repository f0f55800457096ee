import type { Schemas } from "../api/client";

export type Tick = Schemas["StepTick"];

/** standing is the last tick of each step, in the order in which the server got them, and after them those that wait to be sent: no clock decides. */
export function standing(ticks: Tick[]): Map<string, Tick> {
  return new Map(ticks.map((t) => [t.step, t]));
}

/** isDone is whether a step is done: ticked, and where an apprentice signed it countersigned too. */
export function isDone(tick: Tick | undefined): boolean {
  return tick?.done === true && !tick.waits;
}

/** nextOpen is the first step that is not done and has nothing before it that is open. */
export function nextOpen(steps: Schemas["Step"][], done: (id: string) => boolean): number {
  return steps.findIndex((s) => !done(s.id) && s.after.every(done));
}

/** held are the steps that wait for a hold point that nobody has signed: itself unsigned, and before them. */
export function held(steps: Schemas["Step"][], done: (id: string) => boolean): Map<string, string> {
  const by = new Map<string, string>();
  const names = new Map(steps.map((s) => [s.id, s]));
  for (const s of steps) {
    for (const id of s.after) {
      const before = names.get(id);
      if (before?.hold && !done(id)) by.set(s.id, id);
      else if (by.has(id)) by.set(s.id, by.get(id) as string);
    }
  }
  return by;
}
