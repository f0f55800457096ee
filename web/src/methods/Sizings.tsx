import { Button } from "@mantine/core";

import type { Schemas } from "../api/client";
import type { Value } from "../job/document";
import { useJob } from "../job/JobContext";
import { Standing } from "../ui/Standing";
import { Table, type TableColumn } from "../ui/Table";
import { Working } from "../ui/Working";
import css from "./methods.module.css";

type Sizing = Schemas["Sizing"];

const minus = (a: number): string => String(a).replace("-", "−");

/** Sizings are the ways to choose a charger's size, each against need, alternator, battery and cable. */
export function Sizings({ list }: { list: Sizing[] }) {
  const { dispatch, readOnly, plan } = useJob();
  const take = (s: Sizing) =>
    dispatch({ type: "setAll", values: Object.fromEntries(Object.entries(s.changes).map(([path, value]) => [path, (value ?? undefined) as Value])) });
  const columns: TableColumn<Sizing>[] = [
    {
      key: "charger",
      head: "Charger",
      names: true,
      set: "figure",
      cell: (s) => (
        <>
          {s.label}{" "}
          {s.advised && (
            <Standing inline level="good">
              advised
            </Standing>
          )}{" "}
          {s.now && <Standing inline>fitted</Standing>}
        </>
      ),
    },
    { key: "out", head: "Out", set: "figure", sort: (s) => s.outA, cell: (s) => (s.givesA < s.outA ? `${s.givesA} of ${s.outA} A` : `${s.outA} A`) },
    { key: "in", head: "In at worst", set: "figure", sort: (s) => s.inA, cell: (s) => `${s.inA} A` },
    { key: "share", head: "Of the label", set: "figure", sort: (s) => s.share, cell: (s) => `${s.share} %` },
    { key: "idle", head: "Idle leaves", set: "figure", sort: (s) => s.idleA, level: (s) => (s.idleA < 0 ? "caution" : undefined), cell: (s) => `${minus(s.idleA)} A` },
    { key: "cruise", head: "Cruise leaves", set: "figure", sort: (s) => s.cruiseA, level: (s) => (s.cruiseA < 0 ? "caution" : undefined), cell: (s) => `${minus(s.cruiseA)} A` },
    { key: "run", head: "C1, F1", set: "figure", cell: (s) => `${s.cable}, ${s.fuseA} A` },
    { key: "drop", head: "Drop", set: "figure", sort: (s) => s.dropV, cell: (s) => `${s.dropV.toFixed(2)} V` },
    { key: "back", head: "Puts a cycle back in", set: "figure", sort: (s) => (s.backH > 0 ? s.backH : Infinity), cell: (s) => (s.backH > 0 ? `${s.backH.toFixed(1)} h` : "–") },
    { key: "against", head: "Against it", className: css.against, cell: (s) => <span data-against={s.level}>{s.against.join("; ") || "nothing"}</span> },
    {
      key: "take",
      head: "Take it",
      quiet: true,
      cell: (s) =>
        !readOnly &&
        !s.now && (
          <Button size="compact-sm" variant="default" aria-label={`Take ${s.label}`} onClick={() => take(s)}>
            Take
          </Button>
        ),
    },
  ];
  return (
    <div className={css.scrolls}>
      <Table className={css.sizings} caption="Charger sizes" rows={list} columns={columns} keyOf={(s) => s.label} marked={(s) => s.now} />
      <div className={css.working}>
        {["need", "half", "allowed", "accepts", "idle", "cruise"].flatMap((key) => plan.figures[key] ?? []).map((f) => (
          <Working key={f.name} figure={f} />
        ))}
      </div>
    </div>
  );
}
