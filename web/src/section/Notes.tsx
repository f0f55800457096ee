import cx from "clsx";
import type { Note } from "../api/client";
import { Cures } from "../job/Cures";
import { useShown } from "../job/JobContext";
import { severityWord } from "../ui/words";
import css from "./foot.module.css";

/** Flag is a note's number, as on the drawing. */
export function Flag({ number, note }: { number: number; note: Note }) {
  return <span className={css.flag} data-severity={note.severity}>{number}</span>;
}

/** Notes lists what is weak, worst first, each with its cure. */
export function Notes() {
  const { plan, pick, picked } = useShown();
  return (
    <section className={css.notes} aria-label="Notes">
      {plan.notes.length === 0 && <p className="soft">Nothing weak found in this plan.</p>}
      <ol>
        {plan.notes.map((n, i) => (
          <li key={n.id + n.column + n.text} className={cx(picked === n.column && css.lit)}>
            <button type="button" className={css.plain} onClick={() => pick(n.column)} title={n.why}>
              <Flag number={i + 1} note={n} />
              <span>
                <b>{severityWord[n.severity]}.</b> {n.text}
              </span>
            </button>
            <Cures note={n} />
          </li>
        ))}
      </ol>
      <p className={css.cautions}>
        {plan.cautions.map((c) => (
          <span key={c}>{c} </span>
        ))}
      </p>
    </section>
  );
}
