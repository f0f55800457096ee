import { Button, TextInput } from "@mantine/core";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { valueAt } from "../job/document";
import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import { emptied, keysOf, newKey } from "../job/rows";

/** Stages of the hunt, in working order: what is done to the vehicle, and which answer it gives. */
const stages = [
  { name: "off", label: "Key out", says: "Key out. Test every fuse; those that are dead may do." },
  { name: "on", label: "Ignition on", says: "Ignition on, engine stopped. Which of them wake?" },
  { name: "accessory", label: "Accessory", says: "Key at accessory. The step that people miss." },
  { name: "running", label: "Running", says: "Engine running; then lamps, blower and air conditioning off." },
  { name: "cranking", label: "Cranking", says: "A helper cranks. Does it stay on?" },
  { name: "slept", label: "After sleep", says: "Key out, doors locked, several minutes: the bus sleeps." },
] as const;

type FeedPoint = Schemas["FeedPoint"];

/** FeedHunt is the hunt for a feed point: fuse by fuse, state by state, on a phone beside the fuse box. */
export function FeedHunt() {
  const { state, plan, dispatch, readOnly } = useJob();
  const [at, setAt] = useState<string>("off");
  const stage = stages.find((s) => s.name === at) ?? stages[0];
  const keys = keysOf(state.doc, "feeds");
  const points = keys.map((key) => ({ key, point: plan.signal.feeds.find((f) => f.key === key) }));
  // What is ruled out needs no further tests.
  const asked = points.filter(({ key, point }) => !point?.findings.some((f) => f.out) || valueAt(state.doc, `feeds.${key}.${stage.name}`) !== undefined);
  const open = (name: string) => points.filter(({ key, point }) => !point?.findings.some((f) => f.out) && valueAt(state.doc, `feeds.${key}.${name}`) === undefined).length;
  return (
    <section className="feedHunt" aria-label="Feed point hunt">
      {!plan.signal.needed && <p className="soft">The coupling of this plan needs no signal; what is found is kept all the same.</p>}
      <AddFuse />
      <div className="stages" role="tablist" aria-label="State of the vehicle">
        {stages.map((s) => (
          <button key={s.name} type="button" role="tab" aria-selected={s.name === stage.name} className={s.name === stage.name ? "on" : ""} onClick={() => setAt(s.name)}>
            {s.label} <span className="soft">{open(s.name) || ""}</span>
          </button>
        ))}
      </div>
      <p>{stage.says}</p>
      {keys.length === 0 && <p className="soft">No fuse entered yet.</p>}
      <ul className="huntList">
        {asked.map(({ key, point }) => (
          <HuntLine key={key} rowKey={key} point={point} stage={stage.name} />
        ))}
      </ul>
      {points.length > 0 && (
        <>
          <h3>What they turned out to be</h3>
          <ul className="rowsList">
            {[...points].sort((a, b) => (a.point?.rank ?? 999) - (b.point?.rank ?? 999)).map(({ key, point }) => (
              <li key={key} className="huntResult" data-feed={key}>
                <FeedSays point={point} rowKey={key} />
                {!readOnly && (
                  <Button size="compact-sm" variant="subtle" onClick={() => dispatch({ type: "setAll", values: emptied(state.doc, "feeds", key) })}>
                    Remove
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** AddFuse adds a fuse by what is printed beside it. */
function AddFuse() {
  const { dispatch, readOnly } = useJob();
  const [name, setName] = useState("");
  if (readOnly) return null;
  const add = () => {
    const key = newKey();
    dispatch({ type: "setAll", values: { [`feeds.${key}.kind`]: "slot", [`feeds.${key}.name`]: name.trim() || undefined } });
    setName("");
  };
  return (
    <form
      className="row"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <TextInput aria-label="Fuse to test" placeholder="F22, rear wiper" maxLength={40} value={name} onChange={(e) => setName(e.currentTarget.value)} />
      <Button type="submit" variant="default">
        Add a fuse
      </Button>
    </form>
  );
}

function HuntLine({ rowKey, point, stage }: { rowKey: string; point: FeedPoint | undefined; stage: string }) {
  const { state, dispatch, readOnly } = useJob();
  const path = `feeds.${rowKey}.${stage}`;
  const now = valueAt(state.doc, path);
  const name = String(valueAt(state.doc, `feeds.${rowKey}.name`) ?? point?.name ?? rowKey);
  return (
    <li>
      <b>{name}</b>
      <fieldset className="choices" disabled={readOnly}>
        <legend className="hidden">{name}</legend>
        {["live", "dead"].map((v) => (
          <label key={v} className={`choice ${now === v ? "on" : ""}`}>
            <input type="radio" name={path} checked={now === v} onChange={() => dispatch({ type: "set", path, value: v })} />
            {v}
          </label>
        ))}
      </fieldset>
    </li>
  );
}

const behaviours: Record<string, string> = {
  running: "live only while the engine runs", ignition: "live with the ignition", accessory: "live at accessory", consumer: "live with a consumer only",
  permanent: "always live", never: "dead while running", unknown: "not tested enough",
};

function FeedSays({ point, rowKey }: { point: FeedPoint | undefined; rowKey: string }) {
  const job = useJob();
  const { plan, dispatch, readOnly } = job;
  if (!point) return <p>…</p>;
  const out = point.findings.some((f) => f.out);
  const standing = out ? "bad" : point.candidate ? (point.behaviour === "accessory" ? "caution" : "good") : "open";
  const taken = plan.signal.taken === rowKey;
  return (
    <div className="rowSum">
      <p className={`verdictLine ${standing}`}>
        <b>{out ? "no" : point.candidate ? "will do" : "open"}</b> <strong>{point.name}</strong>: {behaviours[point.behaviour]}
        {point.trap && <b className="bad">, a trap</b>}
        {plan.signal.best === rowKey && <span className="standing good">, the best so far</span>}
      </p>
      <ul className="checkList">
        {point.findings.map((f) => (
          <li key={f.id} className={f.out ? "bad" : "open"}>
            {f.text}
          </li>
        ))}
        {point.missing.length > 0 && <li className="open">Still to test: {point.missing.join(", ")}.</li>}
        {point.candidate && <li className="good">{point.tap}</li>}
      </ul>
      <details>
        <summary>Its fuse, what it feeds</summary>
        <div className="surveyFields">
          {["kind", "name", "ratingA", "circuit", "safety", "only"].flatMap((n) => fieldOf(job, `feeds.${rowKey}.${n}`) ?? []).map((f) => (
            <FieldInput key={f.path} field={f} brief />
          ))}
        </div>
      </details>
      {!readOnly && !out && (
        <Button size="compact-sm" variant={taken ? "filled" : "default"} aria-pressed={taken} onClick={() => dispatch({ type: "set", path: "signal.feed", value: taken ? undefined : rowKey })}>
          {taken ? `${point.name} is taken` : `Take ${point.name}`}
        </Button>
      )}
    </div>
  );
}
