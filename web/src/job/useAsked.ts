import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";

import type { Asked } from "../ui/Wait";
import type { Doc } from "./document";
import { useEdit } from "./JobContext";

/** Body is a document as the API takes it. */
export type Body = Record<string, never>;

/** useNow is the document as it is asked about: what is typed comes before what is worked out. */
function useNow(): string {
  const { state } = useEdit();
  return useDeferredValue(JSON.stringify(state.doc satisfies Doc));
}

/** question is what is asked of the server about a document. */
const question = <T>(key: string[], now: string, ask: (doc: Body, signal: AbortSignal) => Promise<T>) => ({
  queryKey: [...key, now],
  queryFn: ({ signal }: { signal: AbortSignal }) => ask(JSON.parse(now) as Body, signal),
  staleTime: Infinity,
  gcTime: 60_000,
  retry: 2,
});

/** useAsked asks the server something about the job whenever its document changes. */
export function useAsked<T>(what: string, ask: (doc: Body, signal: AbortSignal) => Promise<T>): Asked<T> {
  const slowly = async (doc: Body, signal: AbortSignal) => {
    await new Promise((resolve) => setTimeout(resolve, 250)); // a word is typed in more than one stroke
    signal.throwIfAborted();
    return ask(doc, signal);
  };
  const query = useQuery({ ...question([what], useNow(), slowly), placeholderData: keepPreviousData });
  return { answer: query.data, asking: query.isFetching, failed: query.error, again: () => void query.refetch() };
}

/** useAskedEach asks it of each of several, once that is wanted; an answer is there when its own has come, and never that about an earlier document. */
export function useAskedEach<T>(what: string, each: string[], enabled: boolean, ask: (one: string, doc: Body, signal: AbortSignal) => Promise<T>): Asked<T>[] {
  const now = useNow();
  const queries = useQueries({ queries: each.map((one) => ({ ...question([what, one], now, (doc, signal) => ask(one, doc, signal)), enabled })) });
  return queries.map((query) => ({ answer: query.data, asking: query.isFetching, failed: query.error, again: () => void query.refetch() }));
}
