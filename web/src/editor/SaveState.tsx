import { since } from "../ui/since";
import css from "./editor.module.css";
import type { Saved } from "./useSaving";

/** SaveState says what is saved, and where. */
export function SaveState({ number, revision, saved }: { number: string; revision: number; saved: Saved }) {
  const words = {
    saved: () => `saved ${since((saved as { when: string }).when)}`,
    saving: () => "saving",
    waiting: () => ((saved as { kept: boolean }).kept ? "not saved yet: kept in this browser" : "not saved yet, and this browser cannot keep it"),
    deleted: () => "deleted elsewhere: kept in this browser",
    conflict: () => "changed elsewhere: decide below",
  }[saved.at]();
  return (
    <span className={css.saved} role="status" data-saved={saved.at} title={saved.at === "waiting" ? saved.why : undefined}>
      job {number}, {revision ? `draft after revision ${revision}` : "draft"}, {words}
    </span>
  );
}
