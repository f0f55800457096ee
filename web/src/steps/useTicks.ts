import { api, take } from "../api/client";
import { uuid } from "../api/once";
import { useQueue } from "../job/useQueue";
import type { Tick } from "./ticks";

/** useTicks is what was ticked on a job. */
export function useTicks(id: string) {
  const params = { params: { path: { id } } };
  const queue = useQueue<Tick, null>("ticks", id, async (sent) => {
    if (sent.length === 0) return { kept: (await take(api.GET("/api/jobs/{id}/ticks", params))).ticks, refused: [], whole: null };
    const got = await take(api.POST("/api/jobs/{id}/ticks", { ...params, body: sent as unknown as Record<string, unknown>[] }));
    return { kept: got.ticks, refused: got.refused, whole: null };
  });
  const tick = (step: string, done: boolean, by: string, usual: number, note = "") => queue.add({ id: uuid(), step, done, by, usual, at: new Date().toISOString(), ...(note ? { note } : {}) });
  return { ticks: queue.all, unsent: queue.unsent, refused: queue.refused, tick, failed: queue.failed };
}
