import type { ReactNode } from "react";

import type { Figure, Schemas } from "../api/client";
import css from "./CheckList.module.css";
import { Working } from "./Working";
import type { Level } from "./words";

const words: Record<Level, string> = { good: "good", caution: "caution", bad: "not so", open: "open" };
const order: Level[] = ["bad", "caution", "open", "good"];

/** CheckList shows checks, worst first, each with a word for its level. */
export function CheckList({ checks, title = "Checks", titled = true, figures = {} }: { checks: Schemas["Check"][]; title?: string; /** the title is seen */ titled?: boolean; figures?: Record<string, Figure> }) {
  if (checks.length === 0) return null;
  const sorted = [...checks].sort((a, b) => order.indexOf(a.level) - order.indexOf(b.level));
  return (
    <section aria-label={title}>
      <h3 className={titled ? undefined : "hidden"}>{title}</h3>
      <Findings
        list={sorted.map((c) => ({ key: c.id + c.text, word: words[c.level], level: c.level, text: c.text, more: c.figure && figures[c.figure] && <Working figure={figures[c.figure] as Figure} /> }))}
      />
    </section>
  );
}

export interface Finding {
  key: string;
  word: string;
  level: Level;
  text: string;
  more?: ReactNode;
}

/** Findings are lines with a word for how good each is. */
export function Findings({ list }: { list: Finding[] }) {
  return (
    <ul className={css.findings}>
      {list.map((f) => (
        <li key={f.key} data-level={f.level}>
          {f.word && <b>{f.word}</b>} {f.text}
          {f.more}
        </li>
      ))}
    </ul>
  );
}
