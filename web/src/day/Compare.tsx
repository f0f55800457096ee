import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useState } from "react";

import { api, Refused, take, type Field, type Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { byPath, compared } from "./fields";

/** Variant is a design beside the job's own: one field of it set to something else. */
interface Variant {
  path: string;
  value: string;
}

/** kept are the designs that were asked for, in this browser until they are changed. */
function useVariants(id: string): [Variant[], (v: Variant[]) => void] {
  const key = `compare-${id}`;
  const [list, setList] = useState<Variant[]>(() => JSON.parse(localStorage.getItem(key) ?? '[{"path":"pins.chargerA","value":"20"}]') as Variant[]);
  return [
    list,
    (v) => {
      localStorage.setItem(key, JSON.stringify(v));
      setList(v);
    },
  ];
}

const lines = ["own", "second", "third", "fourth"];

/** Compare runs up to four designs through the same days. */
export function Compare({ id }: { id: string }) {
  const { state, vocabulary } = useJob();
  const [variants, setVariants] = useVariants(id);
  const run = useMutation({
    mutationFn: () => {
      const label = (v: Variant) => `${byPath(vocabulary.fields, v.path)?.label ?? v.path}: ${v.value || "none"}`;
      const list = [{ label: "as it is", changes: {} }, ...variants.map((v) => ({ label: label(v), changes: { [v.path]: v.value || null } }))];
      return take(api.POST("/api/compare", { body: { document: state.doc as unknown as Record<string, never>, variants: list as never } }));
    },
  });
  const change = (i: number, v: Variant) => setVariants(variants.map((old, k) => (k === i ? v : old)));
  return (
    <section aria-label="Compare">
      <p className="soft">The same days for up to four designs: the job as it is, and with one thing changed.</p>
      <ol className="variants">
        {variants.map((v, i) => (
          <li key={i}>
            <NativeSelect size="xs" aria-label={`Field of design ${i + 2}`} value={v.path} data={compared.flatMap((p) => byPath(vocabulary.fields, p) ?? []).map((f) => ({ value: f.path, label: f.label }))} onChange={(e) => change(i, { path: e.currentTarget.value, value: "" })} />
            <ValueInput field={byPath(vocabulary.fields, v.path)} label={`Value of design ${i + 2}`} value={v.value} onChange={(value) => change(i, { ...v, value })} />
            <Button size="compact-sm" variant="subtle" aria-label={`Remove design ${i + 2}`} onClick={() => setVariants(variants.filter((_, k) => k !== i))}>
              ×
            </Button>
          </li>
        ))}
      </ol>
      <div className="row">
        <Button size="compact-sm" variant="default" disabled={variants.length >= 3} onClick={() => setVariants([...variants, { path: "use.drivenHours", value: "1 h" }])}>
          Add a design
        </Button>
        <Button size="compact-sm" loading={run.isPending} onClick={() => run.mutate()}>
          Compare
        </Button>
      </div>
      {run.error && <p className="bad">{run.error instanceof Refused ? run.error.refusal.detail : run.error.message}</p>}
      {run.data && <Compared list={run.data} />}
    </section>
  );
}

export function ValueInput({ field, label, value, onChange }: { field: Field | undefined; label: string; value: string; onChange: (v: string) => void }) {
  if (field && field.choices.length > 0) {
    return <NativeSelect size="xs" aria-label={label} value={value} data={[{ value: "", label: "choose" }, ...field.choices.filter((c) => c.value !== "own")]} onChange={(e) => onChange(e.currentTarget.value)} />;
  }
  return <TextInput size="xs" aria-label={label} value={value} placeholder={field?.example ?? field?.unit} onChange={(e) => onChange(e.currentTarget.value)} />;
}

const rows: { label: string; of: (o: Schemas["Outcome"]) => string }[] = [
  { label: "aux at the end", of: (o) => `${o.auxEnd.toFixed(0)} %` },
  { label: "aux lowest", of: (o) => `${o.auxLeast.toFixed(0)} %` },
  { label: "full after", of: (o) => (o.fullH < 0 ? "never" : `${o.fullH.toFixed(0)} h`) },
  { label: "charged", of: (o) => `${o.auxInAh.toFixed(0)} Ah` },
  { label: "start lowest", of: (o) => `${o.startLeast.toFixed(0)} %` },
  { label: "cranks at", of: (o) => (o.crankV === 0 ? "–" : `${o.crankV.toFixed(1)} V`) },
  { label: "chatter", of: (o) => String(o.chatter) },
  { label: "alternator", of: (o) => `${o.windingC.toFixed(0)} °C` },
];

function Compared({ list }: { list: Schemas["Compared"][] }) {
  const end = Math.max(...list.map((c) => c.t.at(-1) ?? 0));
  const x = scaleLinear([0, end], [42, 352]);
  const y = scaleLinear([0, 100], [116, 6]);
  return (
    <>
      <svg className="comparedChart" viewBox="0 0 360 130" aria-hidden focusable="false">
        {[0, 50, 100].map((v) => (
          <g key={v} className="tick">
            <line x1={42} x2={352} y1={y(v)} y2={y(v)} />
            <text x={38} y={y(v) + 4} textAnchor="end">
              {v} %
            </text>
          </g>
        ))}
        {list.map((c, i) => (
          <path key={c.label} className={`compared ${lines[i]}`} d={line<number>().x((k) => x(c.t[k] as number)).y((k) => y(c.auxSOC[k] as number))(c.t.map((_, k) => k)) ?? ""} />
        ))}
      </svg>
      <div className="tableScroll">
        <table className="comparison">
          <caption className="hidden">What each design came to</caption>
          <thead>
            <tr>
              <td />
              {list.map((c, i) => (
                <th key={c.label} scope="col">
                  <span className={`key ${lines[i]}`} aria-hidden /> {c.label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.label}>
                <th scope="row">{r.label}</th>
                {list.map((c) => (
                  <td key={c.label}>{r.of(c.outcome)}</td>
                ))}
              </tr>
            ))}
            <tr>
              <th scope="row">aims not met</th>
              {list.map((c) => (
                <td key={c.label} className={c.aims.every((a) => a.met) ? "good" : "bad"}>
                  {c.aims.filter((a) => !a.met).map((a) => a.label).join("; ") || "none"}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
    </>
  );
}
