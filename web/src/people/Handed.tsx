import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, take, whyNot, type Schemas } from "../api/client";
import { Fieldset } from "../ui/Fieldset";
import { handOver } from "../ui/handOver";
import { dates } from "../ui/useDates";
import { Waiting, Wrong } from "../ui/Wait";
import { Plate } from "./Plate";
import css from "./people.module.css";

const token = () => window.location.hash.slice(1);
const said = (error: Error) => (error instanceof Refused ? error.message : whyNot(error));
const moment = (at: string) => dates("2 Jan 2006").moment(at);

/** Handed is what a vehicle's owner sees by their link: what was handed over, as it was signed for, and how to say what a drive brought. */
export function Handed() {
  const got = useQuery({ queryKey: ["handed", token()], queryFn: () => take(api.POST("/api/handed", { body: { token: token() } })), retry: false });
  const booklet = useMutation({
    mutationFn: async () => {
      const res = await fetch("/api/handed/booklet", { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ token: token() }) });
      if (!res.ok) throw new Error("The booklet could not be fetched.");
      handOver(await res.blob(), "booklet.pdf", "application/pdf");
    },
  });
  if (got.isPending) return <Waiting what="Opening what was handed over" />;
  if (got.isError) {
    return (
      <Plate title="This link does not open">
        <p>{said(got.error)}</p>
      </Plate>
    );
  }
  const h = got.data;
  return (
    <main className={css.handed}>
      <header>
        <b>{h.workshop}</b>
        <span className="soft">for the owner of the vehicle</span>
      </header>
      <h1>{h.title || "The charging system"}</h1>
      <p className="soft">
        {h.vehicle && `${h.vehicle}. `}Signed for by {h.signedBy}, {moment(h.signedAt)}.
      </p>
      <p>{h.booklet.does}</p>
      <Button variant="default" loading={booklet.isPending} onClick={() => booklet.mutate()}>
        The booklet, to print or keep
      </Button>
      {booklet.isError && <Wrong>{booklet.error.message}</Wrong>}
      <Trip handed={h} told={() => void got.refetch()} />
      <Advice title="What the lamp means" list={h.booklet.lamps} />
      <Advice title="What to do when" list={h.booklet.when} />
      <List title="Never" list={h.booklet.never} />
      <List title="On the first trip" list={h.booklet.expect} />
      <List title="What was proven" list={h.proven} />
      <List title="Have it looked at" list={h.booklet.look} />
      <p className="soft">This link is good until {moment(h.expires)}.</p>
    </main>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function Advice({ title, list }: { title: string; list: Schemas["Advice"][] }) {
  if (list.length === 0) return null;
  return (
    <>
      <h2>{title}</h2>
      <dl>
        {list.map((a) => (
          <div key={a.when} style={{ display: "contents" }}>
            <dt>{capital(a.when)}</dt>
            <dd>{capital(a.then)}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}

function List({ title, list }: { title: string; list: string[] }) {
  if (list.length === 0) return null;
  return (
    <>
      <h2>{title}</h2>
      <ul>
        {list.map((text) => (
          <li key={text}>{capital(text)}</li>
        ))}
      </ul>
    </>
  );
}

const number = (text: string) => Number(text.trim().replace(",", ".").replace(/\s*(h|%)$/, ""));

/** Trip asks what a drive brought: nothing gained in two hours is noticed on the first trip, and not after the first night. */
function Trip({ handed, told }: { handed: Schemas["HandedOver"]; told: () => void }) {
  const [hours, setHours] = useState("");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const tell = useMutation({
    mutationFn: () => take(api.POST("/api/handed/trip", { body: { token: token(), drive: { hours: number(hours), from: number(from), to: number(to) } } })),
    onSuccess: told,
  });
  const whole = [hours, from, to].every((t) => t.trim() !== "" && Number.isFinite(number(t)));
  return (
    <section aria-label="How was the first trip?">
      <h2>How was the first trip?</h2>
      <p>What the battery monitor said before and after a drive. The workshop sees your answer, and you see at once what it means.</p>
      <form
        className={css.form}
        onSubmit={(e) => {
          e.preventDefault();
          tell.mutate();
        }}
      >
        <Fieldset>
          <TextInput label="Driven, h" inputMode="decimal" value={hours} onChange={(e) => setHours(e.currentTarget.value)} />
          <TextInput label="Before, %" inputMode="decimal" value={from} onChange={(e) => setFrom(e.currentTarget.value)} />
          <TextInput label="After, %" inputMode="decimal" value={to} onChange={(e) => setTo(e.currentTarget.value)} />
        </Fieldset>
        <Button type="submit" loading={tell.isPending} disabled={!whole}>
          Tell the workshop
        </Button>
      </form>
      {tell.isError && <Wrong>{said(tell.error)}</Wrong>}
      {tell.data && (
        <p role="status">
          <b>{tell.data.says}</b> {(tell.data.level === "less" || tell.data.level === "nothing") && "The workshop has it now; ring them before the next long drive."}
        </p>
      )}
      {handed.trips.length > 0 && (
        <ul className="soft">
          {handed.trips.map((t, i) => (
            <li key={`${String(i)}${t}`}>{t}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
