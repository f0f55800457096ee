import cx from "clsx";
import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

import { api, take, type Field, type Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { Table, type TableColumn } from "../ui/Table";
import { Tick } from "../ui/Tick";
import { useStored } from "../ui/stored";
import { Wrong } from "../ui/Wait";
import type { Level } from "../ui/words";
import { figure } from "../ui/units";
import { byPath, compared } from "./fields";
import css from "./day.module.css";

/** Variant is a design beside the job's own: one field of it set to something else. */
interface Variant {
  path: string;
  value: string;
}

const first = JSON.stringify([{ path: "pins.chargerA", value: "20" }] satisfies Variant[]);

/** useVariants are the designs that were asked for, in this browser until they are changed. */
function useVariants(id: string): [Variant[], (v: Variant[]) => void] {
  const [text, set] = useStored(`compare-${id}`, first);
  return [parsed(text), (v) => set(JSON.stringify(v))];
}

/** parsed are the designs of a text that was kept; what is none is as if nothing was kept. */
function parsed(text: string): Variant[] {
  try {
    return JSON.parse(text) as Variant[];
  } catch {
    return JSON.parse(first) as Variant[];
  }
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
      <ol className={css.variants}>
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
      {run.error && <Wrong>{run.error.message}</Wrong>}
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

/** Line is a thing in which designs differ. */
interface Line {
  label: string;
  of: (c: Schemas["Compared"]) => string;
  level?: (c: Schemas["Compared"]) => Level;
}

const unmet = (c: Schemas["Compared"]) => c.aims.filter((a) => !a.met);

const rows: Line[] = [
  { label: "aux at the end", of: ({ outcome: o }) => `${o.auxEnd.toFixed(0)} %` },
  { label: "aux lowest", of: ({ outcome: o }) => `${o.auxLeast.toFixed(0)} %` },
  { label: "full after", of: ({ outcome: o }) => (o.fullH < 0 ? "never" : `${o.fullH.toFixed(0)} h`) },
  { label: "charged", of: ({ outcome: o }) => `${o.auxInAh.toFixed(0)} Ah` },
  { label: "start lowest", of: ({ outcome: o }) => `${o.startLeast.toFixed(0)} %` },
  { label: "cranks at", of: ({ outcome: o }) => (o.crankV === 0 ? "–" : `${o.crankV.toFixed(1)} V`) },
  { label: "chatter", of: ({ outcome: o }) => String(o.chatter) },
  { label: "alternator", of: ({ outcome: o }) => figure(o.windingC, "°C", 0) },
  { label: "aims not met", of: (c) => unmet(c).map((a) => a.label).join("; ") || "none", level: (c) => (unmet(c).length === 0 ? "good" : "bad") },
];

/** columnsOf is a column to a design. */
const columnsOf = (list: Schemas["Compared"][]): TableColumn<Line>[] => [
  { key: "what", head: "What", quiet: true, names: true, cell: (r) => r.label },
  ...list.map(
    (c, i): TableColumn<Line> => ({
      key: c.label,
      head: (
        <>
          <span className={cx(css.key, css[lines[i] as string])} aria-hidden /> {c.label}
        </>
      ),
      level: (r) => r.level?.(c),
      cell: (r) => r.of(c),
    }),
  ),
];

function Compared({ list }: { list: Schemas["Compared"][] }) {
  const end = Math.max(...list.map((c) => c.t.at(-1) ?? 0));
  const x = scaleLinear([0, end], [42, 352]);
  const y = scaleLinear([0, 100], [116, 6]);
  return (
    <>
      <svg className={css.comparedChart} viewBox="0 0 360 130" aria-hidden focusable="false">
        {[0, 50, 100].map((v) => (
          <Tick key={v} from={42} to={352} at={y(v)} gap={4}>
            {v} %
          </Tick>
        ))}
        {list.map((c, i) => (
          <path key={c.label} className={cx(css.compared, css[lines[i] as string])} d={line<number>().x((k) => x(c.t[k] as number)).y((k) => y(c.auxSOC[k] as number))(c.t.map((_, k) => k)) ?? ""} />
        ))}
      </svg>
      <Table narrow="scroll" caption="What each design came to" className={css.comparison} rows={rows} columns={columnsOf(list)} keyOf={(r) => r.label} />
    </>
  );
}
