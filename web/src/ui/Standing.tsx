import css from "./Standing.module.css";

/** Standing is a word on how something stands among its like: fitted, advised, the best so far. */
export function Standing({ level, inline, children }: { level?: "good" | "bad" | undefined; inline?: boolean; children: string }) {
  return (
    <span className={css.standing} data-level={level} data-inline={inline || undefined}>
      {children}
    </span>
  );
}
