import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useEffect, useState } from "react";

import { api, NoAnswer, Refused, take, type Schemas } from "../api/client";
import { useBeat } from "../offline/useWaits";
import { Banner } from "../ui/Banner";
import { Page } from "../ui/Page";
import { Waiting } from "../ui/Wait";
import { useSettings } from "../ui/useSettings";
import { JobEditor } from "./JobEditor";
import * as journal from "../job/journal";
import type { SheetKey } from "./sheets";

/** beat is how often another window's saves are looked for, in ms. */
const beat = 4000;

/** JobPage opens a job: from the server, or from the browser where the server is away. */
export function JobPage({ id, sheet }: { id: string; sheet: SheetKey }) {
  const job = useQuery({
    queryKey: ["job", id],
    queryFn: () => take(api.GET("/api/jobs/{id}", { params: { path: { id } } })),
    refetchInterval: useBeat(beat),
    retry: false,
  });
  const vocabulary = useQuery({ queryKey: ["vocabulary"], queryFn: () => take(api.GET("/api/vocabulary")), staleTime: Infinity, retry: 20, retryDelay: 1500 });
  const settings = useSettings();
  const [kept, setKept] = useState<journal.Journal | null | undefined>(undefined);
  useEffect(() => void journal.find(id, Date.now()).then(setKept), [id]);
  const [first, setFirst] = useState<Schemas["Opened"] | null>(null);
  if (job.data && !first) setFirst(job.data);

  const gone = job.error instanceof Refused && (job.error.refusal.status === 410 || job.error.refusal.status === 404);
  const offline = kept && job.isError && !gone;
  const opened = first ?? (offline ? { id, number: 0, revision: 0, draft: { version: kept.base, savedAt: new Date(kept.beat).toISOString(), document: kept.baseDoc } } : null);

  if (opened && kept !== undefined && vocabulary.data && (settings.data || settings.isError || offline)) {
    return <JobEditor key={id} opened={opened} newest={job.data ?? null} deleted={gone} kept={kept} vocabulary={vocabulary.data} sheet={sheet} />;
  }
  return (
    <Page says={null}>
      <main>{job.isError ? <NotOpened id={id} error={job.error} retry={() => void job.refetch()} /> : <Waiting what="Opening the job" />}</main>
    </Page>
  );
}

function NotOpened({ id, error, retry }: { id: string; error: Error; retry: () => void }) {
  const deleted = error instanceof Refused && error.refusal.status === 410;
  const putBack = () => take(api.POST("/api/jobs/{id}/restore", { params: { path: { id } } })).then(retry);
  return (
    <Banner role="alert" title={deleted ? "This job was deleted" : "The job could not be opened"} m="xl">
      <p>{error instanceof NoAnswer ? "The server does not answer; it is asked again every few seconds." : error.message}</p>
      <div className="row">
        {deleted ? <Button onClick={() => void putBack()}>Put it back</Button> : <Button onClick={retry}>Try again</Button>}
        <Button component={Link} to="/" variant="default">
          To the jobs
        </Button>
      </div>
    </Banner>
  );
}
