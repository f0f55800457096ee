import { NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, take, whyNot, type Problem } from "../api/client";
import { Choices } from "../ui/Choices";
import { Fieldset } from "../ui/Fieldset";
import { asWorkshop, useSettings, type Kept } from "../ui/useSettings";
import { useMay, useMe } from "../ui/useMe";
import { Failed, Told, Waiting, Wrong } from "../ui/Wait";
import { WorkshopPage } from "../ui/WorkshopPage";
import { Instruments } from "./Instruments";
import css from "./settings.module.css";
import { ToldList } from "./Told";
import { Part } from "../ui/Part";

type Settings = Kept["settings"];
type Habits = Settings["habits"];

/** SettingsPage is how the workshop wants its sheets, kept once for all of them. */
export function SettingsPage() {
  const kept = useSettings();
  const tells = useMe()?.may.includes("tell");
  return (
    <WorkshopPage title="Settings" says="kept once, used on every sheet">
      {kept.isPending && <Waiting what="Fetching the settings" />}
      {kept.isError && !kept.data && <Failed what="The settings" error={kept.error} again={() => void kept.refetch()} />}
      {kept.data && <Form kept={kept.data} />}
      {tells && <ToldList />}
    </WorkshopPage>
  );
}

function Form({ kept }: { kept: Kept }) {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState<Problem[]>([]);
  const [says, setSays] = useState("");
  const may = useMay()("settings");
  const vocabulary = useQuery({ queryKey: ["vocabulary"], queryFn: () => take(api.GET("/api/vocabulary")), staleTime: Infinity });
  const put = useMutation({
    // One after the other, each on top of what the one before made of it.
    scope: { id: "settings" },
    mutationFn: (change: (s: Settings) => Settings) => {
      const base = queries.getQueryData<Kept>(["settings"]) ?? kept;
      return take(api.PUT("/api/settings", { body: { version: base.version, settings: change(base.settings) } }));
    },
    onSuccess: (now) => {
      setWrong([]);
      setSays("Saved.");
      asWorkshop(now);
      queries.setQueryData(["settings"], now);
      // All that was answered was written in the old ones.
      void queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "settings" });
    },
    onError: (error) => {
      setSays("");
      if (error instanceof Refused && error.refusal.problems?.length) setWrong(error.refusal.problems);
      else {
        setWrong([{ field: "", value: "", wrong: whyNot(error), allowed: "" }]);
        void queries.invalidateQueries({ queryKey: ["settings"] }); // somebody else may have changed them
      }
    },
  });
  const s = kept.settings;
  const choose = put.mutate;
  const type = put.mutateAsync;
  const refuse = (problem: Problem) => {
    setSays("");
    setWrong([problem]);
    return Promise.reject(new Error(problem.wrong));
  };
  const field = (path: string) => vocabulary.data?.fields.find((f) => f.path === path);
  const choicesOf = (path: string, none: string) => [{ value: "", label: none }, ...(field(path)?.choices ?? [])];
  const errorOf = (path: string) => {
    const p = wrong.find((w) => w.field === path);
    return p && `${p.value} ${p.wrong}. Allowed: ${p.allowed}.`;
  };
  return (
    <fieldset className={css.settings} disabled={!may}>
      {!may && <p className="soft">The workshop&apos;s owner and foreman change these.</p>}
      <div aria-live="polite">
        {wrong.some((p) => p.field === "") ? <Wrong>{wrong[0]?.wrong}</Wrong> : says && <Told>{says}</Told>}
      </div>
      <Part title="Figures" says="How figures are written, here, on paper, in files. What is typed may be in any unit that it names; a bare number is in these. No job's answers change.">
        <Choices legend="Cable and areas" choices={[{ value: "mm2", label: "mm²" }, { value: "awg", label: "AWG, kcmil" }, { value: "auto", label: "auto cable, mm²" }]} value={s.units.area} onChoose={(v) => choose(units({ area: v as Settings["units"]["area"] }))} />
        <Choices legend="Lengths" choices={[{ value: "m", label: "m, mm" }, { value: "ft", label: "feet and inches" }]} value={s.units.length} onChoose={(v) => choose(units({ length: v as Settings["units"]["length"] }))} />
        <Choices legend="Temperatures" choices={[{ value: "C", label: "°C" }, { value: "F", label: "°F" }]} value={s.units.temperature} onChoose={(v) => choose(units({ temperature: v as Settings["units"]["temperature"] }))} />
        <Choices legend="Torques" choices={[{ value: "Nm", label: "N·m" }, { value: "lbft", label: "lb·ft" }]} value={s.units.torque} onChoose={(v) => choose(units({ torque: v as Settings["units"]["torque"] }))} />
      </Part>
      <Part title="In stock" says="These stand in every job that has no answer of its own. Where sizes are named, the plan takes from them, and says where none of them does.">
        <Fieldset>
          <NativeSelect label="Cable on the reels" data={choicesOf("cable.system", "as areas are written")} value={s.habits.system ?? ""} onChange={(e) => choose(habit({ system: e.currentTarget.value as never }))} />
          <NativeSelect label="Insulation" data={choicesOf("cable.insulation", "usual for vehicle cable")} value={String(s.habits.insulation ?? "")} onChange={(e) => choose(habit({ insulation: Number(e.currentTarget.value) }))} />
          <NativeSelect label="Lugs" data={choicesOf("cable.lugs", "as each cable is sold")} value={s.habits.lugs ?? ""} onChange={(e) => choose(habit({ lugs: e.currentTarget.value as never }))} />
          <Typed label="Sizes on the reels" placeholder={`all of them; or such as ${field("cable.sizes")?.example ?? ""}`} value={s.habits.sizes ?? ""} error={errorOf("cable.sizes")} onDone={(sizes) => type(habit({ sizes }))} />
        </Fieldset>
      </Part>
      <Part title="Colours of cable" says="Empty: red, black, violet for signals, orange for feeds to loads.">
        <Fieldset>
          <Typed label="Feeds" value={s.habits.feed ?? ""} error={errorOf("colours.feed")} onDone={(feed) => type(habit({ feed }))} />
          <Typed label="Returns" value={s.habits.return ?? ""} error={errorOf("colours.return")} onDone={(v) => type(habit({ return: v }))} />
          <Typed label="Signals" value={s.habits.signal ?? ""} error={errorOf("colours.signal")} onDone={(signal) => type(habit({ signal }))} />
          <Typed label="Feeds to loads" value={s.habits.house ?? ""} error={errorOf("colours.house")} onDone={(house) => type(habit({ house }))} />
        </Fieldset>
      </Part>
      <Part title="Money" says="What work and parts come to where methods are compared.">
        <Fieldset>
          <Typed label="Currency" placeholder="such as EUR" value={s.currency} error={errorOf("currency")} onDone={(currency) => type(set({ currency: currency.toUpperCase() }))} />
          <Typed label="An hour of work" placeholder="not said" value={s.hourlyRate > 0 ? String(s.hourlyRate) : ""} error={errorOf("hourlyRate")} onDone={(v) => (rate(v) === undefined ? refuse({ field: "hourlyRate", value: v, wrong: "is not an amount", allowed: "a number such as 92.50, or nothing" }) : type(set({ hourlyRate: rate(v) })))} />
        </Fieldset>
      </Part>
      <Instruments meters={s.meters ?? []} problems={wrong} put={(meters) => type(set({ meters }))} />
      <Part title="Paper and dates">
        <Choices legend="Paper" choices={[{ value: "A4", label: "A4" }, { value: "Letter", label: "Letter" }]} value={s.paper} onChoose={(v) => choose(set({ paper: v as Settings["paper"] }))} />
        <Choices legend="A week begins on" choices={[{ value: "monday", label: "Monday" }, { value: "sunday", label: "Sunday" }, { value: "saturday", label: "Saturday" }]} value={s.weekStarts} onChoose={(v) => choose(set({ weekStarts: v as Settings["weekStarts"] }))} />
        <Choices legend="The second of January" choices={[{ value: "2 Jan 2006", label: "2 Jan 2006" }, { value: "02/01/2006", label: "02/01/2006" }, { value: "01/02/2006", label: "01/02/2006" }, { value: "2006-01-02", label: "2006-01-02" }]} value={s.dates} onChoose={(v) => choose(set({ dates: v as Settings["dates"] }))} />
      </Part>
    </fieldset>
  );
}

