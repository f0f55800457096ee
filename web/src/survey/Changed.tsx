import { useState } from "react";

import { useShown } from "../job/JobContext";
import css from "./survey.module.css";

/** Changed is what the answers of a group have changed in the plan since the group was opened; nothing where nothing has. */
export function Changed() {
  const { plan } = useShown();
  const [before] = useState(plan);
  const tiles = plan.title.flatMap((t) => {
    const was = before.title.find((b) => b.label === t.label)?.text;
    return was !== undefined && was !== t.text ? [{ label: t.label, was, is: t.text }] : [];
  });
  const gone = before.notes.filter((n) => !plan.notes.some((m) => m.id === n.id));
  const came = plan.notes.filter((n) => !before.notes.some((m) => m.id === n.id));
  if (tiles.length + gone.length + came.length === 0 && before.summary === plan.summary) return null;
  return (
    <section aria-label="What your answers changed" className={css.changed} role="status">
      <h3>What your answers changed</h3>
      <ul>
        {tiles.map((t) => (
          <li key={t.label}>
            {t.label}: <span className="soft">{t.was}</span> → <b>{t.is}</b>
          </li>
        ))}
        {gone.map((n) => (
          <li key={n.id}>
            <b>Settled:</b> {n.text}
          </li>
        ))}
        {came.map((n) => (
          <li key={n.id} data-severity={n.severity}>
            <b>New:</b> {n.text}
          </li>
        ))}
      </ul>
    </section>
  );
}
