import { Button, NativeSelect } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

import { api, take } from "../api/client";
import { useJob } from "../job/JobContext";
import { useDates } from "../ui/useDates";
import { useMay } from "../ui/useMe";
import { Empty, Failed, Waiting, Wrong } from "../ui/Wait";
import { Between } from "./Between";
import css from "./record.module.css";

/** Revisions are what was issued of a job, each whole, and what changed between two of them. */
export function Revisions() {
  const { id, revision, unsaved, issue } = useJob();
  const issued = useQuery({ queryKey: ["revisions", id, revision], queryFn: () => take(api.GET("/api/jobs/{id}/revisions", { params: { path: { id } } })) });
  const dates = useDates();
  const issues = useMay()("issue");
  const issuing = useMutation({ mutationFn: issue });
  return (
    <section aria-label="Revisions">
      <h2>Revisions</h2>
      <p className="soft">What is issued is kept whole, with its figures, and never computed again.</p>
      {issues && (
        <div className="row">
          <Button onClick={() => issuing.mutate()} loading={issuing.isPending} disabled={unsaved}>
            Issue revision {revision + 1}
          </Button>
          {unsaved && <span className="soft">waits until the draft is saved</span>}
        </div>
      )}
      {issuing.isError && <Wrong>Not issued: {issuing.error.message}</Wrong>}
      {issued.isPending && <Waiting what="Fetching the revisions" />}
      {issued.isError && <Failed what="The revisions" error={issued.error} again={() => void issued.refetch()} />}
      {issued.data?.length === 0 && <Empty>Nothing issued yet.</Empty>}
      <ol className={css.revisions}>
        {issued.data?.map((r) => (
          <li key={r.number}>
            <Link to="/jobs/$id/revisions/$number" params={{ id, number: String(r.number) }}>
              Revision {r.number}
            </Link>
            <span className="soft" data-when>
              {dates.moment(r.issuedAt)}
            </span>
            {r.pack && (
              <a href={`/api/jobs/${id}/revisions/${r.number}/pack.pdf`} aria-label={`Pack as it was issued, PDF, number ${r.number}`}>
                Pack as it was issued, PDF
              </a>
            )}
          </li>
        ))}
      </ol>
      {issued.data && issued.data.length > 0 && <Compare key={issued.data.length} id={id} numbers={issued.data.map((r) => r.number)} />}
    </section>
  );
}

const nameOf = (n: number) => (n === 0 ? "the draft, as it is saved" : `revision ${n}`);

/** Compare asks between which two it was changed. The newest and the one before it stand first; of one alone, it and the draft. */
function Compare({ id, numbers }: { id: string; numbers: number[] }) {
  const [from, setFrom] = useState(numbers[1] ?? numbers[0] ?? 1);
  const [to, setTo] = useState(numbers.length > 1 ? (numbers[0] ?? 0) : 0);
  const choices = (list: number[]) => list.map((n) => ({ value: String(n), label: nameOf(n) }));
  return (
    <div className={css.compare}>
      <h3>What changed</h3>
      <div className="row">
        <NativeSelect label="From" data={choices(numbers)} value={String(from)} onChange={(e) => setFrom(Number(e.currentTarget.value))} />
        <NativeSelect label="To" data={choices([0, ...numbers])} value={String(to)} onChange={(e) => setTo(Number(e.currentTarget.value))} />
      </div>
      <Between id={id} from={from} to={to} />
    </div>
  );
}
