import { Alert, Button, FileButton, Loader } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useState } from "react";

import { api, NoAnswer, Refused, take, type Problem } from "../api/client";
import { severityWord } from "../ui/words";
import { biggestFile, readText } from "../ui/readText";
import { SchemeSwitch } from "../ui/SchemeSwitch";
import { since } from "../ui/since";
import { DueList } from "./DueList";

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

  async function read(file: File | null) {
    if (!file) return;
    setProblems([]);
    setTold(null);
    if (file.size > biggestFile) {
      setTold(`${file.name} has ${Math.round(file.size / 1024 / 1024)} MB; a job has less than 0.3 MB.`);
      return;
    }
    try {
      create.mutate(JSON.parse(await readText(file)) as Record<string, unknown>);
    } catch (error) {
      setTold(error instanceof SyntaxError ? `${file.name} is not JSON: ${error.message}` : `${file.name} ${(error as Error).message}`);
    }
  }

  return (
    <div className="page">
      <header className="bar">
        <span className="wordmark">Epitrope</span>
        <span className="soft">charging from the alternator, planned</span>
        <span className="gap" />
        <SchemeSwitch />
      </header>
      <main className="list">
        <div className="listHead">
          <h1>Jobs</h1>
          <span className="gap" />
          <Link to="/week" className="bookLink">
            Week
          </Link>
          <Link to="/parts" className="bookLink">
            Parts book
          </Link>
          <Link to="/vehicles" className="bookLink">
            Vehicle book
          </Link>
          <FileButton onChange={read} accept="application/json,.json" inputProps={{ "aria-label": "Job file" }}>
            {(props) => (
              <Button variant="default" {...props}>
                Import a file
              </Button>
            )}
          </FileButton>
          <Button loading={create.isPending} onClick={() => create.mutate(fresh)}>
            New job
          </Button>
        </div>
        {told && (
          <Alert className="told" color="ink" title="That did not work" withCloseButton onClose={() => setTold(null)} closeButtonLabel="Close">
            {told}
          </Alert>
        )}
        {problems.length > 0 && (
          <Alert className="told" color="ink" title="The file cannot be used" withCloseButton onClose={() => setProblems([])} closeButtonLabel="Close">
            <ul>
              {problems.map((p) => (
                <li key={p.field + p.wrong}>
                  <b>{p.field || "document"}</b> {p.value} {p.wrong}; allowed: {p.allowed}
                </li>
              ))}
            </ul>
          </Alert>
        )}
        {removed && (
          <p className="told row" role="status">
            “{removed.title}” is deleted.
            <Button size="compact-sm" variant="default" onClick={() => putBack.mutate(removed.id)}>
              Put it back
            </Button>
          </p>
        )}
        {jobs.isPending && <Loader role="status" aria-label="Loading" color="ink" />}
        {jobs.isError && (
          <Alert color="ink" title="The jobs could not be fetched">
            {jobs.error instanceof NoAnswer ? "The server does not answer." : jobs.error.message}{" "}
            <Button size="compact-sm" variant="default" onClick={() => void jobs.refetch()}>
              Try again
            </Button>
          </Alert>
        )}
        {jobs.data?.length === 0 && (
          <p className="empty">
            No jobs yet. A new job opens with a whole plan on assumed answers; six answers make it yours.
          </p>
        )}
        <DueList />
        <ul className="jobs">
          {jobs.data?.map((j) => {
            const title = j.title || `Untitled ${j.vehicle}`;
            return (
              <li key={j.id}>
                <Link to="/jobs/$id/{-$sheet}" params={{ id: j.id }} className="jobLink">
                  <span className="number">{String(j.number).padStart(4, "0")}</span>
                  <span className="jobTitle">
                    <b>{title}</b>
                    <span className="soft">{[j.customer, j.vehicle].filter(Boolean).join(", ")}</span>
                  </span>
                  <span className="jobPlan">
                    <span>{j.summary}</span>
                    <span className={`severity ${j.severity}`}>
                      {j.severity === "none" ? "nothing weak found" : `${severityWord[j.severity]}: ${j.weakest}`}
                    </span>
                  </span>
                  <span className="soft jobSaved">
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
      </main>
    </div>
  );
}
