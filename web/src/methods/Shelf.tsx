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

const fits = { good: "fits", open: "card leaves it open", caution: "with caution", bad: "does not fit" } as const;

/** Shelf is the workshop's own chargers on this job: which fit, why not, what their cards leave unsaid, price and stock. */
export function Shelf() {
  const asked = useShelf();
  const { dispatch, readOnly } = useJob();
  if (!asked.answer) return <Wait asked={asked} what="Holding the parts book against this job" />;
  const { chargers, left } = asked.answer;
  if (chargers.length === 0)
    return (
      <Empty>
        There is no charger in the <Link to="/parts">parts book</Link> yet.
      </Empty>
    );
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
    { key: "against", head: "Against it", className: css.against, cell: (s) => s.sizing.against.join("; ") || "nothing" },
    { key: "unsaid", head: "Its card does not say", className: css.against, cell: (s) => s.unsaid.join("; ") || "all is said" },
    { key: "price", head: "Price", set: "figure", sort: (s) => s.item.price ?? Infinity, cell: (s) => (s.item.price === undefined ? "not in the book" : `${s.item.price.toFixed(2)} ${s.item.currency}`) },
    { key: "comes", head: "At hand", cell: (s) => s.comes || "not counted" },
    {
      key: "take",
      head: "Take it",
      quiet: true,
      cell: (s) =>
        !readOnly &&
        s.sizing.level !== "bad" &&
        (s.sizing.now ? (
          <Standing inline>fitted</Standing>
        ) : (
          <Button size="compact-sm" variant="default" aria-label={`Take ${s.item.name}`} onClick={() => dispatch({ type: "setAll", values: Object.fromEntries(Object.entries(s.sizing.changes).map(([path, value]) => [path, (value ?? undefined) as Value])) })}>
            Take
          </Button>
        )),
    },
  ];
  return (
    <div className={css.scrolls}>
      <Table className={css.sizings} caption="Chargers of the parts book" rows={chargers} columns={columns} keyOf={(s) => s.key} marked={(s) => s.sizing.now} />
      {left > 0 && <p className="soft">{left} more chargers of the book were not looked at: there are too many.</p>}
    </div>
  );
}
