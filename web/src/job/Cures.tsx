import { Button } from "@mantine/core";

import type { Note } from "../api/client";
import css from "./Cures.module.css";
import { fieldOf, useJob } from "./JobContext";

/** Cures are the buttons that make a note go away. */
export function Cures({ note }: { note: Note }) {
  const job = useJob();
  const { dispatch, ask, readOnly } = job;
  if (readOnly) return null;
  const apply = (path: string, value: string | undefined) => {
    const numeric = fieldOf(job, path)?.kind === "level";
    dispatch({ type: "set", path, value: value && numeric ? Number(value) : value || undefined });
  };
  return (
    <span className={css.cures} data-cures>
      {note.cures.map((c) => (
        <Button
          key={c.label}
          size="compact-sm"
          onClick={() => (c.path ? apply(c.path, c.value) : ask(c.ask ?? null))}
        >
          {c.label}
        </Button>
      ))}
    </span>
  );
}
