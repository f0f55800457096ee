import { Button } from "@mantine/core";

import { api, take, type Schemas } from "../api/client";
import { valueAt } from "../job/document";
import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import { emptied, keysOf, newKey } from "../job/rows";
import { useAsked } from "../job/useAsked";
import { Wait } from "../ui/Wait";
import { Working } from "../ui/Working";
import { dueWords } from "../ui/due";

/** Dates is the job's calendar: what is to be done later, and what such a job usually asks for. */
export function Dates({ id }: { id: string }) {
  const job = useJob();
  const { state, dispatch, readOnly } = job;
  const asked = useAsked("dates", (doc, signal) => take(api.POST("/api/dates", { body: doc, signal })));
  const keys = keysOf(state.doc, "dates");
  const put = (values: Record<string, string | number>) => {
    const key = newKey();
    dispatch({ type: "setAll", values: Object.fromEntries(Object.entries(values).map(([name, value]) => [`dates.${key}.${name}`, value])) });
  };
  return (
    <section aria-label="Calendar" className="dates">
      <h2>Calendar</h2>
      {keys.length === 0 && <p className="empty">Nothing is to be done later.</p>}
      <ul className="rowsList">
        {keys.map((key) => (
          <li key={key} data-date={key}>
            <Standing row={asked.answer?.rows.find((r) => r.key === key)} today={asked.answer?.today ?? ""} at={key} />
            {["what", "kind", "due", "everyDays", ...(valueAt(state.doc, `dates.${key}.kind`) === "fit" ? ["bay"] : []), "done"].flatMap((n) => fieldOf(job, `dates.${key}.${n}`) ?? []).map((f) => (
              <div key={f.path} className={f.path.endsWith(".what") ? "rowSum" : undefined}>
                <FieldInput field={f} brief list />
              </div>
            ))}
            {!readOnly && (
              <Button size="compact-sm" variant="subtle" onClick={() => dispatch({ type: "setAll", values: emptied(state.doc, "dates", key) })}>
                Remove
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!asked.answer && <Wait asked={asked} what="Looking what such a job asks for" />}
      {asked.answer && !readOnly && (
        <>
          {asked.answer.calendar.offers.length > 0 && <h3>Such a job usually has</h3>}
          <ul className="offers">
            {asked.answer.calendar.offers.map((o, i) => (
              <li key={o.kind + o.what}>
                <Button size="compact-md" variant="default" aria-label={`Put in the calendar: ${o.what}`} onClick={() => put({ kind: o.kind, what: o.what, due: asked.answer?.offerDue[i] ?? "", ...(o.again ? { everyDays: o.days } : {}) })}>
                  Put in the calendar
                </Button>
                <span>
                  {o.what}, {asked.answer?.offerDue[i]}
                  {o.again ? `, again every ${o.days} days` : ""}. <span className="soft">{o.why}</span>
                </span>
              </li>
            ))}
          </ul>
          <div className="row">
            <Button size="compact-md" variant="default" onClick={() => put({ kind: "other" })}>
              Add a date
            </Button>
            {keys.length > 0 && <a href={`/api/jobs/${id}/calendar.ics`}>As iCalendar, as it is saved</a>}
          </div>
          <Working figure={asked.answer.calendar.figure} />
        </>
      )}
    </section>
  );
}

/** Standing is how a date stands today, and the button that says it was done. */
function Standing({ row, today, at }: { row: Schemas["DateState"] | undefined; today: string; at: string }) {
  const { dispatch, readOnly } = useJob();
  if (!row) return null;
  const done = () => dispatch({ type: "setAll", values: { [`dates.${at}.done`]: today, ...(row.next ? { [`dates.${at}.due`]: row.next } : {}) } });
  return (
    <p className={`rowSum due ${row.state}`}>
      <b>{dueWords(row.state, row.days)}</b>
      {!readOnly && row.state !== "done" && row.state !== "undated" && (
        <Button size="compact-sm" variant="default" onClick={done}>
          Done today
        </Button>
      )}
    </p>
  );
}
