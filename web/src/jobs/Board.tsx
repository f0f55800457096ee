import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take, type Schemas } from "../api/client";
import { useDates } from "../ui/useDates";
import { Failed, Waiting } from "../ui/Wait";
import { many, severityWord } from "../ui/words";
import css from "./board.module.css";
import { stageWord, type Stage } from "./filter";

type Job = Schemas["BoardJob"];

/** sheetOf is where it is done. */
const sheetOf: Record<Stage, string | undefined> = { complaint: "trace", signature: "proof", reading: "proof", part: "cuts", bay: "record", answer: undefined, done: "record" };

export const useBoard = () => useQuery({ queryKey: ["board"], queryFn: () => take(api.GET("/api/board")), refetchInterval: 30_000 });

/** Board is the workshop's day: what each job waits for, a band to each, the most pressing first. */
export function Board({ choose }: { choose: (stage: Stage) => void }) {
  const board = useBoard();
  if (board.isPending) return <Waiting what="Fetching the board" />;
  if (board.isError) return <Failed what="The board" error={board.error} again={() => void board.refetch()} />;
  const bands = board.data.stages.filter((s) => s.stage !== "done");
  const done = board.data.stages.find((s) => s.stage === "done")?.count ?? 0;
  return (
    <section aria-label="What waits" className={css.board}>
      {bands
        .filter((s) => s.count > 0)
        .map((s) => (
          <section key={s.stage} className={css.band} aria-label={stageWord(s.stage)} data-stage={s.stage}>
            <h2>
              <button type="button" onClick={() => choose(s.stage)}>
                <span className={css.count}>{s.count}</span>
                {stageWord(s.stage, s.count)}
              </button>
            </h2>
            <ul>
              {s.jobs.map((j) => (
                <li key={j.id}>
                  <One job={j} stage={s.stage} />
                </li>
              ))}
              {s.count > s.jobs.length && (
                <li>
                  <button type="button" className={css.more} onClick={() => choose(s.stage)}>
                    All {s.count}
                  </button>
                </li>
              )}
            </ul>
          </section>
        ))}
      {done > 0 && (
        <p>
          <button type="button" className={css.more} onClick={() => choose("done")}>
            {many(done, "job is signed for", "jobs are signed for")}
          </button>
        </p>
      )}
    </section>
  );
}

function One({ job: j, stage }: { job: Job; stage: Stage }) {
  const dates = useDates();
  return (
    <Link to="/jobs/$id/{-$sheet}" params={{ id: j.id, sheet: sheetOf[stage] }} className={css.job}>
      <span className={css.number}>{String(j.number).padStart(4, "0")}</span>
      <b>{j.title || `Untitled ${j.vehicle ?? "job"}`}</b>
      <span className={css.why} data-severity={stage === "answer" && !j.says ? j.severity : undefined}>
        {why(j, stage, dates)}
      </span>
    </Link>
  );
}

/** why says why a job stands where it does, no longer than is read standing. */
function why(j: Job, stage: Stage, dates: ReturnType<typeof useDates>): string {
  const bay = j.due ? `in ${j.bay ? `bay ${j.bay}` : "a bay"} on ${dates.day(j.due)}` : "";
  switch (stage) {
    case "complaint":
      return `“${j.says ?? ""}”${j.at ? `, ${dates.since(j.at)}` : ""}`;
    case "signature":
      return j.of > 0 && j.some >= j.of ? `all ${j.of} readings are taken` : "of what an apprentice did";
    case "reading":
      return j.some === 0 ? "nothing is read yet" : j.of > 0 ? `${j.some} of ${j.of} are taken` : `${many(j.some, "is", "are")} taken`;
    case "part":
      return [many(j.some, "part", "parts"), bay].filter(Boolean).join(", ");
    case "bay":
      return bay || "issued, and in no bay yet";
    case "answer":
      if (j.says) return `“${j.says}”`;
      return [j.severity === "stop" ? severityWord.stop : "", j.settled].filter(Boolean).join(", ");
    case "done":
      return "";
  }
}
