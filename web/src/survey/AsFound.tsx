import { Button } from "@mantine/core";

import { api, take, type Schemas } from "../api/client";
import { valueAt } from "../job/document";
import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import { emptied, keysOf, newKey, type List } from "../job/rows";
import { useAsked } from "../job/useAsked";

export const useRetrofit = () => useAsked("retrofit", (doc, signal) => take(api.POST("/api/retrofit", { body: doc, signal })));

const gearFields = ["kind", "name", "ratingA", "works", "fault", "factoryFeed"];
/** coiled are the devices whose coil the factory may have fed. */
const coiled = ["changeover", "contactor"];
const wireFields = ["role", "endA", "endB", "colour", "size", "lengthM", "fuseA", "fuseMM", "fuseBA", "sources", "state", "amps", "dropV", "remark"];
const bypassFields = ["have.fuseA", "have.fuses", "have.size", "have.metres", "have.relayA"];

/** AsFound takes in what was there before: devices and wires, each with its verdict; and what is in the van. */
export function AsFound() {
  const job = useJob();
  const { answer } = useRetrofit();
  return (
    <div className="asFound">
      <h3>Devices</h3>
      <FoundRows list="gear" fields={gearFields} add="Add a device" first={["kind", "relay"]}>
        {(key) => <GearSays gear={answer?.gear.find((g) => g.key === key)} />}
      </FoundRows>
      <h3>Wires</h3>
      <FoundRows list="found" fields={wireFields} add="Add a wire" first={["role", "start"]}>
        {(key) => <WireSays wire={answer?.wires.find((w) => w.key === key)} />}
      </FoundRows>
      <h3>In the van, for a bypass</h3>
      <div className="surveyFields">
        {bypassFields.flatMap((p) => fieldOf(job, p) ?? []).map((f) => (
          <FieldInput key={f.path} field={f} />
        ))}
      </div>
      {answer?.bypass && <Bypass bypass={answer.bypass} />}
    </div>
  );
}

interface RowsProps {
  list: List;
  fields: string[];
  add: string;
  /** What a new row begins with. */
  first: [string, string];
  children: (key: string) => React.ReactNode;
}

/** FoundRows are the rows of a list, each with what is said of it. */
export function FoundRows({ list, fields, add, first, children }: RowsProps) {
  const job = useJob();
  const { state, dispatch, readOnly } = job;
  return (
    <>
      <ul className="rowsList">
        {keysOf(state.doc, list).map((key) => (
          <li key={key} data-row={key}>
            {fields.filter((name) => name !== "factoryFeed" || coiled.includes(String(valueAt(state.doc, `gear.${key}.kind`)))).flatMap((name) => fieldOf(job, `${list}.${key}.${name}`) ?? []).map((f) => (
              <FieldInput key={f.path} field={f} brief />
            ))}
            <div className="rowSum">{children(key)}</div>
            {!readOnly && (
              <Button size="compact-sm" variant="subtle" onClick={() => dispatch({ type: "setAll", values: emptied(state.doc, list, key) })}>
                Remove
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <Button variant="default" size="compact-md" onClick={() => dispatch({ type: "set", path: `${list}.${newKey()}.${first[0]}`, value: first[1] })}>
          {add}
        </Button>
      )}
    </>
  );
}

const levels = { good: "good", caution: "caution", bad: "unsafe", open: "open" } as const;
const fates = { stays: "stays", goes: "goes", open: "open" } as const;

/** fateClass colours what becomes of something: what goes is never shown as good. */
export const fateClass = (f: { fate: string; level: string }): string => (f.fate === "goes" && f.level === "good" ? "caution" : f.level);

function GearSays({ gear }: { gear: Schemas["GearVerdict"] | undefined }) {
  if (!gear) return null;
  return (
    <p className={`verdictLine ${fateClass(gear)}`}>
      <b>{fates[gear.fate]}</b> {gear.why}
    </p>
  );
}

export function WireSays({ wire }: { wire: Schemas["WireVerdict"] | undefined }) {
  const { dispatch, readOnly } = useJob();
  const reuse = wire?.reuse;
  if (!wire) return null;
  return (
    <>
      <ul className="checkList">
        {wire.findings.map((f) => (
          <li key={f.id + f.text} className={f.level}>
            <b>{levels[f.level]}</b> {f.text}
          </li>
        ))}
      </ul>
      <p className={`verdictLine ${fateClass(wire)}`}>
        <b>{fates[wire.fate]}</b> {wire.why}{" "}
        {reuse?.path && !readOnly && (
          <Button size="compact-sm" variant="default" onClick={() => dispatch({ type: "set", path: reuse.path as string, value: reuse.value })}>
            {reuse.label}
          </Button>
        )}
      </p>
    </>
  );
}

function Bypass({ bypass }: { bypass: Schemas["Bypass"] }) {
  return (
    <section className={`bypass ${bypass.level}`} aria-label="Bypass">
      <h3>Bypass, temporary</h3>
      <p>
        <b>{bypass.level === "bad" ? "Not with this." : bypass.level === "caution" ? "With caution." : "This works."}</b> {bypass.says}
      </p>
      <ul>
        {bypass.limits.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
      {bypass.against.length > 0 && (
        <ul className="checkList">
          {bypass.against.map((a) => (
            <li key={a} className={bypass.level}>
              <b>against</b> {a}
            </li>
          ))}
        </ul>
      )}
      {bypass.level !== "bad" && (
        <ol className="steps">
          {bypass.steps.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
      )}
      <p className="tag">{bypass.tag}</p>
    </section>
  );
}
