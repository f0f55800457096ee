import type { ReactNode } from "react";

import type { Note } from "../api/client";
import css from "./NoteBox.module.css";
import { severityWord } from "./words";

/** NoteBox is a note where it is acted on: how bad, what, why, and what would cure it. */
export function NoteBox({ note, besides, children }: { note: Pick<Note, "severity" | "text" | "why">; /** a word beside how bad it is */ besides?: string; children?: ReactNode }) {
  return (
    <div className={css.note} data-severity={note.severity}>
      <b>
        {severityWord[note.severity]}
        {besides && `, ${besides}`}.
      </b> {note.text} <span className="soft">{note.why}</span> {children}
    </div>
  );
}
