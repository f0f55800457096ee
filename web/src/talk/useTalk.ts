import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";

import { api, NoAnswer, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";

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

/** useTalk is what was said on a job about something. */
export function useTalk(job: string, about: About, subject: string) {
  const queries = useQueryClient();
  const path = { params: { path: { id: job } } };
  const all = useQuery({ queryKey: ["comments", job], queryFn: () => take(api.GET("/api/jobs/{id}/comments", path)), refetchInterval: 20_000, retry: false });
  const name = useRef("");
  const say = useMutation({
    mutationFn: (said: Omit<Schemas["SaidComment"], "id" | "about">) => {
      name.current ||= uuid(); // sent again it is the same
      return take(api.POST("/api/jobs/{id}/comments", { ...path, body: { ...said, id: name.current, about } }));
    },
    retry: (times, error) => error instanceof NoAnswer && times < 3,
    onSuccess: (now) => {
      name.current = "";
      queries.setQueryData(["comments", job], now);
      void queries.invalidateQueries({ queryKey: ["waiting"] });
    },
  });
  return { threads: threads(all.data ?? []).filter((t) => t.first.about === about && (t.first.subject ?? "") === subject), say };
}
