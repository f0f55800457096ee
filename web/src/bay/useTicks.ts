import { api, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";
import { useQueue } from "../job/useQueue";
import { useMe } from "../ui/useMe";
import type { Tick } from "./ticks";

/** useTicks is what was ticked on a job. */
export function useTicks(id: string) {
  const params = { params: { path: { id } } };
  const queue = useQueue<Tick, null>("ticks", id, async (sent) => {
    if (sent.length === 0) return { kept: (await take(api.GET("/api/jobs/{id}/ticks", params))).ticks, refused: [], whole: null };
    const got = await take(api.POST("/api/jobs/{id}/ticks", { ...params, body: sent as unknown as Record<string, unknown>[] }));
    return { kept: got.ticks, refused: got.refused, whole: null };
  });
  const me = useMe();
  const tick = (step: Schemas["Step"], done: boolean, note = "") =>
    queue.add({ id: uuid(), step: step.id, done, by: me?.person?.name ?? "", person: me?.person?.id, usual: step.usual, at: new Date().toISOString(), ...(note ? { note } : {}), ...(me?.waits && step.hold && done ? { waits: true } : {}) });
  return { ticks: queue.all, again: () => void queue.again(), unsent: queue.unsent, others: queue.others, refused: queue.refused, tick, failed: queue.failed };
}
