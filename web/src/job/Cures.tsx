import { Button } from "@mantine/core";

import type { Note } from "../api/client";
import css from "./Cures.module.css";
import { useDispatch, useShown } from "./JobContext";

/** Cures are the buttons that make a note go away. */
export function Cures({ note }: { note: Note }) {
  const dispatch = useDispatch();
  const { vocabulary, ask, readOnly } = useShown();
  if (readOnly) return null;
  const apply = (path: string, value: string | undefined) => {
    const numeric = vocabulary.fields.some((f) => f.path === path && f.kind === "level");
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
