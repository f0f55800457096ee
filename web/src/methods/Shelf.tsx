import { Button } from "@mantine/core";
import { Link } from "@tanstack/react-router";

import type { Schemas } from "../api/client";
import type { Value } from "../job/document";
import { useJob } from "../job/JobContext";
import { Standing } from "../ui/Standing";
import { Table, type TableColumn } from "../ui/Table";
import { Empty, Wait } from "../ui/Wait";
import css from "./methods.module.css";
import { useShelf } from "./useJudged";

type Shelved = Schemas["Shelved"];
type Offered = Schemas["Offered"];

const fits = { good: "fits", open: "card leaves it open", caution: "with caution", bad: "does not fit" } as const;

/** Shelf is the workshop's own chargers, relays and batteries on this job: which fit, why not, what their cards leave unsaid, price and stock. */
export function Shelf() {
  const asked = useShelf();
  const { dispatch, readOnly } = useJob();
  if (!asked.answer) return <Wait asked={asked} what="Holding the parts book against this job" />;
  const { chargers, others, left } = asked.answer;
  if (chargers.length + others.length === 0)
    return (
      <Empty>
        There is no charger, relay or battery in the <Link to="/parts">parts book</Link> yet.
      </Empty>
    );
  const take = (name: string, changes: Record<string, unknown>) => (
    <Button size="compact-sm" variant="default" aria-label={`Take ${name}`} onClick={() => dispatch({ type: "setAll", values: Object.fromEntries(Object.entries(changes).map(([path, value]) => [path, (value ?? undefined) as Value])) })}>
      Take
    </Button>
  );
  const taking = (name: string, level: keyof typeof fits, now: boolean, changes: Record<string, unknown>) => !readOnly && level !== "bad" && (now ? <Standing inline>fitted</Standing> : take(name, changes));
  const price = (item: Shelved["item"]) => (item.price === undefined ? "not in the book" : `${item.price.toFixed(2)} ${item.currency}`);
  const columns: TableColumn<Shelved>[] = [
    { key: "charger", head: "Charger", names: true, cell: (s) => s.item.name },
    { key: "fits", head: "On this job", level: (s) => (s.sizing.level === "open" ? undefined : s.sizing.level), cell: (s) => fits[s.sizing.level] },
    {
      key: "out",
      head: "Out",
      set: "figure",
      sort: (s) => s.item.ratingA ?? 0,
      cell: (s) => (s.sizing.givesA > 0 && s.sizing.givesA < s.sizing.outA ? `${s.sizing.givesA} of ${s.sizing.outA} A` : `${s.item.ratingA} A`),
    },
    { key: "sees", head: "Input at worst", set: "figure", sort: (s) => s.seesV, cell: (s) => (s.seesV > 0 ? `${s.seesV.toFixed(2)} V` : "none") },
    { key: "against", head: "Against it", className: css.against, cell: (s) => <Lines list={s.sizing.against} none="nothing" /> },
    { key: "unsaid", head: "The card does not say", className: css.against, cell: (s) => <Lines list={s.unsaid} none="nothing" /> },
    { key: "price", head: "Price", set: "figure", sort: (s) => s.item.price ?? Infinity, cell: (s) => price(s.item) },
    { key: "comes", head: "At hand", cell: (s) => s.comes || "not counted" },
    { key: "take", head: "Take it", quiet: true, cell: (s) => taking(s.item.name, s.sizing.level, s.sizing.now, s.sizing.changes) },
  ];
  const rest: TableColumn<Offered>[] = [
    { key: "part", head: "Part", names: true, cell: (o) => o.item.name },
    { key: "kind", head: "Is a", sort: (o) => o.item.kind, cell: (o) => o.item.kind },
    { key: "fits", head: "On this job", level: (o) => (o.level === "open" ? undefined : o.level), cell: (o) => fits[o.level] },
    { key: "does", head: "What it does", set: "figure", cell: (o) => o.does || "–" },
    { key: "against", head: "Against it", className: css.against, cell: (o) => <Lines list={o.against} none="nothing" /> },
    { key: "unsaid", head: "Not known", className: css.against, cell: (o) => <Lines list={o.unsaid} none="nothing" /> },
    { key: "price", head: "Price", set: "figure", sort: (o) => o.item.price ?? Infinity, cell: (o) => price(o.item) },
    { key: "comes", head: "At hand", cell: (o) => o.comes || "not counted" },
    { key: "take", head: "Take it", quiet: true, cell: (o) => taking(o.item.name, o.level, o.now, o.changes) },
  ];
  return (
    <div className={css.scrolls}>
      {chargers.length > 0 && <Table className={css.sizings} caption="Chargers of the parts book" rows={chargers} columns={columns} keyOf={(s) => s.key} marked={(s) => s.sizing.now} />}
      {others.length > 0 && <Table className={css.sizings} caption="Relays, contactors, breakers and batteries of the parts book" rows={others} columns={rest} keyOf={(o) => o.key} marked={(o) => o.now} />}
      {left > 0 && <p className="soft">{left} more parts of the book were not looked at: there are too many.</p>}
    </div>
  );
}

/** first are the reasons that are read at a glance. */
const first = 2;

/** Lines are reasons, one a line, those past the first behind a word. */
function Lines({ list, none }: { list: string[]; none: string }) {
  if (list.length === 0) return none;
  const line = (text: string) => (
    <li key={text}>
      {text.charAt(0).toUpperCase()}
      {text.slice(1)}
    </li>
  );
  return (
    <>
      <ul className={css.lines}>{list.slice(0, first).map(line)}</ul>
      {list.length > first && (
        <details>
          <summary>{list.length - first} more</summary>
          <ul className={css.lines}>{list.slice(first).map(line)}</ul>
        </details>
      )}
    </>
  );
}
