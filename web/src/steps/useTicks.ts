import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, take } from "../api/client";
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

/** exchange sends what waits, if anything does, and brings all ticks of the job. */
async function exchange(id: string): Promise<Tick[]> {
  const params = { params: { path: { id } } };
  const queue = read(id);
  if (queue.length === 0) return take(api.GET("/api/jobs/{id}/ticks", params));
  const all = await take(api.POST("/api/jobs/{id}/ticks", { ...params, body: queue }));
  keep(keyOf(id), JSON.stringify(waiting(read(id), all)));
  return all;
}

/** uuid names a tick; browsers give random names on secure pages alone, random numbers everywhere. */
function uuid(): string {
  if (typeof crypto.randomUUID === "function") return crypto.randomUUID();
  const hex = [...crypto.getRandomValues(new Uint8Array(16))].map((b, i) => (i === 6 ? (b & 0x0f) | 0x40 : i === 8 ? (b & 0x3f) | 0x80 : b).toString(16).padStart(2, "0")).join("");
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})/, "$1-$2-$3-$4-");
}

/** useTicks is what was ticked on a job: kept in this browser at once, and sent as soon as the server answers. */
export function useTicks(id: string) {
  const queries = useQueryClient();
  const kept = useQuery({ queryKey: ["ticks", id], queryFn: () => exchange(id), refetchInterval: 5000, refetchOnReconnect: "always", retry: false });
  const [queue, setQueue] = useState<Tick[]>(() => read(id));
  const unsent = waiting(queue, kept.data ?? []);
  const tick = (step: string, done: boolean, by: string, usual: number, note = "") => {
    const t: Tick = { id: uuid(), step, done, by, usual, at: new Date().toISOString(), ...(note ? { note } : {}) };
    keep(keyOf(id), JSON.stringify([...read(id), t]));
    setQueue((was) => [...was, t]);
    void queries.invalidateQueries({ queryKey: ["ticks", id] });
  };
  return { ticks: [...(kept.data ?? []), ...unsent], unsent: unsent.length, tick, failed: kept.isError };
}
