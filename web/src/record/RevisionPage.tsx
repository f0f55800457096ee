import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useMemo, useState } from "react";

import { api, take } from "../api/client";
import { start } from "../job/history";
import { JobProvider, type Edit, type Shown } from "../job/JobContext";
import { columnOf } from "../job/picking";
import { Sheet } from "../job/Sheet";
import { Foot } from "../section/Foot";
import { Section } from "../section/Section";
import { Page } from "../ui/Page";
import { useDates } from "../ui/useDates";
import { Failed, Waiting } from "../ui/Wait";
import { useUnits } from "../ui/useSettings";

/** RevisionPage shows a revision as it was issued, read only. */
export function RevisionPage() {
  const { id = "", ...named } = useParams({ strict: false });
  const number = Number(named.number);
  useUnits(undefined);
  const dates = useDates();
  const revision = useQuery({
    queryKey: ["revision", id, number],
    queryFn: () => take(api.GET("/api/jobs/{id}/revisions/{number}", { params: { path: { id, number } } })),
    staleTime: Infinity,
  });
  const vocabulary = useQuery({ queryKey: ["vocabulary"], queryFn: () => take(api.GET("/api/vocabulary")), staleTime: Infinity });
  const [thing, pick] = useState<string | null>(null);
  const [shown, show] = useState<string | null>(null);
  const seen = useMemo<Shown | null>(() => {
    if (!revision.data || !vocabulary.data) return null;
    const { plan } = revision.data;
    return {
      id, number: `revision ${number}`, revision: number, sheets: [], plan, vocabulary: vocabulary.data,
      readOnly: true, mayChange: () => false, thing, picked: columnOf(plan, thing), pick, shown, show, asked: null, ask: () => undefined,
    };
  }, [revision.data, vocabulary.data, id, number, thing, shown]);
  const edit = useMemo<Edit | undefined>(() => revision.data && { state: start(revision.data.document), unsaved: false, version: 0, issue: () => Promise.resolve() }, [revision.data]);
  return (
    <Page
      says={
        <>
          <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "record" }}>
            Record
          </Link>
          <span className="soft">
            Revision {number}
            {revision.data && `, issued ${dates.moment(revision.data.issuedAt)}`}: read only
          </span>
        </>
      }
    >
      {revision.isError && <Failed what="The revision" error={revision.error} again={() => void revision.refetch()} />}
      {!seen && !revision.isError && <Waiting what="Opening" />}
      {seen && edit && (
        <JobProvider shown={seen} edit={edit} dispatch={() => undefined}>
          <Sheet name={`revision ${number}`} foot={<Foot state="issued" />}>
            <Section />
          </Sheet>
        </JobProvider>
      )}
    </Page>
  );
}
