import type { Figure, Schemas } from "../api/client";
import { Working } from "./Working";

const levels = { good: "good", caution: "caution", bad: "not so", open: "open" } as const;
const order = ["bad", "caution", "open", "good"];

/** CheckList shows checks, worst first, each with a word for its level. */
export function CheckList({ checks, title = "Checks", figures = {} }: { checks: Schemas["Check"][]; title?: string; figures?: Record<string, Figure> }) {
  if (checks.length === 0) return null;
  const sorted = [...checks].sort((a, b) => order.indexOf(a.level) - order.indexOf(b.level));
  return (
    <section className="checkList" aria-label={title}>
      <h3>{title}</h3>
      <ul>
        {sorted.map((c) => (
          <li key={c.id + c.text} className={c.level}>
            <b>{levels[c.level]}</b> {c.text}
            {c.figure && figures[c.figure] && <Working figure={figures[c.figure] as Figure} />}
          </li>
        ))}
      </ul>
    </section>
  );
}
