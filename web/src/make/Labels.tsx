import { NativeSelect, NumberInput } from "@mantine/core";
import { useParams } from "@tanstack/react-router";
import { useState } from "react";

import type { paths } from "../api/schema.gen";
import { useStored } from "../ui/stored";
import css from "./make.module.css";

type Asked = NonNullable<paths["/api/jobs/{id}/labels.pdf"]["get"]["parameters"]["query"]>;

const kinds: Record<NonNullable<Asked["of"]>, string> = { wires: "wire numbers, for both ends of every cable", fuses: "fuses, with their ratings", owner: "the owner's card" };
const stocks: Record<NonNullable<Asked["stock"]>, string> = {
  "a4-65": "A4, 65 of 38.1 × 21.2 mm",
  "a4-24": "A4, 24 of 70 × 37 mm",
  "a4-21": "A4, 21 of 63.5 × 38.1 mm",
  "a4-8": "A4, 8 of 99.1 × 67.7 mm",
  "letter-80": "Letter, 80 of 1 3/4 × 1/2 in",
  "letter-30": "Letter, 30 of 2 5/8 × 1 in",
  "letter-10": "Letter, 10 of 4 × 2 in",
  "tape-9": "tape, 9 mm, a page to a label",
  "tape-12": "tape, 12 mm, a page to a label",
  "tape-24": "tape, 24 mm, a page to a label",
};
const options = (of: Record<string, string>) => Object.entries(of).map(([value, label]) => ({ value, label }));

/** Labels are printed from here: wire numbers, fuses, the owner's card, on common label stock. */
export function Labels() {
  const { id = "" } = useParams({ strict: false });
  const [of, setOf] = useState("wires");
  const [stock, setStock] = useStored("epitrope:label-stock", "a4-65");
  const [from, setFrom] = useState(1);
  return (
    <section aria-label="Labels">
      <h2>Labels</h2>
      <p className="soft">Print at full size, without fitting to the page. Hold a print on plain paper against the stock first.</p>
      <div className={css.labels}>
        <NativeSelect label="What for" data={options(kinds)} value={of} onChange={(e) => setOf(e.currentTarget.value)} />
        <NativeSelect label="Label stock" data-sold data={options(stocks)} value={stock} onChange={(e) => setStock(e.currentTarget.value)} />
        <NumberInput label="First free label" min={1} max={80} value={from} onChange={(v) => setFrom(Math.min(80, Math.max(1, Number(v) || 1)))} />
        <a href={`/api/jobs/${id}/labels.pdf?of=${of}&stock=${stock}&from=${from}`} target="_blank" rel="noreferrer">
          Labels as PDF, of the job as it is saved
        </a>
      </div>
    </section>
  );
}
