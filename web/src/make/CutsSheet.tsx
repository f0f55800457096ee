import { useParams } from "@tanstack/react-router";
import type { ReactNode } from "react";

import type { Schemas } from "../api/client";
import { Fields } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { litBy } from "../job/picking";
import { Sheet } from "../job/Sheet";
import { Table, type TableColumn } from "../ui/Table";
import { Wait } from "../ui/Wait";
import { counted, figure } from "../ui/units";
import { Labels } from "./Labels";
import css from "./make.module.css";
import { Thing } from "./Thing";
import { useMade } from "./useMade";

type Wire = Schemas["Made"]["wires"][number];

const colours = ["colours.feed", "colours.return", "colours.signal", "colours.house"];

/** CutsSheet is sheet 5: every wire with its ends, how it is cut, and what has to be in hand. */
export default function CutsSheet() {
  const asked = useMade();
  return <Sheet name="cuts and parts">{asked.answer ? <Lists made={asked.answer} /> : <Wait asked={asked} what="Making the lists" />}</Sheet>;
}

function Lists({ made }: { made: Schemas["Made"] }) {
  const job = useJob();
  const { id = "" } = useParams({ strict: false });
  const { wires, cuts, parts } = made;
  const lit = litBy(job.plan, job.thing);
  return (
    <div className={css.sheet}>
      <section aria-label="Wires">
        <h2>Wires</h2>
        <p className="row">
          <a href={`/api/jobs/${id}/wires.csv`}>As a file, as it is saved</a>
        </p>
        <details>
          <summary>Colours of this job</summary>
          <Fields paths={colours} />
        </details>
        <Table caption="Wires" className={css.list} rows={wires} columns={wireColumns} keyOf={(w) => w.id} marked={(w) => lit.has(w.id)} />
      </section>
      <Labels />
      <section aria-label="Cuts">
        <h2>Cuts</h2>
        <p className="row">
          <a href={`/api/jobs/${id}/cuts.csv`}>As a file</a>
          <span className="soft">From what the parts book says is there, so that least is bought and least is left in short ends.</span>
        </p>
        <ul className={css.bars}>
          {cuts.map((c, i) => (
            <li key={i}>
              <b>
                {c.from || `new cable, ${c.size} ${c.colour}`}, {figure(c.lengthM, "m", 2)}
              </b>
              <span className={css.bar}>
                {c.cuts.map((f, k) => (
                  <span key={k} style={{ flexGrow: f.lengthM }} title={`${f.wire} ${figure(f.lengthM, "m", 2)}`}>
                    {f.wire} <i>{figure(f.lengthM, "m", 2).replace(/ m$/, "")}</i>
                  </span>
                ))}
                {c.from && (
                  <span className={css.left} style={{ flexGrow: Math.min(c.leftM, 4) }}>
                    left {figure(c.leftM, "m", 2)}
                  </span>
                )}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <Parts list={parts} id={id} lit={lit} />
    </div>
  );
}

/** End is where a wire goes, and what is on it there. */
function End({ end }: { end: Schemas["End"] }) {
  return (
    <Two first={`${end.name} ${end.terminal}`} then={end.lug} />
  );
}

/** Two are a thing and what is said of it beneath. */
function Two({ first, then }: { first: ReactNode; then: string }) {
  return (
    <>
      {first}
      <span className={css.beneath}>{then}</span>
    </>
  );
}

const wireColumns: TableColumn<Wire>[] = [
  { key: "wire", head: "Wire", names: true, sort: (w) => w.number, cell: (w) => <Thing id={w.id} name={w.number} /> },
  { key: "from", head: "From, with its end", cell: (w) => <End end={w.from} /> },
  { key: "to", head: "To, with its end", cell: (w) => <End end={w.to} /> },
  { key: "cable", head: "Cable", sort: (w) => w.size, cell: (w) => <Two first={w.size} then={w.colour} /> },
  { key: "cut", head: "Cut", set: "figure", sort: (w) => w.cutM, cell: (w) => <Two first={figure(w.cutM, "m", 2)} then={`route ${figure(w.routeM, "m", 2)}`} /> },
  {
    key: "over",
    head: "Over the end",
    cell: (w) => [`shrink ${figure(w.sleeveMM, "mm", 0)}`, w.conduitMM > 0 && `conduit ${figure(w.conduitMM, "mm", 0)}`, w.holeMM > 0 && `hole ${figure(w.holeMM, "mm", 0)}`].filter((t) => t !== false).map((t) => <div key={t}>{t}</div>),
  },
];

const money = (v: number, currency: string) => `${v.toFixed(2)} ${currency}`;

const partColumns: TableColumn<Schemas["List"]["lines"][number]>[] = [
  {
    key: "what",
    head: "What",
    names: true,
    sort: (l) => l.what,
    cell: (l) => (
      <>
        {l.what}
        {l.part && l.part !== l.what && <span className="soft"> {l.part}</span>}
      </>
    ),
  },
  { key: "count", head: "How many", set: "figure", cell: (l) => counted(l.count, l.unit) },
  {
    key: "for",
    head: "For",
    set: "soft",
    className: css.things,
    cell: (l) =>
      l.for.split(", ").map((name, i) => {
        const of = l.of[i];
        return of && <Thing key={of} id={of} name={name} />;
      }),
  },
  {
    key: "price",
    head: "Price",
    sort: (l) => l.sum ?? 0,
    cell: (l) => (
      <>
        {l.sum !== undefined && money(l.sum, l.currency ?? "")} {l.pricedOn && <span className="soft">{l.pricedOn}</span>}
      </>
    ),
  },
  {
    key: "there",
    head: "There",
    cell: (l) => (
      <>
        {l.stock !== undefined && l.stock} {l.countedOn && <span className="soft">{l.countedOn}</span>}
      </>
    ),
  },
  { key: "order", head: "Order", sort: (l) => l.order, cell: (l) => (l.inKit ? <span className="soft">in the kit: check it</span> : l.order > 0 && <b className={css.order}>{l.order}</b>) },
];

function Parts({ list, id, lit }: { list: Schemas["List"]; id: string; lit: Set<string> }) {
  return (
    <section aria-label="Parts">
      <h2>Parts</h2>
      <p className="row">
        <a href={`/api/jobs/${id}/parts.csv`}>As a file</a>
        {list.sums.map((s) => (
          <b key={s.currency}>{money(s.sum, s.currency)}</b>
        ))}
        <span className="soft">
          {list.unpriced} of {list.lines.length} lines have no price in the parts book.
        </span>
      </p>
      {list.kits.map((k) => (
        <p key={k.name} className={css.kit}>
          <b>{k.name}</b>, a kit: {money(k.price, k.currency)} <span className="soft">{k.pricedOn}</span>. {k.says}
        </p>
      ))}
      <Table caption="Parts" className={css.list} rows={list.lines} columns={partColumns} keyOf={(l) => l.kind + l.what} marked={(l) => l.of.some((of) => lit.has(of))} />
      <div className={css.tools}>
        <div>
          <h3>Tools</h3>
          <ul>
            {list.tools.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </div>
        <div>
          <h3>Consumables</h3>
          <ul>
            {list.supplies.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </div>
      </div>
    </section>
  );
}
