import { Stands, type ComparedProps } from "./Compared";
import css from "./methods.module.css";
import { Reasons } from "./Reasons";
import { deciding } from "./rows";

/** Cards are the couplings on a phone, one below the other, the one that is looked at opened. */
export function Cards({ list, at, look }: ComparedProps) {
  const shown = deciding(list);
  return (
    <ul className={css.cards} aria-label="Couplings">
      {list.map((m) => (
        <li key={m.method.kind} data-of={m.method.kind} data-fitted={m.fitted || undefined}>
          <button type="button" data-method={m.method.kind} onClick={() => look(m.method.kind)} aria-expanded={m === at}>
            {m.method.label}
          </button>
          <Stands method={m} inline />
          <dl>
            {shown.map((r) => (
              <div key={r.label}>
                <dt>{r.label}</dt>
                <dd data-level={r.level?.(m)}>{r.of(m)}</dd>
              </div>
            ))}
          </dl>
          {m === at && <Reasons method={m} />}
        </li>
      ))}
    </ul>
  );
}
