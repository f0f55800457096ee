import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, take, type Schemas } from "../api/client";
import { once } from "../api/once";

export type Task = Schemas["Task"];

const open = (t: Task | undefined): boolean => t?.state === "waiting" || t?.state === "running";

/** useTask is the newest task of a kind that a job has: begun here, in another window, or before a restart. */
export function useTask(jobId: string, kind: Task["kind"]) {
  const queries = useQueryClient();
  const [begun, setBegun] = useState<string | null>(null);
  const list = useQuery({ queryKey: ["tasks", jobId], queryFn: () => take(api.GET("/api/jobs/{id}/tasks", { params: { path: { id: jobId } } })) });
  const id = begun ?? list.data?.find((t) => t.kind === kind)?.id;
  const task = useQuery({
    queryKey: ["task", id],
    enabled: !!id,
    queryFn: () => take(api.GET("/api/tasks/{id}", { params: { path: { id: id as string } } })),
    refetchInterval: (q) => (open(q.state.data) || q.state.error ? 400 : false),
    retry: 60, // a server that restarts takes a while
    retryDelay: 500,
  });
  const begin = useMutation({
    mutationFn: (ask: Schemas["Asking"]) => take(api.POST("/api/jobs/{id}/tasks", { params: { path: { id: jobId }, ...once() }, body: ask })),
    onSuccess: async (t) => {
      setBegun(t.id);
      await queries.invalidateQueries({ queryKey: ["tasks", jobId] });
    },
  });
  const stop = async () => {
    if (id) await take(api.DELETE("/api/tasks/{id}", { params: { path: { id } } }));
    await queries.invalidateQueries({ queryKey: ["task", id] });
  };
  return { task: task.data, busy: open(task.data) || begin.isPending, begin: begin.mutate, refused: begin.error, stop };
}
