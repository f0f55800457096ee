import { useDates } from "../ui/useDates";
import css from "./editor.module.css";
import type { Saved } from "./useSaving";

/** SaveState says what is saved, and where. */
export function SaveState({ number, revision, saved }: { number: string; revision: number; saved: Saved }) {
  const dates = useDates();
  const words = {
    saved: () => `saved ${dates.since((saved as { when: string }).when)}`,
    saving: () => "saving",
    waiting: () => waits(saved as Saved & { at: "waiting" }),
    deleted: () => "deleted elsewhere: kept in this browser",
    conflict: () => "changed elsewhere: decide below",
  }[saved.at]();
  return (
    <span className={css.saved} role="status" data-saved={saved.at} title={saved.at === "waiting" ? saved.why : undefined}>
      job {number}, {revision ? `draft after revision ${revision}` : "draft"}, {words}
    </span>
  );
}

/** waits says why it is not saved, and where it is meanwhile. */
function waits({ refused, why, kept }: Saved & { at: "waiting" }): string {
  const where = kept ? ": kept in this browser" : ", and this browser cannot keep it";
  return (refused ? `cannot be saved, as ${why}` : "not saved yet") + where;
}
