import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";

import { api, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";
import { keep, recall } from "../ui/stored";
import { waiting, type Tick } from "./ticks";

const keyOf = (id: string) => `ticks:${id}`;

function read(id: string): Tick[] {
  try {
    return JSON.parse(recall(keyOf(id)) ?? "[]") as Tick[];
  } catch {
    return [];
  }
}

/**
 * useTicks is what was ticked on a job: kept in this window at once, in this browser where it allows it, and sent
 * as soon as the server answers. What the server cannot keep is told, and keeps nothing else from being sent.
 */
export function useTicks(id: string) {
  const queries = useQueryClient();
  const [queue, setQueue] = useState<Tick[]>(() => read(id));
  const [refused, setRefused] = useState<Schemas["RefusedTick"][]>([]);
  const latest = useRef(queue);
  const put = useCallback(
    (ticks: Tick[]) => {
      latest.current = ticks;
      setQueue(ticks);
      keep(keyOf(id), ticks.length ? JSON.stringify(ticks) : null);
    },
    [id],
  );

  /** exchange sends what waits, if anything does, and brings all ticks of the job. */
  const exchange = async (): Promise<Tick[]> => {
    const params = { params: { path: { id } } };
    // Another window may have left some here.
    const sent = [...latest.current, ...waiting(read(id), latest.current)];
    if (sent.length === 0) return (await take(api.GET("/api/jobs/{id}/ticks", params))).ticks;
    const got = await take(api.POST("/api/jobs/{id}/ticks", { ...params, body: sent as unknown as Record<string, unknown>[] }));
    const bad = new Set(got.refused.map((r) => r.id));
    setRefused((was) => [...was, ...got.refused]);
    put(waiting([...latest.current, ...waiting(read(id), latest.current)], got.ticks).filter((t) => !bad.has(t.id)));
    return got.ticks;
  };
  const kept = useQuery({ queryKey: ["ticks", id], queryFn: exchange, refetchInterval: 5000, refetchOnReconnect: "always", retry: false });

  const unsent = waiting(queue, kept.data ?? []);
  const tick = (step: string, done: boolean, by: string, usual: number, note = "") => {
    put([...latest.current, { id: uuid(), step, done, by, usual, at: new Date().toISOString(), ...(note ? { note } : {}) }]);
    void queries.invalidateQueries({ queryKey: ["ticks", id] });
  };
  return { ticks: [...(kept.data ?? []), ...unsent], unsent: unsent.length, refused, tick, failed: kept.isError };
}
