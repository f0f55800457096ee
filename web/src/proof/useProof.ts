import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";

import { api, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";
import { useJob } from "../job/JobContext";
import { useQueue } from "../job/useQueue";
import { standing } from "../bay/ticks";
import { usePhotos } from "../bay/usePhotos";
import { useTicks } from "../bay/useTicks";
import { useMe } from "../ui/useMe";

export type Entry = Schemas["ProofEntry"];
export type Proven = Schemas["Proven"];
export type AskedReading = Schemas["AskedReading"];
export type Gate = Schemas["Gate"];

/** useProof is a job's proof: what was entered, kept here until the server has it, and what it means. */
export function useProof() {
  const { id, state } = useJob();
  const { ticks, again: ticksAgain } = useTicks(id);
  const me = useMe();
  const queue = useQueue<Entry, Schemas["ProofRecord"]>("proof", id, () => take(api.GET("/api/jobs/{id}/proof", { params: { path: { id } } })), (whole) => whole.entries);
  const photos = usePhotos(id, queue.whole?.photos ?? []);
  const ticked = [...standing(ticks).values()].filter((t) => t.done);
  const done = ticked.map((t) => t.step);
  const waiting = ticked.filter((t) => t.waits).map((t) => t.step);
  const tied: Record<string, number> = {};
  for (const p of photos) tied[p.tied] = (tied[p.tied] ?? 0) + 1;
  const now = JSON.stringify({ document: state.doc, entries: queue.all, done, waiting, photos: tied });
  const asked = useDeferredValue(now);
  const means = useQuery({
    queryKey: ["prove", asked],
    queryFn: ({ signal }) => take(api.POST("/api/proof", { body: JSON.parse(asked) as never, signal })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: 2,
  });
  const enter = (kind: Entry["kind"], subject: string, entry: string, more: { with?: string; state?: string } = {}) =>
    queue.add({ id: uuid(), kind, subject, entry, by: me?.person?.name ?? "", person: me?.person?.id, at: new Date().toISOString(), ...(me?.waits && kind !== "trip" ? { waits: true } : {}), ...more }, `${called(subject)}: ${entry}`);
  /** called is what a reading or a gate is called. */
  const called = (subject: string) => means.data?.readings.find((r) => r.id === subject)?.what ?? means.data?.gates.find((g) => g.id === subject)?.name ?? subject;
  return {
    entries: queue.all,
    unsent: queue.unsent,
    loose: queue.loose,
    others: queue.others,
    ticked,
    refused: queue.refused,
    failed: queue.failed,
    photos,
    signed: queue.whole?.signed ?? [],
    again: () => {
      void queue.again();
      ticksAgain();
    },
    enter,
    proven: means.data,
    asking: means.isFetching || asked !== now,
    wrong: means.error,
    ask: () => void means.refetch(),
  };
}
