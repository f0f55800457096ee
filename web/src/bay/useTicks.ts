import { api, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";
import { useQueue } from "../job/useQueue";
import { useMe } from "../ui/useMe";
import type { Tick } from "./ticks";

/** useTicks is what was ticked on a job. */
export function useTicks(id: string) {
  const queue = useQueue<Tick, Schemas["Ticks"]>("ticks", id, () => take(api.GET("/api/jobs/{id}/ticks", { params: { path: { id } } })), (whole) => whole.ticks);
  const me = useMe();
  const tick = (step: Schemas["Step"], done: boolean, note = "") =>
    queue.add(
      { id: uuid(), step: step.id, done, by: me?.person?.name ?? "", person: me?.person?.id, usual: step.usual, at: new Date().toISOString(), ...(note ? { note } : {}), ...(me?.waits && step.hold && done ? { waits: true } : {}) },
      `${done ? "done" : "not done"}: ${step.title}`,
    );
  return { ticks: queue.all, again: () => void queue.again(), unsent: queue.unsent, others: queue.others, loose: queue.loose, refused: queue.refused, tick, failed: queue.failed };
}
