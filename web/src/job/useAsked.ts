import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";

import type { Doc } from "./document";
import { useJob } from "./JobContext";

/** Body is a document as the API takes it. */
export type Body = Record<string, never>;

/** Asked is an answer of the server about the job as it stands, the last one until the next is there. */
export interface Asked<T> {
  answer: T | undefined;
  asking: boolean;
  failed: Error | null;
  again: () => void;
}

/** useAsked asks the server something about the job whenever its document changes. */
export function useAsked<T>(what: string, ask: (doc: Body, signal: AbortSignal) => Promise<T>): Asked<T> {
  const { state } = useJob();
  const now = useDeferredValue(JSON.stringify(state.doc satisfies Doc));
  const query = useQuery({
    queryKey: [what, now],
    queryFn: async ({ signal }) => {
      await new Promise((resolve) => setTimeout(resolve, 250)); // a word is typed in more than one stroke
      signal.throwIfAborted();
      return ask(JSON.parse(now) as Body, signal);
    },
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: 2,
  });
  return { answer: query.data, asking: query.isFetching, failed: query.error, again: () => void query.refetch() };
}
