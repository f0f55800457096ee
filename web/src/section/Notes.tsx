import { Button } from "@mantine/core";

import type { Note } from "../api/client";
import { fieldOf, useJob } from "../job/JobContext";
import { severityWord } from "../ui/words";

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
    <span className="cures">
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

/** Flag is a note's number, as on the drawing. */
export function Flag({ number, note }: { number: number; note: Note }) {
  return <span className={`flag ${note.severity}`}>{number}</span>;
}

/** Notes lists what is weak, worst first, each with its cure. */
export function Notes() {
  const { plan, pick, picked } = useJob();
  return (
    <section className="notes" aria-label="Notes">
      {plan.notes.length === 0 && <p className="soft">Nothing weak found in this plan.</p>}
      <ol>
        {plan.notes.map((n, i) => (
          <li key={n.id + n.column + n.text} className={picked === n.column ? "lit" : ""}>
            <button type="button" className="plain" onClick={() => pick(n.column)} title={n.why}>
              <Flag number={i + 1} note={n} />
              <span>
                <b>{severityWord[n.severity]}.</b> {n.text}
              </span>
            </button>
            <Cures note={n} />
          </li>
        ))}
      </ol>
      <p className="cautions">
        {plan.cautions.map((c) => (
          <span key={c}>{c} </span>
        ))}
      </p>
    </section>
  );
}
