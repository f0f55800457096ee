import { useJob } from "../job/JobContext";

/** TitleBlock carries what matters for this job, with number and revision. */
export function TitleBlock({ sheet, number, state }: { sheet: string; number: string; state: string }) {
  const { plan } = useJob();
  return (
    <aside className="titleBlock" aria-label="Title block">
      {plan.title.map((t) => (
        <div key={t.label} className={t.level}>
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
