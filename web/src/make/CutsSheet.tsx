import { useParams } from "@tanstack/react-router";

import type { Schemas } from "../api/client";
import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import { litBy } from "../job/picking";
import { Wait } from "../ui/Wait";
import { useMade } from "./useMade";

/** CutsSheet is sheet 5: every wire with its ends, how it is cut, and what has to be in hand. */
export function CutsSheet() {
  const job = useJob();
  const asked = useMade();
  const { id = "" } = useParams({ strict: false });
  if (!asked.answer) return <Wait asked={asked} what="Making the lists" />;
  const { wires, cuts, parts } = asked.answer;
  const lit = litBy(job.plan, job.thing);
  return (
    <div className="cutsSheet">
      <section aria-label="Wires" tabIndex={0}>
        <h2>Wires</h2>
        <p className="row">
          <a href={`/api/jobs/${id}/wires.csv`}>As a file, as it is saved</a>
        </p>
        <details>
          <summary>The workshop&apos;s colours</summary>
          <div className="surveyFields">
            {["colours.feed", "colours.return", "colours.signal", "colours.house"].flatMap((p) => fieldOf(job, p) ?? []).map((f) => (
              <FieldInput key={f.path} field={f} />
            ))}
          </div>
        </details>
        <table>
          <thead>
            <tr>
              <th scope="col">Wire</th>
              <th scope="col">From, with its end</th>
              <th scope="col">To, with its end</th>
              <th scope="col">Cable</th>
              <th scope="col">Cut</th>
              <th scope="col">Over it</th>
            </tr>
          </thead>
          <tbody>
            {wires.map((w) => (
              <tr key={w.id} className={lit.has(w.id) ? "fitted" : ""}>
                <th scope="row">
                  <Thing id={w.id} name={w.number} />
                </th>
                <End end={w.from} />
                <End end={w.to} />
                <td>
                  {w.size}
                  <br />
                  <span className="soft">{w.colour}</span>
                </td>
                <td>
                  {w.cutM.toFixed(2)} m
                  <br />
                  <span className="soft">route {w.routeM.toFixed(2)} m</span>
                </td>
                <td>
                  shrink {w.sleeveMM} mm
                  {w.conduitMM > 0 && (
                    <>
                      <br />
                      conduit {w.conduitMM} mm
                    </>
                  )}
                  {w.holeMM > 0 && (
                    <>
                      <br />
                      hole {w.holeMM} mm
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section aria-label="Cuts">
        <h2>Cuts</h2>
        <p className="row">
          <a href={`/api/jobs/${id}/cuts.csv`}>As a file</a>
          <span className="soft">From what the parts book says is there, so that least is bought and least is left in short ends.</span>
        </p>
        <ul className="cutBars">
          {cuts.map((c, i) => (
            <li key={i}>
              <b>
                {c.from || `new cable, ${c.size} ${c.colour}`}, {c.lengthM.toFixed(2)} m
              </b>
              <span className="cutBar">
                {c.cuts.map((f, k) => (
                  <span key={k} style={{ flexGrow: f.lengthM }} title={`${f.wire} ${f.lengthM.toFixed(2)} m`}>
                    {f.wire} <i>{f.lengthM.toFixed(2)}</i>
                  </span>
                ))}
                {c.from && (
                  <span className="left" style={{ flexGrow: Math.min(c.leftM, 4) }}>
                    left {c.leftM.toFixed(2)} m
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

/** Thing is a part or wire by its name, which picks it everywhere. */
function Thing({ id, name }: { id: string; name: string }) {
  const { thing, pick } = useJob();
  return (
    <button type="button" className="plainButton" aria-pressed={thing === id} onClick={() => pick(thing === id ? null : id)}>
      {name}
    </button>
  );
}

function End({ end }: { end: Schemas["End"] }) {
  return (
    <td>
      {end.name} {end.terminal}
      <br />
      <span className="soft">{end.lug}</span>
    </td>
  );
}

const money = (v: number, currency: string) => `${v.toFixed(2)} ${currency}`;

function Parts({ list, id, lit }: { list: Schemas["List"]; id: string; lit: Set<string> }) {
  return (
    <section aria-label="Parts" tabIndex={0}>
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
        <p key={k.name} className="kit">
          <b>{k.name}</b>, a kit: {money(k.price, k.currency)} <span className="soft">{k.pricedOn}</span>. {k.says}
        </p>
      ))}
      <table>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">How many</th>
            <th scope="col">For</th>
            <th scope="col">Price</th>
            <th scope="col">There</th>
            <th scope="col">Order</th>
          </tr>
        </thead>
        <tbody>
          {list.lines.map((l) => (
            <tr key={l.kind + l.what} className={l.of.some((of) => lit.has(of)) ? "fitted" : ""}>
              <th scope="row">
                {l.what}
                {l.part && l.part !== l.what && <span className="soft"> {l.part}</span>}
              </th>
              <td>
                {l.count} {l.unit}
              </td>
              <td className="soft things">
                {l.for.split(", ").map((name, i) => {
                  const of = l.of[i];
                  return of && <Thing key={of} id={of} name={name} />;
                })}
              </td>
              <td>
                {l.sum !== undefined && money(l.sum, l.currency ?? "")} {l.pricedOn && <span className="soft">{l.pricedOn}</span>}
              </td>
              <td>
                {l.stock !== undefined && l.stock} {l.countedOn && <span className="soft">{l.countedOn}</span>}
              </td>
              <td>{l.inKit ? <span className="soft">in the kit: check it</span> : l.order > 0 && <b className="order">{l.order}</b>}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="toolLists">
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
