import { Button, TextInput } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import { keepPreviousData, useInfiniteQuery, useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, take } from "../api/client";
import { lastRemoved } from "../record/Removal";
import { Banner } from "../ui/Banner";
import { FilePick } from "../ui/FilePick";
import { Listing, Page } from "../ui/Page";
import { useStored } from "../ui/stored";
import { TextButton } from "../ui/TextButton";
import { roleWords, useMay, useMe } from "../ui/useMe";
import { Empty, Failed, Told, Waiting } from "../ui/Wait";
import { Bays } from "./Bays";
import { Board } from "./Board";
import { DueList } from "./DueList";
import { readFilter } from "./filter";
import { Filters } from "./Filters";
import { First } from "./First";
import css from "./jobs.module.css";
import { JobRows } from "./JobRows";
import { Understood } from "./Understood";
import { useNewJob } from "./useNewJob";
import { WaitingList } from "./WaitingList";
import { WorkshopNav } from "./WorkshopNav";

/** pause gathers the keys of a search, in ms. */
const pause = 150;

/** FrontPage is the workshop's day: what waits for whom, what is due, what the bays hold; and every job, found as it is typed. */
export function FrontPage() {
  const [typed, setTyped] = useState("");
  const [search] = useDebouncedValue(typed.trim(), pause);
  const [kept, setKept] = useStored("jobFilter", "");
  const filter = readFilter(kept);
  const jobs = useInfiniteQuery({
    queryKey: ["jobs", search, kept],
    queryFn: ({ pageParam, signal }) => take(api.GET("/api/jobs", { params: { query: { ...(search && { search }), ...filter, ...(pageParam && { after: pageParam }) } }, signal })),
    initialPageParam: "",
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: keepPreviousData,
  });
  const me = useMe();
  const designs = useMay()("design");
  const made = useNewJob();
  const list = jobs.data?.pages.flatMap((p) => p.jobs) ?? [];
  const filtered = filter.stage !== undefined || filter.weak !== undefined;
  const empty = jobs.isSuccess && !jobs.isPlaceholderData && list.length === 0;
  const asked = typed.trim() !== "" || filtered;
  return (
    <Page home says={<span className="soft">{me?.demo && me.person ? `demo: you are ${me.person.name}, ${roleWords[me.person.role]}; at the right you may be anybody else of the demo` : me?.workshop || "charging from the alternator, planned"}</span>}>
      <Listing
        title="Today"
        actions={
          <>
            <WorkshopNav />
            {designs && (
              <>
                <span className="wideOnly">
                  <FilePick name="Job file" accept="application/json,.json" onFile={(file) => void made.read(file)} onRefused={made.setTold}>
                    Import a file
                  </FilePick>
                </span>
                <Button variant="default" loading={made.busy} onClick={made.beginBroken}>
                  Trace<span className="wideOnly">&nbsp;a fault</span>
                </Button>
                <Button loading={made.busy} onClick={made.begin}>
                  New job
                </Button>
              </>
            )}
          </>
        }
      >
        {made.told && (
          <Banner m={0} role="alert" title="That did not work" withCloseButton onClose={() => made.setTold(null)}>
            {made.told}
          </Banner>
        )}
        {made.file && <Understood file={made.file} busy={made.busy} make={made.make} leave={made.leave} />}
        <PutBack failed={made.setTold} />
        {empty && !asked ? (
          <First designs={designs} busy={made.busy} begin={made.begin} trace={made.beginBroken} />
        ) : (
          <>
            <div className={css.find}>
              <TextInput type="search" label="Find a job" placeholder="title, customer, vehicle, plate, part, number, serial" maxLength={200} value={typed} onChange={(e) => setTyped(e.currentTarget.value)} />
              {asked ? (
                <Filters filter={filter} choose={setKept} />
              ) : (
                <p className="row">
                  <span className="soft">Or only those</span>
                  <TextButton onClick={() => setKept("weak:stop")}>with a stop</TextButton>
                  <TextButton onClick={() => setKept("weak:caution")}>with a caution</TextButton>
                </p>
              )}
            </div>
            {!asked && (
              <div className={css.day}>
                <Board choose={(stage) => setKept(`stage:${stage}`)} />
                <div className={css.beside}>
                  <Bays />
                  <WaitingList />
                  <DueList />
                </div>
              </div>
            )}
            <section aria-label="Jobs" className={css.all}>
              <h2>{asked ? "Found" : "All jobs"}</h2>
              {jobs.isPending && <Waiting what="Fetching the jobs" />}
              {jobs.isError && <Failed what="The jobs" error={jobs.error} again={() => void jobs.refetch()} />}
              {empty && <Empty>{search ? `No job ${filtered ? "of these " : ""}has “${search}” in its title, customer, vehicle, plate, parts or number.` : "No job is like that now."}</Empty>}
              <JobRows jobs={list} />
              {jobs.hasNextPage && (
                <Button variant="default" loading={jobs.isFetchingNextPage} onClick={() => void jobs.fetchNextPage()}>
                  More jobs
                </Button>
              )}
            </section>
          </>
        )}
      </Listing>
    </Page>
  );
}

/** PutBack puts back the job that was deleted last; nothing where none was. */
function PutBack({ failed }: { failed: (why: string) => void }) {
  const queries = useQueryClient();
  const [kept, setKept] = useStored(lastRemoved, "", "window");
  const putBack = useMutation({
    mutationFn: (id: string) => take(api.POST("/api/jobs/{id}/restore", { params: { path: { id } } })),
    onSuccess: () => {
      setKept("");
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      void queries.invalidateQueries({ queryKey: ["board"] });
    },
    onError: (error) => failed(error.message),
  });
  if (kept === "") return null;
  const removed = JSON.parse(kept) as { id: string; title: string };
  return (
    <Told>
      “{removed.title}” is deleted.
      <Button size="compact-sm" variant="default" onClick={() => putBack.mutate(removed.id)}>
        Put it back
      </Button>
      <Button size="compact-sm" variant="subtle" onClick={() => setKept("")}>
        Leave it deleted
      </Button>
    </Told>
  );
}
