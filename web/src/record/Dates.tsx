import { Button } from "@mantine/core";

import type { Schemas } from "../api/client";
import { FieldInput } from "../job/FieldInput";
import { FieldInputs } from "../job/Fields";
import { valueAt } from "../job/document";
import { fieldOf, useJob } from "../job/JobContext";
import { Across, RowList } from "../job/RowList";
import { keysOf, newKey } from "../job/rows";
import { Due } from "../ui/Due";
import { useDates } from "../ui/useDates";
import { Empty, Wait } from "../ui/Wait";
import { Working } from "../ui/Working";
import css from "./record.module.css";
import { useCalendar } from "./useCalendar";

/** Dates is the job's calendar: what is to be done later, and what such a job usually asks for. */
export function Dates({ id }: { id: string }) {
  const job = useJob();
  const { state, dispatch, readOnly } = job;
  const asked = useCalendar();
  const keys = keysOf(state.doc, "dates");
  const dates = useDates();
  const put = (values: Record<string, string | number>) => {
    const key = newKey();
    dispatch({ type: "setAll", values: Object.fromEntries(Object.entries(values).map(([name, value]) => [`dates.${key}.${name}`, value])) });
  };
  return (
    <section aria-label="Calendar">
      <h2>Calendar</h2>
      {keys.length === 0 && <Empty>Nothing is to be done later.</Empty>}
      <RowList list="dates">
        {(key) => (
          <>
            <Across>
              <Standing row={asked.answer?.rows.find((r) => r.key === key)} today={asked.answer?.today ?? ""} at={key} />
            </Across>
            <Across>
              <details className={css.date} open={!valueAt(state.doc, `dates.${key}.what`) || undefined}>
                <summary>Change</summary>
                <FieldInputs brief paths={[`dates.${key}.what`]} />
                {["kind", "due", "everyDays", "bay", "done"].flatMap((n) => fieldOf(job, `dates.${key}.${n}`) ?? []).map((f) => (
                  <FieldInput key={f.path} field={f} brief list />
                ))}
              </details>
            </Across>
          </>
        )}
      </RowList>
      {!asked.answer && <Wait asked={asked} what="Looking what such a job asks for" />}
      {asked.answer && !readOnly && (
        <>
          {asked.answer.calendar.offers.length > 0 && <h3>Such a job usually has</h3>}
          <ul className={css.offers}>
            {asked.answer.calendar.offers.map((o, i) => (
              <li key={o.kind + o.what}>
                <Button size="compact-md" variant="default" aria-label={`Put in the calendar: ${o.what}`} onClick={() => put({ kind: o.kind, what: o.what, due: asked.answer?.offerDue[i] ?? "", ...(o.again ? { everyDays: o.days } : {}) })}>
                  Put in the calendar
                </Button>
                <span>
                  {o.what}, {dates.day(asked.answer?.offerDue[i] ?? "")}
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
  const { state, dispatch, readOnly } = useJob();
  const dates = useDates();
  if (!row) return null;
  const of = (name: string) => String(valueAt(state.doc, `dates.${at}.${name}`) ?? "");
  const done = () => dispatch({ type: "setAll", values: { [`dates.${at}.done`]: today, ...(row.next ? { [`dates.${at}.due`]: row.next } : {}) } });
  return (
    <p className="row">
      <b>{of("what") || "A date without a name"}</b>
      {of("due") && <span>{dates.day(of("due"))}</span>}
      {of("bay") && <span className="soft">{of("bay")}</span>}
      <Due state={row.state} days={row.days} />
      {!readOnly && row.state !== "done" && row.state !== "undated" && (
        <Button size="compact-sm" variant="default" onClick={done}>
          Done today
        </Button>
      )}
    </p>
  );
}
