import { Table, type TableColumn } from "../ui/Table";
import { Working } from "../ui/Working";
import { counted } from "../ui/units";
import { stages } from "../ui/stages";
import { Stands } from "./Compared";
import css from "./methods.module.css";
import { PinButton } from "./PinButton";
import type { Method } from "./useJudged";

const words = { "rules out": "rules it out", warns: "warns", favours: "speaks for it" } as const;
const order = ["rules out", "warns", "favours"];

type BillLine = Method["bill"]["lines"][number];

/** sumOf is the last line of the bill. */
const sumOf = (m: Method): BillLine => ({ what: "of a 30 A charger's price", count: 0, unit: "", cost: m.bill.cost });

const bill: TableColumn<BillLine>[] = [
  { key: "what", head: "What", names: true, cell: (l) => l.what },
  { key: "count", head: "How many", set: "right", cell: (l) => (l.count > 0 ? counted(l.count, l.unit) : "") },
  { key: "cost", head: "Cost", set: "right", cell: (l) => (l.cost > 0 ? `${l.cost} %` : "") },
];

const work: TableColumn<Method["work"]["stages"][number]>[] = [
  { key: "stage", head: "Stage", names: true, cell: (s) => stages[s.stage] },
  { key: "hours", head: "Hours", set: "right", cell: (s) => `${s.hours} h` },
];

/** Reasons says why a coupling stands where it stands, what would change that, and what it does when its signal fails. */
export function Reasons({ method: m }: { method: Method }) {
  const d = m.driven;
  const reasons = [...m.method.reasons].sort((a, b) => order.indexOf(a.effect) - order.indexOf(b.effect));
  return (
    <div className={css.reasons}>
      <div className="row">
        <h3 className="wideOnly">{m.method.label}</h3>
        <span className="wideOnly">
          <Stands method={m} inline />
        </span>
        <span className="gap wideOnly" />
        <PinButton method={m} />
      </div>
      <section aria-label="Reasons">
        <h4>By the rules</h4>
        <ul>
          {reasons.map((r) => (
            <li key={r.id} data-effect={r.effect}>
              <b>{words[r.effect]}</b> {r.text} {r.unless && <i>Unless: {r.unless}</i>} <span className="soft">{r.id}, {r.mark}</span>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="What it comes to">
        <h4>As it would run</h4>
        <ul>
          <li>
            <b>early in bulk</b> {m.early.fails || m.early.says}
          </li>
          <li>
            <b>idle</b> {m.idle.fails || m.idle.says}
          </li>
          {d?.stopped && (
            <li data-effect="warns">
              <b>not run to its end</b> {d.stopped}
            </li>
          )}
          {d && (
            <>
              <li>
                <b>signal dead</b> {d.fails.dead}.
              </li>
              <li>
                <b>left live</b> {d.fails.live}.
              </li>
            </>
          )}
          {!d && <li className="soft">{m.notDriven ? "Through time: the server does not answer." : "Through time: running …"}</li>}
          {m.worst && (
            <li data-effect={m.severity === "stop" ? "rules out" : "warns"}>
              <b>weakest point</b> {m.worst}
            </li>
          )}
          {[false, true].map((met) => {
            const aims = d?.aims.filter((a) => a.met === met) ?? [];
            return (
              aims.length > 0 && (
                <li key={String(met)} data-effect={met ? "favours" : "warns"}>
                  <b>{met ? "met" : "not met"}</b> {aims.map((a) => a.label).join("; ")}
                </li>
              )
            );
          })}
        </ul>
      </section>
      <section aria-label="Cost and work">
        <h4>Cost and work</h4>
        <p>
          {m.work.hours.toFixed(1)} h of work, by its steps, from the first panel off to the handover; {(m.bill.cost / 100).toFixed(1)} times what a 30 A charger costs <span className="soft">(both from memory)</span>.{m.priced && ` By the parts book: ${m.priced.text}.`}
        </p>
        <details>
          <summary>What that is made of, and the working</summary>
          <Table bare className={css.bill} caption="Cost" rows={[...m.bill.lines, sumOf(m)]} columns={bill} keyOf={(l) => l.what} />
          <Table bare className={css.bill} caption="Work" rows={m.work.stages} columns={work} keyOf={(s) => s.stage} />
          {m.figures.map((f) => (
            <Working key={f.name + f.formula} figure={f} />
          ))}
        </details>
      </section>
    </div>
  );
}
