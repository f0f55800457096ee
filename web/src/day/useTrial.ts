import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";

import { api, take, type Schemas } from "../api/client";
import type { Doc } from "../job/document";
import type { Asked } from "../ui/Wait";
import type { Window } from "./time";

export type Trial = Schemas["Trial"];

/**
 * useTrial runs the job through its days whenever its document changes, and keeps the last run until the
 * next is there. A window is looked at more closely; null looks at all of the run.
 */
export function useTrial(doc: Doc, window: Window | null): Asked<Trial> {
  const now = useDeferredValue(JSON.stringify(doc));
  const query = useQuery({
    queryKey: ["trial", now, window?.from ?? 0, window?.to ?? 0],
    queryFn: async ({ signal }) => {
      if (!window) await new Promise((resolve) => setTimeout(resolve, 250)); // a word is typed in more than one stroke
      signal.throwIfAborted();
      return take(api.POST("/api/trial", { params: { query: window ?? {} }, body: JSON.parse(now) as Record<string, never>, signal }));
    },
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: 2,
  });
  return { answer: query.data?.trial, asking: query.isFetching, failed: query.error, again: () => void query.refetch() };
}
