import { Link } from "@tanstack/react-router";

import type { Schemas } from "../api/client";
import { useDates } from "../ui/useDates";
import { severityWord } from "../ui/words";
import { stageWord } from "./filter";
import css from "./jobs.module.css";

/** JobRows are jobs as a list: what each is, what its plan comes to, and what it waits for. */
export function JobRows({ jobs }: { jobs: Schemas["Listed"][] }) {
  const dates = useDates();
  return (
    <ul className={css.jobs}>
      {jobs.map((j) => (
        <li key={j.id} data-job>
          <Link to="/jobs/$id/{-$sheet}" params={{ id: j.id }} className={css.link}>
            <span className={css.number}>{String(j.number).padStart(4, "0")}</span>
            <span className={css.title}>
              <b>{j.title || `Untitled ${j.vehicle}`}</b>
              <span className="soft">{[j.customer, j.vehicle].filter(Boolean).join(", ")}</span>
            </span>
            <span className={css.plan}>
              <span>{j.summary}</span>
              <span className={css.weakest} data-severity={j.severity}>
                {j.severity === "none" ? "nothing weak found" : `${severityWord[j.severity]}: ${j.weakest}`}
              </span>
            </span>
            <span className={css.saved} data-when>
              {stageWord(j.stage)}
              <br />
              {j.settled}
              <br />
              saved {dates.since(j.savedAt)}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
