import { useQuery } from "@tanstack/react-query";

import { api, take } from "../api/client";
import { useEdit } from "../job/JobContext";
import { Failed, Waiting } from "../ui/Wait";
import css from "./record.module.css";

/** Between is what changed from a revision to another, or to the draft: the answers, what they came to, and what is weak. */
export function Between({ id, from, to }: { id: string; from: number; to: number }) {
  const { version } = useEdit();
  const between = useQuery({
    queryKey: ["between", id, from, to, to === 0 ? version : 0],
    queryFn: () => take(api.GET("/api/jobs/{id}/between", { params: { path: { id }, query: { from, to } } })),
  });
  if (between.isPending) return <Waiting what="Comparing" />;
  if (between.isError) return <Failed what="What changed" error={between.error} again={() => void between.refetch()} />;
  const { changes, figures, gone, came } = between.data;
  if (changes.length + figures.length + gone.length + came.length === 0) return <p>Nothing.</p>;
  return (
    <ul className={css.between}>
      {changes.map((c) => (
        <li key={c.path}>
          {c.label}: <span className="soft">{c.from || "not answered"}</span> → {c.to || "not answered"}
        </li>
      ))}
      {figures.map((f) => (
        <li key={f.label}>
          <b>{f.label}</b>: <span className="soft">{f.from || "none"}</span> → {f.to || "none"}
        </li>
      ))}
      {gone.map((text) => (
        <li key={text}>
          <b>No longer:</b> {text}
        </li>
      ))}
      {came.map((text) => (
        <li key={text}>
          <b>New:</b> {text}
        </li>
      ))}
    </ul>
  );
}
