import type { ReactNode } from "react";

import css from "./Verdict.module.css";
import type { Level } from "./words";

/** Verdict is a word in a frame, and why. */
export function Verdict({ word, level, children }: { word: string; level: Level; children: ReactNode }) {
  return (
    <p className={css.verdict} data-level={level}>
      <b>{word}</b> {children}
    </p>
  );
}
