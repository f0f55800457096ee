import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";

import type { Problem } from "../api/client";
import { keep, recall } from "../ui/stored";
import { useMe } from "../ui/useMe";

/** Named is something with a name of its own, which the client makes: sent twice it counts once; and whose it is. */
interface Named {
  id: string;
  person?: string | undefined;
}

/** Exchanged is what came back: all that the server has, what it cannot keep, and the answer whole. */
export interface Exchanged<T, R> {
  kept: T[];
  refused: { id: string; problems: Problem[] }[];
  whole: R;
}

/** waiting are those that the server does not have yet. */
export function waiting<T extends Named>(queue: T[], kept: T[]): T[] {
  const there = new Set(kept.map((t) => t.id));
  return queue.filter((t) => !there.has(t.id));
}

function read<T>(key: string): T[] {
  try {
    return JSON.parse(recall(key) ?? "[]") as T[];
  } catch {
    return [];
  }
}

/**
 * useQueue is what is entered in a row on a job: kept in this window at once, in this browser where it allows it, and
 * sent as soon as the server answers. What the server cannot keep is told, and keeps nothing else from being sent.
 */
export function useQueue<T extends Named, R>(name: string, id: string, exchange: (sent: T[]) => Promise<Exchanged<T, R>>) {
  const queries = useQueryClient();
  const key = `${name}:${id}`;
  const me = useMe();
  const [queue, setQueue] = useState<T[]>(() => read<T>(key));
  const [refused, setRefused] = useState<Exchanged<T, R>["refused"]>([]);
  const latest = useRef(queue);
  const put = useCallback(
    (list: T[]) => {
      latest.current = list;
      setQueue(list);
      keep(key, list.length ? JSON.stringify(list) : null);
    },
    [key],
  );
  /** all is what waits here, and what another window may have left. */
  const all = () => [...latest.current, ...waiting(read<T>(key), latest.current)];
  /** mine says whether something may be sent from here: what somebody else entered waits until they are back. */
  const mine = (t: T) => !t.person || t.person === me?.person?.id;
  const swap = async () => {
    const got = await exchange(all().filter(mine));
    const bad = new Set(got.refused.map((r) => r.id));
    if (got.refused.length > 0) setRefused((was) => [...was, ...got.refused]);
    put(waiting(all(), got.kept).filter((t) => !bad.has(t.id)));
    return got;
  };
  const got = useQuery({ queryKey: [name, id], queryFn: swap, refetchInterval: 5000, refetchOnReconnect: "always", retry: false });
  const unsent = waiting(queue, got.data?.kept ?? []);
  const add = (one: T) => {
    put([...latest.current, one]);
    void queries.invalidateQueries({ queryKey: [name, id] });
  };
  const others = unsent.filter((t) => !mine(t)).length;
  return { others, all: [...(got.data?.kept ?? []), ...unsent], unsent: unsent.length, refused, add, failed: got.isError, whole: got.data?.whole, again: got.refetch };
}
