import { Button, TextInput } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import { keepPreviousData, useInfiniteQuery, useMutation, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useState } from "react";

import { api, asText, NoAnswer, Refused, take } from "../api/client";
import { once } from "../api/once";
import { Banner } from "../ui/Banner";
import { FilePick } from "../ui/FilePick";
import { Listing, Page } from "../ui/Page";
import { lastRemoved } from "../record/Removal";
import { readText } from "../ui/readText";
import { useStored } from "../ui/stored";
import { useDates } from "../ui/useDates";
import { roleWords, useMay, useMe } from "../ui/useMe";
import { Empty, Failed, Told, Waiting } from "../ui/Wait";
import { severityWord } from "../ui/words";
import { DueList } from "./DueList";
import { Understood, type JobFile } from "./Understood";
import { WaitingList } from "./WaitingList";
import css from "./jobs.module.css";

/** fresh is a job that nothing was answered of yet. */
const fresh = JSON.stringify({ format: "epitrope-job", version: 1 });

interface Making {
  text: string;
  /** Of its file. */
  name: string;
  named: ReturnType<typeof once>;
}

/** pause gathers the keys of a search, in ms. */
const pause = 150;

export function JobList() {
  const [typed, setTyped] = useState("");
  const [search] = useDebouncedValue(typed.trim(), pause);
  const jobs = useInfiniteQuery({
    queryKey: ["jobs", search],
    queryFn: ({ pageParam, signal }) =>
      take(api.GET("/api/jobs", { params: { query: { ...(search && { search }), ...(pageParam && { after: pageParam }) } }, signal })),
    initialPageParam: "",
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: keepPreviousData,
  });
  const queries = useQueryClient();
  const dates = useDates();
  const me = useMe();
  const designs = useMay()("design");
  const navigate = useNavigate();
  const [told, setTold] = useState<string | null>(null);
  const [file, setFile] = useState<JobFile | null>(null);
  const [kept, setKept] = useStored(lastRemoved, "", "window");
  const removed = kept === "" ? null : (JSON.parse(kept) as { id: string; title: string });

  const create = useMutation({
    mutationFn: (made: Making) => take(api.POST("/api/jobs", { params: made.named, ...asText(made.text) })),
    retry: (times, error) => error instanceof NoAnswer && times < 3,
    onSuccess: (opened) => navigate({ to: "/jobs/$id/{-$sheet}", params: { id: opened.id } }),
    onError: (error, made) => {
      if (error instanceof Refused && error.refusal.problems.length > 0) setFile({ name: made.name, problems: error.refusal.problems });
      else setTold(error.message);
    },
  });
  const make = (text: string, name = "The new job") => create.mutate({ text, name, named: once() });
  const refresh = () => queries.invalidateQueries({ queryKey: ["jobs"] });
  const putBack = useMutation({
    mutationFn: (id: string) => take(api.POST("/api/jobs/{id}/restore", { params: { path: { id } } })),
    onSuccess: () => {
      setKept("");
      void refresh();
    },
    onError: (error) => setTold(error.message),
  });

  async function read(from: File) {
    setFile(null);
    setTold(null);
    try {
      const text = await readText(from);
      const planned = await take(api.POST("/api/plan", asText(text)));
      setFile({ name: from.name, text, planned });
    } catch (error) {
      if (error instanceof Refused && error.refusal.problems.length > 0) setFile({ name: from.name, problems: error.refusal.problems });
      else setTold(error instanceof NoAnswer || error instanceof Refused ? error.message : `${from.name} ${(error as Error).message}`);
    }
  }
  const list = jobs.data?.pages.flatMap((p) => p.jobs) ?? [];

  return (
    <Page home says={<span className="soft">{me?.demo && me.person ? `demo: you are ${me.person.name}, ${roleWords[me.person.role]}; at the right you may be anybody else of it` : me?.workshop || "charging from the alternator, planned"}</span>}>
      <Listing
        title="Jobs"
        actions={
          <>
            <nav aria-label="Workshop" className={css.books}>
              <Link to="/week">Week</Link>
              <Link to="/parts">Parts book</Link>
              <Link to="/vehicles">Vehicle book</Link>
              <Link to="/people">People</Link>
              <Link to="/settings">Settings</Link>
            </nav>
            {designs && (
            <FilePick name="Job file" accept="application/json,.json" onFile={(file) => void read(file)} onRefused={setTold}>
              Import a file
            </FilePick>
            )}
            {designs && (
            <Button loading={create.isPending} onClick={() => make(fresh)}>
              New job
            </Button>
            )}
          </>
        }
      >
        {told && (
          <Banner m={0} role="alert" title="That did not work" withCloseButton onClose={() => setTold(null)}>
            {told}
          </Banner>
        )}
        {file && <Understood file={file} busy={create.isPending} make={make} leave={() => setFile(null)} />}
        {removed && (
          <Told>
            “{removed.title}” is deleted.
            <Button size="compact-sm" variant="default" onClick={() => putBack.mutate(removed.id)}>
              Put it back
            </Button>
            <Button size="compact-sm" variant="subtle" onClick={() => setKept("")}>
              Leave it deleted
            </Button>
          </Told>
        )}
        {jobs.isPending && <Waiting what="Fetching the jobs" />}
        {jobs.isError && <Failed what="The jobs" error={jobs.error} again={() => void jobs.refetch()} />}
        <TextInput className={css.search} type="search" label="Find a job" placeholder="title, customer, vehicle, number, serial or lot" maxLength={200} value={typed} onChange={(e) => setTyped(e.currentTarget.value)} />
        {!search && <WaitingList />}
        {!search && <DueList />}
        {jobs.isSuccess && list.length === 0 && (
          <Empty>{search ? `No job has “${search}” in its title, customer, vehicle or number.` : "No jobs yet. A new job opens with a whole plan on assumed answers; six answers make it yours."}</Empty>
        )}
        <ul className={css.jobs}>
          {list.map((j) => {
            const title = j.title || `Untitled ${j.vehicle}`;
            return (
              <li key={j.id} data-job>
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
                    saved {dates.since(j.savedAt)}
                  </span>
                </Link>
              </li>
            );
          })}
        </ul>
        {jobs.hasNextPage && (
          <Button variant="default" loading={jobs.isFetchingNextPage} onClick={() => void jobs.fetchNextPage()}>
            More jobs
          </Button>
        )}
      </Listing>
    </Page>
  );
}
