import { useQuery } from "@tanstack/react-query";

import type { Road } from "../offline/db";
import { useBeat, useWaitsOf } from "../offline/useWaits";
import { mine, wait } from "../offline/waits";
import { useMe } from "../ui/useMe";

/** Named is something with a name of its own, which the client makes: sent twice it counts once; and whose it is. */
interface Named {
  id: string;
  person?: string | undefined;
}

/** waiting are those that the server does not have yet. */
export function waiting<T extends Named>(queue: T[], kept: T[]): T[] {
  const there = new Set(kept.map((t) => t.id));
  return queue.filter((t) => !there.has(t.id));
}

/**
 * useQueue is what is entered in a row on a job: what the server has of it, and behind that what waits on this device to be sent.
 */
export function useQueue<T extends Named, R>(road: Road, job: string, get: () => Promise<R>, listOf: (whole: R) => T[]) {
  const me = useMe();
  const here = useWaitsOf(job, road);
  const got = useQuery({ queryKey: [road, job], queryFn: get, refetchInterval: useBeat(5000), refetchOnReconnect: "always", retry: false });
  const kept = got.data ? listOf(got.data) : [];
  const sound = here.filter((w) => !w.refused);
  const unsent = waiting(sound.map((w) => w.body as unknown as T), kept);
  const refused = here.flatMap((w) => (w.refused ? [{ id: w.id, problems: w.refused }] : []));
  /** add enters something, and says what it is called in the row of what waits. */
  const add = (one: T, named: string) =>
    void wait({ id: one.id, road, job, person: one.person ?? me?.person?.id, named, at: new Date().toISOString(), body: one as unknown as Record<string, unknown> });
  return {
    all: [...kept, ...unsent],
    unsent: unsent.length,
    others: sound.filter((w) => !mine(w)).length,
    loose: sound.some((w) => w.loose),
    refused,
    add,
    failed: got.isError,
    whole: got.data,
    again: got.refetch,
  };
}
