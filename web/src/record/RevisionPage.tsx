import { Alert, Loader } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useMemo, useState } from "react";

import { api, take } from "../api/client";
import { start } from "../job/history";
import { JobContext, type OpenJob } from "../job/JobContext";
import { columnOf } from "../job/picking";
import { Notes } from "../section/Notes";
import { Section } from "../section/Section";
import { TitleBlock } from "../section/TitleBlock";

/** RevisionPage shows a revision as it was issued, read only. */
export function RevisionPage({ id, number }: { id: string; number: number }) {
  const revision = useQuery({
    queryKey: ["revision", id, number],
    queryFn: () => take(api.GET("/api/jobs/{id}/revisions/{number}", { params: { path: { id, number } } })),
    staleTime: Infinity,
  });
  const vocabulary = useQuery({ queryKey: ["vocabulary"], queryFn: () => take(api.GET("/api/vocabulary")), staleTime: Infinity });
  const [thing, pick] = useState<string | null>(null);
  const [shown, show] = useState<string | null>(null);
  const job = useMemo<OpenJob | null>(() => {
    if (!revision.data || !vocabulary.data) return null;
    return {
      plan: revision.data.plan, state: start(revision.data.document), dispatch: () => undefined, vocabulary: vocabulary.data,
      readOnly: true, thing, picked: columnOf(revision.data.plan, thing), pick, shown, show, asked: null, ask: () => undefined,
    };
  }, [revision.data, vocabulary.data, thing, shown]);
  return (
    <div className="page">
      <header className="bar">
        <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "record" }} className="wordmark">
          Record
        </Link>
        <span className="soft">
          Revision {number}
          {revision.data && `, issued ${new Date(revision.data.issuedAt).toLocaleString()}`}: read only
        </span>
      </header>
      {revision.isError && (
        <Alert color="ink" title="The revision could not be opened" m="xl">
          {revision.error.message}
        </Alert>
      )}
      {!job && !revision.isError && <Loader role="status" aria-label="Opening" color="ink" m="xl" />}
      {job && (
        <JobContext.Provider value={job}>
          <main className="sheet">
            <h1 className="hidden">{job.state.doc.title || "Untitled job"}, revision {number}</h1>
            <Section />
            <div className="foot">
              <div className="wideOnly">
                <Notes />
              </div>
              <TitleBlock sheet="Sheet 1, section" number={`revision ${number}`} state="issued" />
            </div>
          </main>
        </JobContext.Provider>
      )}
    </div>
  );
}
