import { useShown } from "../job/JobContext";
import css from "./foot.module.css";

/** TitleBlock carries what matters for this job, with number and revision. */
export function TitleBlock({ sheet, state }: { sheet: string; state: string }) {
  const { plan, number } = useShown();
  return (
    <aside className={css.titleBlock} aria-label="Title block">
      {plan.title.map((t) => (
        <div key={t.label} data-level={t.level}>
          <span>{t.label}</span>
          <b>{t.text}</b>
        </div>
      ))}
      <div>
        <span>{sheet}</span>
        <b>
          {number} {state}
        </b>
      </div>
    </aside>
  );
}