// The changes that a choice or a text makes of the settings.
const set = (change: Partial<Settings>) => (was: Settings): Settings => ({ ...was, ...change });
const units = (change: Partial<Settings["units"]>) => (was: Settings): Settings => ({ ...was, units: { ...was.units, ...change } });
const habit = (change: Partial<Habits>) => (was: Settings): Settings => ({ ...was, habits: emptied({ ...was.habits, ...change }) });

/** emptied are habits without those that are not said. */
const emptied = (h: Habits): Habits => Object.fromEntries(Object.entries(h).filter(([, v]) => v !== "" && v !== 0)) as Habits;

/** rate is a typed amount; undefined where it is none. */
function rate(text: string): number | undefined {
  const v = Number(text.trim().replace(",", "."));
  return Number.isFinite(v) ? v : undefined;
}

/** Typed is a text that is kept when it is left. */
function Typed({ label, value, placeholder, error, onDone }: { label: string; value: string; placeholder?: string; error?: string | undefined; onDone: (text: string) => Promise<unknown> }) {
  const [text, setText] = useState<string | null>(null);
  // What was kept is shown as it is kept; what was refused stays as it was typed.
  const done = () => {
    if (text === null) return;
    const kept = () => setText((now) => (now === text ? null : now));
    if (text.trim() === value) kept();
    else onDone(text.trim()).then(kept, () => undefined);
  };
  return (
    <TextInput
      label={label}
      aria-label={label}
      value={text ?? value}
      placeholder={placeholder}
      error={error}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === "Enter") e.currentTarget.blur();
      }}
    />
  );
}
