import { Button } from "@mantine/core";
import { Link } from "@tanstack/react-router";

import type { Schemas } from "../api/client";
import { useDates } from "../ui/useDates";
import css from "./people.module.css";

/** TrailList is who did what, the newest first. */
export function TrailList({ lines, more, fetching }: { lines: Schemas["TrailLine"][]; more: (() => void) | undefined; fetching: boolean }) {
  const dates = useDates();
  return (
    <>
      <ol className={css.trail}>
        {lines.map((l, i) => (
          <li key={l.at + String(i)}>
            <span className="soft" data-when>
              {dates.moment(l.at)}
            </span>
            <span>
              <b>{l.by || "Epitrope itself"}</b> {l.did}
              {l.what && <> {l.what}</>}
              {l.job && (
                <>
                  {", "}
                  <Link to="/jobs/$id/{-$sheet}" params={{ id: l.job, sheet: "record" }}>
                    {String(l.number).padStart(4, "0")} {l.title}
                  </Link>
                </>
              )}
              {l.detail && <p className="soft">{l.detail}</p>}
              {(l.changes?.length ?? 0) > 0 && <Changes changes={l.changes ?? []} />}
            </span>
          </li>
        ))}
      </ol>
      {more && (
        <Button variant="default" loading={fetching} onClick={more}>
          Earlier
        </Button>
      )}
    </>
  );
}

/** most is how many changes are said without being opened. */
const most = 6;

function Changes({ changes }: { changes: Schemas["Change"][] }) {
  const row = (c: Schemas["Change"]) => (
    <li key={c.path}>
      {c.label}: {c.from || "not answered"} → {c.to || "not answered"}
    </li>
  );
  // A few are said; of many, how many there are.
  const shown = changes.length > most ? 0 : changes.length;
  return (
    <>
      {shown > 0 && <ul>{changes.map(row)}</ul>}
      {changes.length > shown && (
        <details>
          <summary>{changes.length} answers</summary>
          <ul>{changes.map(row)}</ul>
        </details>
      )}
    </>
  );
}
