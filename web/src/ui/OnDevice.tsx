import { Link } from "@tanstack/react-router";

import type { Along, Waits } from "../offline/db";
import { useAlong, useAway, useTaken, useWaits } from "../offline/useWaits";
import css from "./OnDevice.module.css";
import { many } from "./words";

export interface Said {
  text: string;
  level: "calm" | "waits" | "bad";
}

/** said is what the bar says of this device: the worst of it, or nothing. */
export function said(waits: Waits[], along: Along[], away: boolean, lost: number): Said | null {
  const loose = waits.filter((w) => w.loose).length;
  const refused = waits.filter((w) => w.refused).length;
  const left = waits.length - refused;
  if (lost > 0) return { text: `this browser lost ${many(lost, "entry", "entries")}`, level: "bad" };
  if (loose > 0) return { text: `${many(loose, "entry", "entries")} in this window alone`, level: "bad" };
  if (refused > 0) return { text: `${many(refused, "entry", "entries")} not taken`, level: "bad" };
  if (away) return { text: left > 0 ? `no server: ${left} wait here` : "no server", level: "waits" };
  if (left > 0) return { text: `${left} to be sent`, level: "waits" };
  return along.length > 0 ? { text: `${many(along.length, "job", "jobs")} on this device`, level: "calm" } : null;
}

/** OnDevice says in the bar what is on this device alone, and how the server is. */
export function OnDevice() {
  const says = said(useWaits(), useAlong(), useAway(), useTaken()?.count ?? 0);
  return (
    <span aria-live="polite" className={css.here}>
      {says && (
        <Link to="/along" data-level={says.level}>
          {says.text}
        </Link>
      )}
    </span>
  );
}
