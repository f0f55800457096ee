import { Button, Tabs, TextInput } from "@mantine/core";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { valueAt } from "../job/document";
import { Fields } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { Across, RowList } from "../job/RowList";
import { keysOf, newKey } from "../job/rows";
import { Findings } from "../ui/CheckList";
import { Choices } from "../ui/Choices";
import { Standing } from "../ui/Standing";
import { Verdict } from "../ui/Verdict";
import css from "./survey.module.css";

/** Stages of the hunt, in working order: what is done to the vehicle, and which answer it gives. */
const stages = [
  { name: "off", label: "Key out", says: "Key out. Test every fuse; those that are dead may do." },
  { name: "on", label: "Ignition on", says: "Ignition on, engine stopped. Which of them wake?" },
  { name: "accessory", label: "Accessory", says: "Key at accessory. The step that people miss." },
  { name: "running", label: "Running", says: "Engine running; then lamps, blower and air conditioning off." },
  { name: "cranking", label: "Cranking", says: "A helper cranks. Does the feed stay live?" },
  { name: "slept", label: "After sleep", says: "Key out, doors locked, several minutes: the bus sleeps." },
] as const;

type FeedPoint = Schemas["FeedPoint"];

/** FeedHunt is the hunt for a feed point: fuse by fuse, state by state, on a phone beside the fuse box. */
export function FeedHunt() {
  const { state, plan } = useJob();
  const [at, setAt] = useState<string>("off");
  const stage = stages.find((s) => s.name === at) ?? stages[0];
  const keys = keysOf(state.doc, "feeds");
  const points = keys.map((key) => ({ key, point: plan.signal.feeds.find((f) => f.key === key) }));
  // What is ruled out needs no further tests.
  const asked = points.filter(({ key, point }) => !point?.findings.some((f) => f.out) || valueAt(state.doc, `feeds.${key}.${stage.name}`) !== undefined);
  const open = (name: string) => points.filter(({ key, point }) => !point?.findings.some((f) => f.out) && valueAt(state.doc, `feeds.${key}.${name}`) === undefined).length;
  return (
    <section className={css.hunt} aria-label="Feed point hunt">
      {!plan.signal.needed && <p className="soft">The coupling of this plan needs no signal; what is found is kept all the same.</p>}
      <AddFuse />
      <Tabs value={stage.name} onChange={(name) => setAt(name ?? "off")}>
        <Tabs.List aria-label="State of the vehicle">
          {stages.map((s) => (
            <Tabs.Tab key={s.name} value={s.name}>
              {s.label} <span className="soft">{open(s.name) || ""}</span>
            </Tabs.Tab>
          ))}
        </Tabs.List>
      </Tabs>
      <p>{stage.says}</p>
      {keys.length === 0 && <p className="soft">No fuse entered yet.</p>}
      <ul className={css.tests}>
        {asked.map(({ key, point }) => (
          <HuntLine key={key} rowKey={key} point={point} stage={stage.name} />
        ))}
      </ul>
      {points.length > 0 && (
        <>
          <h3>What they turned out to be</h3>
          <RowList list="feeds" keys={[...points].sort((a, b) => (a.point?.rank ?? 999) - (b.point?.rank ?? 999)).map((p) => p.key)}>
            {(key) => (
              <Across>
                <FeedSays point={plan.signal.feeds.find((f) => f.key === key)} rowKey={key} />
              </Across>
            )}
          </RowList>
        </>
      )}
    </section>
  );
}

/** AddFuse adds a fuse by what is printed beside it. */
function AddFuse() {
  const { dispatch, mayChange } = useJob();
  const readOnly = !mayChange("feeds");
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

const tested = [
  { value: "live", label: "live" },
  { value: "dead", label: "dead" },
];

function HuntLine({ rowKey, point, stage }: { rowKey: string; point: FeedPoint | undefined; stage: string }) {
  const { state, dispatch, mayChange } = useJob();
  const readOnly = !mayChange("feeds");
  const path = `feeds.${rowKey}.${stage}`;
  const now = valueAt(state.doc, path);
  const name = String(valueAt(state.doc, `feeds.${rowKey}.name`) ?? point?.name ?? rowKey);
  return (
    <li>
      <b>{name}</b>
      <Choices legend={name} legendAt="nowhere" disabled={readOnly} choices={tested} value={String(now ?? "")} onChoose={(v) => dispatch({ type: "set", path, value: v })} />
    </li>
  );
}

const behaviours: Record<string, string> = {
  running: "live only while the engine runs", ignition: "live with the ignition", accessory: "live at accessory", consumer: "live with a consumer only",
  permanent: "always live", never: "dead while running", unknown: "not tested enough",
};

function FeedSays({ point, rowKey }: { point: FeedPoint | undefined; rowKey: string }) {
  const { plan, dispatch, mayChange } = useJob();
  const readOnly = !mayChange("feeds");
  if (!point) return <p>…</p>;
  const out = point.findings.some((f) => f.out);
  const standing = out ? "bad" : point.candidate ? (point.behaviour === "accessory" ? "caution" : "good") : "open";
  const taken = plan.signal.taken === rowKey;
  return (
    <>
      <Verdict word={out ? "no" : point.candidate ? "will do" : "open"} level={standing}>
        <strong>{point.name}</strong>: {behaviours[point.behaviour]}
        {point.trap && <b className={css.trap}>, a trap</b>}
        {plan.signal.best === rowKey && <Standing inline level="good">, the best so far</Standing>}
      </Verdict>
      <Findings
        list={[
          ...point.findings.map((f) => ({ key: f.id, word: "", level: f.out ? ("bad" as const) : ("open" as const), text: f.text })),
          ...(point.missing.length > 0 ? [{ key: "missing", word: "", level: "open" as const, text: `Still to test: ${point.missing.join(", ")}.` }] : []),
          ...(point.candidate ? [{ key: "tap", word: "", level: "good" as const, text: point.tap }] : []),
        ]}
      />
      <details>
        <summary>The feed's fuse, and what it feeds</summary>
        <Fields brief paths={["kind", "name", "ratingA", "circuit", "safety", "only"].map((n) => `feeds.${rowKey}.${n}`)} />
      </details>
      {!readOnly && !out && (
        <Button size="compact-sm" variant={taken ? "filled" : "default"} aria-pressed={taken} onClick={() => dispatch({ type: "set", path: "signal.feed", value: taken ? undefined : rowKey })}>
          {taken ? `${point.name} is taken` : `Take ${point.name}`}
        </Button>
      )}
    </>
  );
}
