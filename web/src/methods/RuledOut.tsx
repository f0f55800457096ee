import css from "./methods.module.css";
import { because } from "./rows";
import type { Method } from "./useJudged";

/** RuledOut are the couplings that are ruled out, a line to each with why. */
export function RuledOut({ list, at, look }: { list: Method[]; at: Method; look: (kind: string) => void }) {
  const folded = list.filter((m) => m !== at && !m.fitted);
  if (folded.length === 0) return null;
  return (
    <section aria-label="Ruled out" className={css.out}>
      <h3>Ruled out</h3>
      <ul>
        {folded.map((m) => (
          <li key={m.method.kind} data-of={m.method.kind}>
            <button type="button" data-method={m.method.kind} onClick={() => look(m.method.kind)}>
              {m.method.label}
            </button>{" "}
            <span className="hidden">ruled out</span>
            <span>{because(m)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
