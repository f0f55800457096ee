import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { letGo, renew, takeDay } from "../offline/along";
import { seen } from "../offline/marker";
import { nearlyFull, room } from "../offline/room";
import { isKept } from "../offline/shell";
import { useAlong, useAway, useTaken } from "../offline/useWaits";
import { Banner } from "../ui/Banner";
import { useDates } from "../ui/useDates";
import { Empty, Wrong } from "../ui/Wait";
import { many } from "../ui/words";
import { WorkshopPage } from "../ui/WorkshopPage";
import css from "./along.module.css";
import { useDay } from "./day";
import { Row } from "./Row";

const mega = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`);

/** AlongPage is what this device keeps: jobs that were taken along, and what the server does not have yet. */
export function AlongPage() {
  const jobs = useAlong();
  const away = useAway();
  const lost = useTaken();
  const dates = useDates();
  const [day, setDay] = useDay();
  const has = useQuery({ queryKey: ["room", jobs.length], queryFn: async () => ({ room: await room(), opens: await isKept() }), refetchInterval: 10_000 }).data;
  const fresh = useMutation({ mutationFn: renew });
  const take = useMutation({ mutationFn: takeDay });
  const go = useMutation({ mutationFn: letGo });
  return (
    <WorkshopPage title="On this device" says="jobs taken along, and what the server does not have yet">
      {lost && (
        <Banner m={0} role="alert" title={`This browser took away ${many(lost.count, "entry", "entries")} before the server had ${lost.count === 1 ? "that one" : "them"}`} withCloseButton onClose={seen}>
          They were entered here until {dates.moment(lost.since)}. Look through steps and readings of that time, and enter again what is missing.
        </Banner>
      )}
      {away && (
        <Banner m={0} role="status" title="The server does not answer">
          What is entered waits here, in its order, and is sent as soon as the server answers. Plans, bands and verdicts of jobs that were taken along are worked out on this device.
        </Banner>
      )}
      <section aria-label="What waits" className={css.part}>
        <h2>What the server does not have yet</h2>
        <Row />
      </section>
      <section aria-label="Jobs" className={css.part}>
        <h2>Jobs taken along</h2>
        {jobs.length === 0 && <Empty>None yet. “Take along” stands in the bar of an open job.</Empty>}
        <ul className={css.rows}>
          {jobs.map((a) => (
            <li key={a.id}>
              <Link to="/jobs/$id/{-$sheet}" params={{ id: a.id, sheet: "steps" }} className={css.name}>
                <b>{String(a.number).padStart(4, "0")}</b> {a.title || "Untitled job"}
              </Link>
              <span className="soft">
                as of {dates.since(a.at)}
                {a.ofDay && ", in a bay today"}, {mega(a.size)}
              </span>
              <Button variant="default" onClick={() => go.mutate(a.id)}>
                Let go
              </Button>
            </li>
          ))}
        </ul>
        <label className={css.day}>
          <input type="checkbox" checked={day} onChange={(e) => setDay(e.currentTarget.checked)} /> Take along by itself what stands in a bay today
        </label>
        <span className="row">
          <Button variant="default" disabled={away} loading={take.isPending} onClick={() => take.mutate()}>
            Take today's jobs along now
          </Button>
          {jobs.length > 0 && (
            <Button variant="default" disabled={away} loading={fresh.isPending} onClick={() => fresh.mutate()}>
              Bring up to date
            </Button>
          )}
        </span>
        {take.isError && <Wrong>Not all of today's jobs could be taken along: the server does not answer, or this browser has no room.</Wrong>}
      </section>
      <section aria-label="Room" className={css.part}>
        <h2>Room</h2>
        <p>
          {has?.opens ? "Epitrope opens on this device without the server. " : "Epitrope does not open here without the server: this browser keeps it on addresses that it trusts alone. "}
          {!has?.opens && <Link to="/trust">How a device comes to trust this server</Link>}
        </p>
        {has?.room && (
          <p>
            {mega(has.room.used)} used of {mega(has.room.most)} that this browser gives.{" "}
            {has.room.lasting ? "The browser keeps it until somebody clears it." : "When the device runs short the browser may clear it: send what waits before you leave it for days."}
          </p>
        )}
        {has?.room && has.room.most - has.room.used < nearlyFull && <Wrong>Less than {mega(nearlyFull)} are left: let go of jobs, or make room on the device, before more photographs are taken.</Wrong>}
      </section>
    </WorkshopPage>
  );
}
