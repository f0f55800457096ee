import { api, take } from "../api/client";
import type { Schemas } from "../api/client";
import { valueAt } from "./document";
import { FieldInputs } from "./Fields";
import css from "./FoldedFields.module.css";
import { fieldOf, useJob } from "./JobContext";
import { useAsked } from "./useAsked";

/** FoldedFields are what a part's own label says or a meter shows, in the place of what is usual: folded until somebody wants them. */
export function FoldedFields({ folded }: { folded: Schemas["Folded"] }) {
  const { state } = useJob();
  const given = folded.fields.filter((path) => valueAt(state.doc, path) !== undefined).length;
  return (
    <details className={css.folded}>
      <summary>
        {folded.title}
        {given > 0 && <span className="soft">, {given} given</span>}
      </summary>
      <div className={css.asks}>
        <FieldInputs paths={folded.fields} />
      </div>
      <Moved paths={folded.fields} />
    </details>
  );
}

/** Moved says what the measured answers among some move, against what would stand in for them. */
export function Moved({ paths }: { paths: string[] }) {
  const { state } = useJob();
  return paths.some((path) => valueAt(state.doc, path) !== undefined) ? <Moves paths={paths} /> : null;
}

function Moves({ paths }: { paths: string[] }) {
  const job = useJob();
  const { answer } = useAsked("moves", (body, signal) => take(api.POST("/api/moves", { body, signal })));
  const list = (answer ?? []).filter((m) => paths.includes(m.path));
  if (list.length === 0) return null;
  return (
    <ul className={css.moves} aria-label="What it moves">
      {list.map((m) => (
        <li key={m.path}>
          <b>{fieldOf(job, m.path)?.label}:</b> {m.says}
        </li>
      ))}
    </ul>
  );
}
