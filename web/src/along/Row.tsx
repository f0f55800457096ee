import { Button } from "@mantine/core";
import { Link } from "@tanstack/react-router";

import type { Road, Waits } from "../offline/db";
import { useAlong, useAway, useWaits } from "../offline/useWaits";
import { drop, mine } from "../offline/waits";
import * as journal from "../job/journal";
import { useDates } from "../ui/useDates";
import { Empty } from "../ui/Wait";
import css from "./along.module.css";

const kinds: Record<Road, string> = { ticks: "step", proof: "proof", comments: "comment", photos: "photograph" };
const sheets: Record<Road, string> = { ticks: "steps", proof: "proof", comments: "steps", photos: "proof" };

/** standing is how an entry stands, in words. */
function standing(w: Waits, place: number, away: boolean): string {
  if (w.refused) return `not taken: ${w.refused.map((p) => [p.field, p.value, p.wrong].filter(Boolean).join(" ") + (p.allowed ? `; allowed: ${p.allowed}` : "")).join(". ")}`;
  if (!mine(w)) return "waits until whoever entered it is signed in here";
  return (w.loose ? "in this window alone, this browser keeps nothing; " : "") + (place === 1 && !away ? "being sent" : `place ${place} in the row`);
}

/** Row is what waits to be sent, in its order, and edits that are not saved yet. */
export function Row() {
  const waits = useWaits();
  const away = useAway();
  const jobs = new Map(useAlong().map((a) => [a.id, a]));
  const dates = useDates();
  const edits = journal.unsaved();
  if (waits.length === 0 && edits.length === 0) return <Empty>The server has everything that was entered here.</Empty>;
  let place = 0;
  const nameOf = (id: string) => (jobs.has(id) ? `job ${String(jobs.get(id)?.number).padStart(4, "0")}` : "its job");
  return (
    <ol className={css.rows}>
      {waits.map((w) => {
        if (!w.refused && mine(w)) place++;
        return (
          <li key={w.id} data-refused={w.refused ? true : undefined} data-waits={w.road}>
            <span className={css.name}>
              <b>{kinds[w.road]}</b> {w.named}
              <br />
              <span className="soft">
                <Link to="/jobs/$id/{-$sheet}" params={{ id: w.job, sheet: sheets[w.road] }}>
                  {nameOf(w.job)}
                </Link>
                , {dates.moment(w.at)}, {standing(w, place, away)}
              </span>
            </span>
            {w.refused && (
              <Button variant="default" onClick={() => void drop([w])}>
                Read and done
              </Button>
            )}
          </li>
        );
      })}
      {edits.map((id) => (
        <li key={id} data-waits="edit">
          <span className={css.name}>
            <b>edits</b> of{" "}
            <Link to="/jobs/$id/{-$sheet}" params={{ id }}>
              {nameOf(id)}
            </Link>
            <br />
            <span className="soft">kept in this browser; they are saved when the job is open and the server answers</span>
          </span>
        </li>
      ))}
    </ol>
  );
}
