import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";
import { useBeat, useWaitsOf } from "../offline/useWaits";
import { wait } from "../offline/waits";
import { useMe } from "../ui/useMe";

export type Comment = Schemas["Comment"];
export type About = Comment["about"];

/** Thread is a comment with what answers it. */
export interface Thread {
  first: Comment;
  answers: Comment[];
  /** It is a question, and nobody has answered it. */
  open: boolean;
}

/** threads are comments as they belong together. */
export function threads(list: Comment[]): Thread[] {
  const answers = (id: string) => list.filter((c) => c.thread === id);
  return list.filter((c) => !c.thread).map((first) => ({ first, answers: answers(first.id), open: first.asks && !answers(first.id).some((a) => a.answers) }));
}

/** useTalk is what was said on a job about something, with what waits on this device to be said. */
export function useTalk(job: string, about: About, subject: string) {
  const me = useMe();
  const all = useQuery({ queryKey: ["comments", job], queryFn: () => take(api.GET("/api/jobs/{id}/comments", { params: { path: { id: job } } })), refetchInterval: useBeat(20_000), retry: false });
  const there = new Set(all.data?.map((c) => c.id));
  const waiting = useWaitsOf(job, "comments");
  const here = waiting
    .filter((w) => !w.refused && !there.has(w.id))
    .map((w) => ({ asks: false, answers: false, ...(w.body as unknown as Schemas["SaidComment"]), by: me?.person?.name ?? "", at: w.at }));
  const say = (said: Omit<Schemas["SaidComment"], "id" | "about">) => {
    const id = uuid();
    void wait({ id, road: "comments", job, person: me?.person?.id, named: `said: ${said.text}`, at: new Date().toISOString(), body: { ...said, id, about } });
  };
  const refused = waiting.filter((w) => w.refused && w.body.about === about && (w.body.subject ?? "") === subject);
  return { threads: threads([...(all.data ?? []), ...here]).filter((t) => t.first.about === about && (t.first.subject ?? "") === subject), say, refused };
}
