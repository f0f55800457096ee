import { Textarea } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";

import { api, take } from "../api/client";
import { FieldInputs } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { Sheet } from "../job/Sheet";
import { Talk } from "../talk/Talk";
import { useDates } from "../ui/useDates";
import { Dates } from "./Dates";
import { Documents } from "./Documents";
import { Fitted } from "./Fitted";
import { Logbook } from "./Logbook";
import { OnPhone } from "./OnPhone";
import { OwnerLinks } from "./OwnerLinks";
import css from "./record.module.css";
import { Removal } from "./Removal";
import { Revisions } from "./Revisions";
import { Trail } from "./Trail";
import { useDispatchText } from "./useDispatchText";

/** Record is sheet 9: whose job it is, what happened to it, and what was issued and signed of it. */
export default function Record() {
  const { id } = useJob();
  const remarks = useDispatchText("remarks");
  return (
    <Sheet>
      <div className={css.record}>
        <div className={css.head}>
          <h1>Record</h1>
          <Facts />
        </div>
        <div className={css.column}>
          <Logbook />
          <Dates id={id} />
          <Talk about="job" subject="" named="the job" />
          <Trail id={id} />
        </div>
        <div className={css.column}>
          <Revisions />
          <Documents />
          <section aria-label="Whose job">
            <h2>Customer, vehicle, remarks</h2>
            <FieldInputs brief paths={["customer", "plate"]} />
            <Textarea label="Remarks" autosize minRows={2} maxRows={14} maxLength={4000} {...remarks} />
            <FieldInputs brief paths={["written.units", "written.paper"]} />
          </section>
          <Fitted />
          <OwnerLinks id={id} />
          <OnPhone id={id} />
          <Removal />
        </div>
      </div>
    </Sheet>
  );
}

/** Facts are who, what and when, in a line each. */
function Facts() {
  const { id, number, revision, plan, state } = useJob();
  const dates = useDates();
  const opened = useQuery({ queryKey: ["opened", id, state.doc.title], queryFn: () => take(api.GET("/api/jobs/{id}", { params: { path: { id } } })) });
  const facts = [
    ["Job", number],
    ["Customer", state.doc.customer || "not named"],
    ["Vehicle", [plan.vehicle.label, state.doc.plate].filter(Boolean).join(", ")],
    ["Saved", opened.data ? dates.moment(opened.data.draft.savedAt) : ""],
    ["Issued", revision === 0 ? "never" : `revision ${revision}`],
  ].filter(([, is]) => is);
  return (
    <dl className={css.facts}>
      {facts.map(([name, is]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{is}</dd>
        </div>
      ))}
    </dl>
  );
}
