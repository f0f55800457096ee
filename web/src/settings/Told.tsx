import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, take, whyNot, type Schemas } from "../api/client";
import { useDates } from "../ui/useDates";
import { Part } from "../ui/Part";
import { Told, Wrong } from "../ui/Wait";
import css from "./settings.module.css";

type Addressee = Schemas["Addressee"];
type Want = Schemas["NewAddressee"]["wants"][number];

const wants: { value: Want; label: string }[] = [
  { value: "due", label: "what is due or overdue" },
  { value: "asked", label: "questions" },
  { value: "mentioned", label: "being named with @" },
  { value: "signed", label: "certificates that are signed" },
  { value: "failed", label: "readings that are out, work that failed" },
];

const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
const hours = Array.from({ length: 24 }, (_, h) => ({ value: String(h), label: `${String(h).padStart(2, "0")}:00` }));

/** ToldList is who is told by mail and webhook what concerns the workshop: its owner lists them. */
export function ToldList() {
  const queries = useQueryClient();
  const dates = useDates();
  const list = useQuery({ queryKey: ["addressees"], queryFn: () => take(api.GET("/api/addressees")) });
  const staff = useQuery({ queryKey: ["people"], queryFn: () => take(api.GET("/api/people")) });
  const [kind, setKind] = useState<"mail" | "webhook">("mail");
  const [address, setAddress] = useState("");
  const [person, setPerson] = useState("");
  const [chosen, setChosen] = useState<Want[]>(["due", "asked", "mentioned"]);
  const [hourly, setHourly] = useState(false);
  const [hour, setHour] = useState("7");
  const [secret, setSecret] = useState("");
  const taken = (now: Schemas["Addressees"]) => {
    queries.setQueryData(["addressees"], now);
    setSecret(now.secret ?? "");
  };
  const add = useMutation({
    mutationFn: () => take(api.POST("/api/addressees", { body: { kind, address: address.trim(), wants: chosen, hourly, hour: Number(hour), zone, ...(person && { person }) } })),
    onSuccess: (now) => {
      taken(now);
      setAddress("");
    },
  });
  const end = useMutation({ mutationFn: (id: string) => take(api.DELETE("/api/addressees/{id}", { params: { path: { id } } })), onSuccess: taken });
  const test = useMutation({ mutationFn: (a: Addressee) => take(api.POST("/api/addressees/{id}/try", { params: { path: { id: a.id } } })).then(() => a) });
  const wrong = add.error instanceof Refused ? add.error.refusal.problems.map((p) => `${p.value} ${p.wrong}. Allowed: ${p.allowed}.`).join(" ") || add.error.message : add.error && whyNot(add.error);
  const often = (a: Addressee) => (a.hourly ? "at most once an hour" : `once a day at ${String(a.hour).padStart(2, "0")}:00, ${a.zone}`);
  return (
    <Part title="Told by mail and webhook" says="What concerns the workshop, gathered into one message, and none where there is nothing. Titles of jobs, questions and names leave the workshop with it: nothing goes to an address that is not on this list.">
      {list.data && !list.data.mail && <p className="soft">This server sends no mail at present. Whoever runs it names a mail server with EPITROPE_SMTP; webhooks work without.</p>}
      <ul className={css.told}>
        {list.data?.list.map((a) => (
          <li key={a.id}>
            <span>
              <b>{a.address}</b> {often(a)}: {a.wants.map((w) => wants.find((x) => x.value === w)?.label).join(", ")}
              {a.person && `; named as ${staff.data?.people.find((p) => p.id === a.person)?.name ?? "somebody who left"}`}
              <br />
              <span className="soft">
                {a.sent ? `last told ${dates.moment(a.sent)}, ` : ""}next {dates.moment(a.next)}
              </span>
              {a.problem && <Wrong>It could not be told: {a.problem}. It is tried again; nothing is left out.</Wrong>}
            </span>
            <Button variant="default" loading={test.isPending && test.variables?.id === a.id} onClick={() => test.mutate(a)}>
              Send a test
            </Button>
            <Button variant="default" aria-label={`Take off ${a.address}`} onClick={() => end.mutate(a.id)}>
              Take off
            </Button>
          </li>
        ))}
      </ul>
      {test.isSuccess && <Told>A test went to {test.data.address}.</Told>}
      {test.isError && <Wrong>{test.error instanceof Refused ? test.error.message : whyNot(test.error)}</Wrong>}
      {secret && (
        <Told>
          The messages of this webhook are signed with <code>{secret}</code>: HMAC-SHA256 of the body, in the head Epitrope-Signature. It is shown this once.
        </Told>
      )}
      <form
        className={css.telling}
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate();
        }}
      >
        <NativeSelect label="By" data={[{ value: "mail", label: "mail" }, { value: "webhook", label: "webhook" }]} value={kind} onChange={(e) => setKind(e.currentTarget.value as "mail")} />
        <TextInput label="Told at" placeholder={kind === "mail" ? "bay@workshop.example" : "https://hooks.example/epitrope"} maxLength={300} value={address} onChange={(e) => setAddress(e.currentTarget.value)} />
        <NativeSelect label="Whose it is" data={[{ value: "", label: "nobody's: all who are named" }, ...(staff.data?.people.filter((p) => !p.left).map((p) => ({ value: p.id, label: p.name })) ?? [])]} value={person} onChange={(e) => setPerson(e.currentTarget.value)} />
        <NativeSelect label="How often" data={[{ value: "day", label: "once a day" }, { value: "hour", label: "at most once an hour" }]} value={hourly ? "hour" : "day"} onChange={(e) => setHourly(e.currentTarget.value === "hour")} />
        {!hourly && <NativeSelect label={`At, in ${zone}`} data={hours} value={hour} onChange={(e) => setHour(e.currentTarget.value)} />}
        <fieldset className={css.wants}>
          <legend>Told of</legend>
          {wants.map((w) => (
            <label key={w.value}>
              <input type="checkbox" checked={chosen.includes(w.value)} onChange={(e) => setChosen(e.currentTarget.checked ? [...chosen, w.value] : chosen.filter((c) => c !== w.value))} /> {w.label}
            </label>
          ))}
        </fieldset>
        <Button type="submit" disabled={address.trim() === "" || chosen.length === 0} loading={add.isPending}>
          List this address
        </Button>
      </form>
      {wrong && <Wrong>{wrong}</Wrong>}
    </Part>
  );
}
