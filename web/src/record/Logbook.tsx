import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

import { api, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";
import { useEdit, useShown } from "../job/JobContext";
import { valueAt } from "../job/document";
import { keysOf } from "../job/rows";
import { useQueue } from "../job/useQueue";
import DayInput from "../ui/DayInput";
import { Due } from "../ui/Due";
import { useDates } from "../ui/useDates";
import { useMay, useMe } from "../ui/useMe";
import { Failed, Waiting } from "../ui/Wait";
import css from "./record.module.css";
import { useCalendar } from "./useCalendar";

type Entry = Schemas["ProofEntry"];

/** Logbook is what happened to the job over the years, as a line of time, with what is still to come at its end. */
export function Logbook() {
  const { id, revision } = useShown();
  const dates = useDates();
  const queue = useQueue<Entry, Schemas["ProofRecord"]>("proof", id, () => take(api.GET("/api/jobs/{id}/proof", { params: { path: { id } } })), (whole) => whole.entries);
  const log = useQuery({ queryKey: ["log", id, revision, queue.whole?.entries.length ?? 0], queryFn: () => take(api.GET("/api/jobs/{id}/log", { params: { path: { id } } })) });
  const waiting = queue.unsent > 0 ? queue.all.slice(-queue.unsent).filter((e) => e.kind === "changed" || e.kind === "noted") : [];
  const installs = useMay()("install");
  return (
    <section aria-label="Logbook">
      <h2>Logbook</h2>
      {log.isPending && <Waiting what="Fetching the log" />}
      {log.isError && <Failed what="The log" error={log.error} again={() => void log.refetch()} />}
      <ol className={css.time}>
        {log.data?.lines.map((l, i) => (
          <li key={l.at + String(i)} data-kind={l.kind}>
            <span className="soft" data-when>
              {dates.moment(l.at)}
            </span>
            <span>
              {l.case ? (
                <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "trace" }}>
                  {l.says}
                </Link>
              ) : (
                l.says
              )}
              {l.by && <span className="soft">, {l.by}</span>}
            </span>
          </li>
        ))}
        {waiting.map((e) => (
          <li key={e.id} data-kind={e.kind}>
            <span className="soft">waits here</span>
            <span>{e.entry}</span>
          </li>
        ))}
        <ToCome />
      </ol>
      {installs && log.data && <Add parts={log.data.parts} add={queue.add} />}
    </section>
  );
}

/** ToCome are the dates that are still to be done, after all that happened. */
function ToCome() {
  const { state } = useEdit();
  const dates = useDates();
  const { answer } = useCalendar();
  const open = keysOf(state.doc, "dates")
    .map((key) => ({ key, what: valueAt(state.doc, `dates.${key}.what`), due: valueAt(state.doc, `dates.${key}.due`), stands: answer?.rows.find((r) => r.key === key) }))
    .filter(({ stands }) => stands && stands.state !== "done" && stands.state !== "undated")
    .sort((a, b) => (a.stands?.days ?? 0) - (b.stands?.days ?? 0));
  return open.map(({ key, what, due, stands }) => (
    <li key={key} data-kind="due">
      <span className="soft">{dates.day(String(due ?? ""))}</span>
      <span>
        {String(what ?? "") || "A date without a name"} {stands && <Due state={stands.state} days={stands.days} />}
      </span>
    </li>
  ));
}

/** Add puts into the log what was changed in the vehicle, or is to be remembered. */
function Add({ parts, add }: { parts: Schemas["InVehicle"][]; add: (e: Entry, named: string) => void }) {
  const me = useMe();
  const [part, setPart] = useState("");
  const [text, setText] = useState("");
  const [day, setDay] = useState("");
  const named = parts.find((p) => p.id === part)?.name;
  const put = () => {
    const at = day === "" ? new Date() : new Date(`${day}T12:00:00`);
    add(
      { id: uuid(), kind: named ? "changed" : "noted", subject: named ? part : "log", entry: text.trim(), by: me?.person?.name ?? "", person: me?.person?.id, at: at.toISOString() },
      `${named ? `${named} changed` : "Log"}: ${text.trim()}`,
    );
    setText("");
    setPart("");
    setDay("");
  };
  return (
    <details className={css.add}>
      <summary>Add to the log</summary>
      <NativeSelect label="Changed" data={[{ value: "", label: "nothing: a note" }, ...parts.map((p) => ({ value: p.id, label: p.name }))]} value={part} onChange={(e) => setPart(e.currentTarget.value)} />
      <TextInput label={named ? "By what, and why" : "What happened"} maxLength={500} value={text} onChange={(e) => setText(e.currentTarget.value)} />
      <DayInput label="On" named="On" description="Empty: now" max={today()} value={day} onDay={setDay} />
      <Button disabled={text.trim() === ""} onClick={put}>
        Add
      </Button>
    </details>
  );
}

const today = () => new Date().toISOString().slice(0, 10);
