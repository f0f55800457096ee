import { Button, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { api, asFile, take, whyNot, type Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { Fieldset } from "../ui/Fieldset";
import { FileDrop } from "../ui/FileDrop";
import { useDates } from "../ui/useDates";
import { useMay } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import css from "./proof.module.css";
import type { useProof } from "./useProof";

const number = (text: string) => Number(text.trim().replace(",", ".").replace(/\s*(h|%)$/, ""));

/** FirstTrip holds what a drive brought against what was proven. */
export function FirstTrip({ proof }: { proof: ReturnType<typeof useProof> }) {
  const { id } = useJob();
  const dates = useDates();
  const installs = useMay()("install");
  const [hours, setHours] = useState("");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [unread, setUnread] = useState("");
  const path = { params: { path: { id } } };
  const judge = useMutation({
    mutationFn: (drive: Schemas["Drive"]) => take(api.POST("/api/jobs/{id}/trip", { ...path, body: drive })),
    onSuccess: (got, drive) => {
      if (installs) proof.enter("trip", "trip", `${drive.hours.toFixed(1)} h, ${drive.from} % to ${drive.to} %. ${got.says}`.slice(0, 500));
    },
  });
  const read = useMutation({
    mutationFn: (file: File) => take(api.POST("/api/jobs/{id}/trip/file", { ...path, ...asFile(file) })),
    onSuccess: (drive) => {
      setHours(drive.hours.toFixed(2));
      setFrom(String(drive.from));
      setTo(String(drive.to));
      judge.mutate(drive);
    },
  });
  const got = judge.data;
  const trips = proof.entries.filter((e) => e.kind === "trip");
  const failed = judge.error ?? read.error;
  return (
    <section className={css.signed} aria-label="First trip">
      <h2>First trip</h2>
      <p className="soft">What the monitor said before and after a drive, held against what was proven. A monitor's file may be dropped here.</p>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          judge.mutate({ hours: number(hours), from: number(from), to: number(to) });
        }}
      >
        <Fieldset>
          <TextInput label="Driven, h" inputMode="decimal" value={hours} onChange={(e) => setHours(e.currentTarget.value)} />
          <TextInput label="Before, %" inputMode="decimal" value={from} onChange={(e) => setFrom(e.currentTarget.value)} />
          <TextInput label="After, %" inputMode="decimal" value={to} onChange={(e) => setTo(e.currentTarget.value)} />
        </Fieldset>
        <Button type="submit" variant="default" loading={judge.isPending} disabled={![hours, from, to].every((t) => t.trim() !== "" && Number.isFinite(number(t)))}>
          Hold it against the proof
        </Button>
      </form>
      <FileDrop label="A monitor's file" name="A monitor's file of the drive" endings={[".csv", ".txt", ".tsv"]} busy={read.isPending} onFile={(file) => (setUnread(""), read.mutate(file))} onRefused={setUnread} />
      {unread && <Wrong>{unread}</Wrong>}
      {failed && <Wrong>{whyNot(failed)}</Wrong>}
      {got && (
        <div className={css.means} data-level={got.level === "as-it-should" ? "likely" : got.level === "says-little" ? "possible" : "out"} role="status">
          <b>{got.says}</b>
          {got.causes.length > 0 && <p>Likely: {got.causes.slice(0, 3).map((c) => c.says).join("; ")}.</p>}
          {got.next && <p>Read next: {got.next}</p>}
        </div>
      )}
      <ol className="soft">
        {trips.map((t) => (
          <li key={t.id}>
            {dates.moment(t.at)}, {t.by}: {t.entry}
          </li>
        ))}
      </ol>
    </section>
  );
}
