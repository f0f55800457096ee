import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take, type Schemas } from "../api/client";
import { useDates } from "../ui/useDates";
import { useMay } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import css from "./jobs.module.css";

/** where is the sheet of what a question is about. */
const where: Record<Schemas["OpenQuestion"]["about"], string | undefined> = { part: undefined, step: "steps", reading: "proof", photo: "proof", job: "record" };

/** WaitingList is what waits for somebody: open questions, and what is to be countersigned; nothing where nothing does. */
export function WaitingList() {
  const dates = useDates();
  const may = useMay()("countersign");
  const waiting = useQuery({ queryKey: ["waiting"], queryFn: () => take(api.GET("/api/waiting")), refetchInterval: 30_000 });
  if (waiting.isError) return <Wrong>What waits could not be fetched: {waiting.error.message}</Wrong>;
  const { questions = [], countersigns = [] } = waiting.data ?? {};
  if (questions.length + countersigns.length === 0) return null;
  const number = (n: number) => String(n).padStart(4, "0");
  return (
    <section aria-label="Waits for somebody" className={css.due}>
      <h2>Waits for somebody</h2>
      <ul>
        {countersigns.map((c) => (
          <li key={c.job}>
            <b>{may ? "To countersign" : "Waits for a countersignature"}</b>
            <Link to="/jobs/$id/{-$sheet}" params={{ id: c.job, sheet: "proof" }}>
              {c.count === 1 ? "one entry" : `${c.count} entries`} of an apprentice
            </Link>
            <span className="soft">
              {number(c.number)} {c.title}, since {dates.moment(c.since)}
            </span>
          </li>
        ))}
        {questions.map((q) => (
          <li key={q.job + q.at}>
            <b>{q.mine ? "You are asked" : "Open question"}</b>
            <span className={css.question}>
              <Link to="/jobs/$id/{-$sheet}" params={{ id: q.job, sheet: where[q.about] }}>
                {q.text}
              </Link>
              <br />
              <span className="soft">
                {q.by} on {q.named && `${q.named}, `}
                {number(q.number)} {q.title}, {dates.since(q.at)}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
