import { Button, Textarea } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take } from "../api/client";
import { FieldInputs } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { Sheet } from "../job/Sheet";
import { Empty, Failed, Waiting, Wrong } from "../ui/Wait";
import { useDates } from "../ui/useDates";
import { Dates } from "./Dates";
import { Fitted } from "./Fitted";
import { OnPhone } from "./OnPhone";
import { OwnerLinks } from "./OwnerLinks";
import { Removal } from "./Removal";
import { Trail } from "./Trail";
import { Talk } from "../talk/Talk";
import { useMay } from "../ui/useMe";
import css from "./record.module.css";
import { useDispatchText } from "./useDispatchText";

/** Record is sheet 9: what the job is called, and what was issued of it. */
export default function Record() {
  const { id, revision, unsaved, issue } = useJob();
  const remarks = useDispatchText("remarks");
  const issued = useQuery({ queryKey: ["revisions", id, revision], queryFn: () => take(api.GET("/api/jobs/{id}/revisions", { params: { path: { id } } })) });
  const dates = useDates();
  const issues = useMay()("issue");
  const issuing = useMutation({ mutationFn: issue });
  return (
    <Sheet>
      <div className={css.record}>
      <h1>Record</h1>
      <FieldInputs paths={["customer", "written.units", "written.paper"]} />
      <Textarea label="Remarks" rows={3} maxLength={4000} {...remarks} />
      <Fitted />
      <Dates id={id} />
      <Talk about="job" subject="" named="the job" />
      <OwnerLinks id={id} />
      <OnPhone id={id} />
      <h2>Issued revisions</h2>
      <p className="soft">What is issued is kept whole, with its figures, and never computed again.</p>
      <div className="row">
        {issues && (
          <Button onClick={() => issuing.mutate()} loading={issuing.isPending} disabled={unsaved}>
            Issue revision {revision + 1}
          </Button>
        )}
        {unsaved && <span className="soft">waits until the draft is saved</span>}
        <span className="gap" />
        <span>
          The draft as a pack, as it is saved: <a href={`/api/jobs/${id}/pack.pdf`}>PDF, A4</a> or <a href={`/api/jobs/${id}/pack.pdf?paper=Letter`}>Letter</a>; for
          the bench, without workings: <a href={`/api/jobs/${id}/pack.pdf?bench=true`} aria-label="Bench copy, PDF, A4">A4</a> or{" "}
          <a href={`/api/jobs/${id}/pack.pdf?bench=true&paper=Letter`} aria-label="Bench copy, PDF, Letter">Letter</a>
        </span>
        {issuing.isError && <Wrong>Not issued: {issuing.error.message}</Wrong>}
      </div>
      {issued.isPending && <Waiting what="Fetching the revisions" />}
      {issued.isError && <Failed what="The revisions" error={issued.error} again={() => void issued.refetch()} />}
      {issued.data?.length === 0 && <Empty>Nothing issued yet.</Empty>}
      <ol className={css.revisions}>
        {issued.data?.map((r) => (
          <li key={r.number}>
            <Link to="/jobs/$id/revisions/$number" params={{ id, number: String(r.number) }}>
              Revision {r.number}
            </Link>{" "}
            <span className="soft" data-when>{dates.moment(r.issuedAt)}</span>
            {r.pack && (
              <>
                {" "}
                <a href={`/api/jobs/${id}/revisions/${r.number}/pack.pdf`} aria-label={`Pack as it was issued, PDF, number ${r.number}`}>
                  Pack as it was issued, PDF
                </a>
              </>
            )}
            {r.number > 1 && (
              <ul>
                {r.changes.length === 0 && <li className="soft">no changes</li>}
                {r.changes.map((c) => (
                  <li key={c.path}>
                    {c.label}: {c.from || "not answered"} → {c.to || "not answered"}
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ol>
      <Trail id={id} />
      <Removal />
      </div>
    </Sheet>
  );
}
