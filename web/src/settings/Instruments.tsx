import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";

import type { Problem, Schemas } from "../api/client";
import { Fieldset } from "../ui/Fieldset";
import { Wrong } from "../ui/Wait";
import { Part } from "../ui/Part";

type Meter = Schemas["Meter"];

const blank: Meter = { name: "", address: "", speaks: "scpi" };
const speaks = [
  { value: "scpi", label: "a meter, SCPI over TCP" },
  { value: "telemetry", label: "a charger, lines of JSON over TCP" },
];

/** Instruments are the meters and chargers that the server may read: it reaches nothing else. */
export function Instruments({ meters, problems, put }: { meters: Meter[]; problems: Problem[]; put: (meters: Meter[]) => Promise<unknown> }) {
  const [next, setNext] = useState(blank);
  const wrong = problems.filter((p) => p.field.startsWith("meters"));
  const add = () => void put([...meters, { ...next, name: next.name.trim(), address: next.address.trim() }]).then(() => setNext(blank), () => undefined);
  return (
    <Part title="Instruments" says="What the proof may read over the workshop's network. The server reaches these addresses and no others.">
      <ul>
        {meters.map((m) => (
          <li key={m.name} className="row">
            <b>{m.name}</b> {m.address} <span className="soft">{speaks.find((s) => s.value === m.speaks)?.label}</span>
            <Button size="compact-sm" variant="subtle" onClick={() => void put(meters.filter((x) => x.name !== m.name)).catch(() => undefined)}>
              Take {m.name} out
            </Button>
          </li>
        ))}
      </ul>
      <Fieldset>
        <TextInput label="Name of the instrument" value={next.name} maxLength={60} onChange={(e) => setNext({ ...next, name: e.currentTarget.value })} />
        <TextInput label="Address" placeholder="such as 192.168.1.40:5025" value={next.address} maxLength={100} onChange={(e) => setNext({ ...next, address: e.currentTarget.value })} />
        <NativeSelect label="Speaks as" data={speaks} value={next.speaks} onChange={(e) => setNext({ ...next, speaks: e.currentTarget.value as Meter["speaks"] })} />
      </Fieldset>
      {wrong.map((p) => (
        <Wrong key={p.field}>
          {p.value} {p.wrong}. Allowed: {p.allowed}.
        </Wrong>
      ))}
      <Button variant="default" disabled={next.name.trim() === "" || next.address.trim() === ""} onClick={add}>
        Add it
      </Button>
    </Part>
  );
}
