import { useDates } from "../ui/useDates";
import { helped, minutesOf, well, type Case, type Entry } from "./cases";
import css from "./trace.module.css";
import type { Traced } from "./useTrace";

/** Trail is what was done about a complaint, and when. */
export function Trail({ found, of }: { found: Traced; of: Case }) {
  const dates = useDates();
  return (
    <section className={css.trail} aria-label="What was done">
      <h2>
        What was done <span className="soft">{minutesOf(of)} min</span>
      </h2>
      <ol>
        {of.entries.map((e) => (
          <li key={e.id}>
            <span>{said(e, found)}</span>{" "}
            <span className="soft">
              {e.by}, {dates.moment(e.at)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** said is an entry in words. */
function said(e: Entry, found: Traced): string {
  const fault = (id: string) => found.places.flatMap((p) => p.faults).find((f) => f.id === id || `${f.id} by hand` === id || `${f.id} by heat` === id)?.says ?? id;
  const place = found.places.find((p) => p.id === e.subject)?.name ?? e.subject;
  switch (e.kind) {
    case "complaint":
      return e.entry;
    case "traced":
      return `${found.readings.find((r) => r.id === e.subject)?.what ?? e.subject}: ${e.entry}`;
    case "looked":
      return e.entry === well ? `Looked at ${place}: all well` : `Looked at ${place}: ${fault(e.entry)}`;
    case "swapped":
      return `Another ${place} tried: ${e.entry === helped ? "the complaint was gone" : "no change"}`;
    case "mended":
      return `Mended: ${fault(e.subject)}`;
    case "bypass":
      return `Bridged past the coupling. ${e.entry}`;
    case "closed":
      return "Closed";
  }
  return e.entry;
}
