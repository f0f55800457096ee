import { useMutation } from "@tanstack/react-query";

import { api, take } from "../api/client";
import { uuid } from "../api/once";
import { useJob } from "../job/JobContext";

/** useCountersign stands for what somebody else did. */
export function useCountersign(done: () => void) {
  const { id } = useJob();
  return useMutation({
    mutationFn: async (list: string[]) => {
      for (const of of list) await take(api.POST("/api/jobs/{id}/countersigns", { params: { path: { id } }, body: { id: uuid(), of } }));
    },
    onSettled: done,
  });
}
