import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useState } from "react";

import { api, Refused, take, type Problem } from "../api/client";
import { Banner } from "../ui/Banner";
import { FilePick } from "../ui/FilePick";
import { Listing, Page } from "../ui/Page";
import { readText } from "../ui/readText";
import { since } from "../ui/since";
import { Empty, Failed, Told, Waiting } from "../ui/Wait";
import { severityWord } from "../ui/words";
import { DueList } from "./DueList";
import css from "./jobs.module.css";

/** fresh is a job that nothing was answered of yet. */
const fresh = { format: "epitrope-job", version: 1 };

export function JobList() {
  const jobs = useQuery({ queryKey: ["jobs"], queryFn: () => take(api.GET("/api/jobs")) });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [problems, setProblems] = useState<Problem[]>([]);
  const [told, setTold] = useState<string | null>(null);
  const [removed, setRemoved] = useState<{ id: string; title: string } | null>(null);

  const create = useMutation({
    mutationFn: (body: Record<string, unknown>) => take(api.POST("/api/jobs", { body })),
    onSuccess: (opened) => navigate({ to: "/jobs/$id/{-$sheet}", params: { id: opened.id } }),
    onError: (error) => {
      setProblems(error instanceof Refused ? error.refusal.problems : []);
      setTold(error instanceof Refused && error.refusal.problems.length > 0 ? null : error.message);
    },
  });
  const refresh = () => queries.invalidateQueries({ queryKey: ["jobs"] });
  const remove = useMutation({
    mutationFn: (job: { id: string; title: string }) => take(api.DELETE("/api/jobs/{id}", { params: { path: { id: job.id } } })).then(() => job),
    onSuccess: (job) => {
      setRemoved(job);
      void refresh();
    },
    onError: (error) => setTold(error.message),
  });
  const putBack = useMutation({
    mutationFn: (id: string) => take(api.POST("/api/jobs/{id}/restore", { params: { path: { id } } })),
    onSuccess: () => {
      setRemoved(null);
      void refresh();
    },
    onError: (error) => setTold(error.message),
  });

  async function read(file: File) {
    setProblems([]);
    setTold(null);
    try {
      create.mutate(JSON.parse(await readText(file)) as Record<string, unknown>);
    } catch (error) {
      setTold(error instanceof SyntaxError ? `${file.name} is not JSON: ${error.message}` : `${file.name} ${(error as Error).message}`);
    }
  }

  return (
    <Page home says={<span className="soft">charging from the alternator, planned</span>}>
      <Listing
        title="Jobs"
        actions={
          <>
            <nav aria-label="Workshop" className={css.books}>
              <Link to="/week">Week</Link>
              <Link to="/parts">Parts book</Link>
              <Link to="/vehicles">Vehicle book</Link>
            </nav>
            <FilePick name="Job file" accept="application/json,.json" onFile={(file) => void read(file)} onRefused={setTold}>
              Import a file
            </FilePick>
            <Button loading={create.isPending} onClick={() => create.mutate(fresh)}>
              New job
            </Button>
          </>
        }
      >
        {told && (
          <Banner m={0} role="alert" title="That did not work" withCloseButton onClose={() => setTold(null)}>
            {told}
          </Banner>
        )}
        {problems.length > 0 && (
          <Banner m={0} role="alert" title="The file cannot be used" withCloseButton onClose={() => setProblems([])}>
            <ul className={css.problems}>
              {problems.map((p) => (
                <li key={p.field + p.wrong}>
                  <b>{p.field || "document"}</b> {p.value} {p.wrong}; allowed: {p.allowed}
                </li>
              ))}
            </ul>
          </Banner>
        )}
        {removed && (
          <Told>
            “{removed.title}” is deleted.
            <Button size="compact-sm" variant="default" onClick={() => putBack.mutate(removed.id)}>
              Put it back
            </Button>
          </Told>
        )}
        {jobs.isPending && <Waiting what="Fetching the jobs" />}
        {jobs.isError && <Failed what="The jobs" error={jobs.error} again={() => void jobs.refetch()} />}
        {jobs.data?.length === 0 && <Empty>No jobs yet. A new job opens with a whole plan on assumed answers; six answers make it yours.</Empty>}
        <DueList />
        <ul className={css.jobs}>
          {jobs.data?.map((j) => {
            const title = j.title || `Untitled ${j.vehicle}`;
            return (
              <li key={j.id}>
                <Link to="/jobs/$id/{-$sheet}" params={{ id: j.id }} className={css.link}>
                  <span className={css.number}>{String(j.number).padStart(4, "0")}</span>
                  <span className={css.title}>
                    <b>{title}</b>
                    <span className="soft">{[j.customer, j.vehicle].filter(Boolean).join(", ")}</span>
                  </span>
                  <span className={css.plan}>
                    <span>{j.summary}</span>
                    <span className={css.weakest} data-severity={j.severity}>
                      {j.severity === "none" ? "nothing weak found" : `${severityWord[j.severity]}: ${j.weakest}`}
                    </span>
                  </span>
                  <span className={css.saved} data-when>
                    {j.settled}
                    <br />
                    saved {since(j.savedAt)}
                  </span>
                </Link>
                <Button size="compact-sm" variant="subtle" aria-label={`Delete ${title}`} onClick={() => remove.mutate({ id: j.id, title })}>
                  Delete
                </Button>
              </li>
            );
          })}
        </ul>
      </Listing>
    </Page>
  );
}
