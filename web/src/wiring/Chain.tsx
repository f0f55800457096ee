import type { Schemas } from "../api/client";
import { Table, type TableColumn } from "../ui/Table";
import css from "./wiring.module.css";

const over = { good: "", caution: ", at its limit", bad: ", too much" } as const;

const columns: TableColumn<Schemas["Link"]>[] = [
  {
    key: "element",
    head: "Element",
    names: true,
    cell: (l) => (
      <>
        {l.name} {l.weakest && <span className={css.weakest}>weakest</span>}
      </>
    ),
  },
  { key: "carries", head: "Carries", set: "figure", sort: (l) => l.amps, cell: (l) => `${l.amps.toFixed(0)} A` },
  { key: "bears", head: "Bears", set: "figure", sort: (l) => l.bearsA, cell: (l) => `${l.bearsA.toFixed(0)} A` },
  {
    key: "share",
    head: "Share",
    set: "figure",
    className: css.share,
    sort: (l) => l.share,
    cell: (l) => (
      <>
        <span className={css.bar} style={{ width: `${Math.min(100, l.share)}%` }} />
        <span>
          {l.share.toFixed(0)} %{over[l.level]}
        </span>
      </>
    ),
  },
  { key: "why", head: "Why it bears so much", set: "soft", className: css.why, cell: (l) => l.why },
];

const shares: TableColumn<Schemas["BankShare"]>[] = [
  { key: "battery", head: "Battery", names: true, cell: (b) => `battery ${b.battery}` },
  { key: "share", head: "Share", cell: (b) => `${b.share.toFixed(1)} % of the current` },
  { key: "path", head: "Path", cell: (b) => `${b.pathMilliohm.toFixed(2)} mΩ in its path` },
];

/** Chain shows everything in series against the same worst current, the weakest named. */
export function Chain({ links, bank }: { links: Schemas["Link"][]; bank: Schemas["BankShare"][] }) {
  const weakest = links.find((l) => l.weakest);
  return (
    <section aria-label="Chain">
      <h3>What the current passes, from front to back</h3>
      {weakest && (
        <p>
          The weakest: <b>{weakest.name}</b>, at {weakest.share.toFixed(0)} % of what it bears.
        </p>
      )}
      <Table caption="What the current passes" rows={links} columns={columns} keyOf={(l) => l.name} level={(l) => l.level} />
      {bank.length > 0 && (
        <>
          <h3>Each battery of the bank</h3>
          <Table bare caption="Each battery of the bank" rows={bank} columns={shares} keyOf={(b) => String(b.battery)} />
        </>
      )}
    </section>
  );
}
