import cx from "clsx";
import { useRef, useState } from "react";

import { Sheet } from "../job/Sheet";
import { Banner } from "../ui/Banner";
import { useAwake } from "../bay/useAwake";
import { useMe } from "../ui/useMe";
import { TextButton } from "../ui/TextButton";
import { Wait, Wrong } from "../ui/Wait";
import { Countersigns, type Awaiting } from "./Countersigns";
import { FirstTrip } from "./FirstTrip";
import { Gates } from "./Gates";
import { One } from "./One";
import { Photographs } from "./Photos";
import css from "./proof.module.css";
import { Signed } from "./Signed";
import { useProof, type AskedReading, type Proven } from "./useProof";

/** ProofSheet is sheet 7: one reading at a time, large; all of them, and the gates, beside it. */
export default function ProofSheet() {
  const proof = useProof();
  const asked = { answer: proof.proven, asking: proof.asking, failed: proof.wrong, again: proof.ask };
  return <Sheet name="proof">{proof.proven ? <Proof proof={proof} proven={proof.proven} /> : <Wait asked={asked} what="Working out what to read" />}</Sheet>;
}

function Proof({ proof, proven }: { proof: ReturnType<typeof useProof>; proven: Proven }) {
  useAwake();
  const me = useMe();
  const [at, setAt] = useState<string | null>(null);
  const top = useRef<HTMLElement>(null);
  const { findings } = proven;
  const main = proven.readings.filter((r) => !r.of);
  const taken = new Map(findings.verdicts.map((v) => [v.id, v]));
  const shown = proven.readings.find((r) => r.id === (at ?? findings.next));
  const done = main.filter((r) => taken.has(r.id)).length;
  const show = (id: string | null) => {
    setAt(id);
    top.current?.scrollIntoView({ block: "start" });
  };
  return (
    <div className={css.sheet}>
      <section className={css.now} aria-label="Reading" ref={top}>
        <p className={css.line} role="status">
          {done} of {main.length} read
          {proof.unsent > 0 ? `, ${proof.unsent} kept on this device until ${proof.others === proof.unsent ? "whoever read is back on it" : "the server answers"}` : proof.failed ? "; the server does not answer" : ""}
        </p>
        {proof.refused.length > 0 && <Wrong>{proof.refused[0]?.problems.map((p) => `${p.field} ${p.value} ${p.wrong}; allowed: ${p.allowed}`).join(". ")}</Wrong>}
        {proven.stops.length > 0 && (
          <Banner role="alert" title="Nothing is read while this stands">
            {proven.stops.join(" ")}
          </Banner>
        )}
        {proven.unsteady && (
          <Banner role="alert" title="With the engine running nothing can be proven">
            It comes to no stand at any speed that is asked for: what the plan says of that is changed first.
          </Banner>
        )}
        {shown && <One key={shown.id} reading={shown} proof={proof} proven={proven} next={findings.next && findings.next !== shown.id ? findings.next : undefined} show={show} stay={() => setAt(shown.id)} />}
        {!shown && proven.readings.length > 0 && <h2>All is read.</h2>}
        {me?.person && (
          <p className="soft">
            Readings stand under {me.person.name}
            {me.waits && ", and wait until somebody countersigns them"}.
          </p>
        )}
      </section>
      <div className={css.beside}>
        <Countersigns list={awaiting(proof, proven)} done={proof.again} />
        <Causes proven={proven} />
        <List proven={proven} here={shown?.id} show={show} />
        <Gates proof={proof} gates={proven.gates} />
        <Photographs photos={proof.photos} may={proven.mayShow} />
        <Signed proof={proof} proven={proven} />
        <FirstTrip proof={proof} />
      </div>
    </div>
  );
}

/** awaiting is what waits for a countersignature, of readings the last of each. */
function awaiting(proof: ReturnType<typeof useProof>, proven: Proven): Awaiting[] {
  const read = new Map(proven.readings.map((r) => [r.id, r.what]));
  const said = new Map(proven.gates.map((g) => [g.id, g.name]));
  const last = new Map(proof.entries.filter((e) => e.kind !== "trip").map((e) => [`${e.kind === "reading" ? "read" : "said"} ${e.subject}`, e]));
  const entries = [...last.values()].filter((e) => e.waits).map((e) => ({ id: e.id, what: (e.kind === "reading" ? read : said).get(e.subject) ?? e.subject, entry: e.entry, by: e.by, at: e.at }));
  const ticks = proof.ticked.filter((t) => t.waits).map((t) => ({ id: t.id, what: `Step “${proven.steps[t.step] ?? t.step}”`, entry: "signed", by: t.by, at: t.at }));
  return [...entries, ...ticks];
}

/** Causes is what of this circuit explains what is out. */
function Causes({ proven }: { proven: Proven }) {
  const { causes } = proven.findings;
  if (causes.length === 0) return null;
  return (
    <section className={css.causes} aria-label="What may be wrong">
      <h2>What explains these readings</h2>
      <ol>
        {causes.map((c) => (
          <li key={c.id}>
            <b className={css.cause}>{[c.says, ...c.or].join("; or ")}</b> <span className="soft">{share(c.share)}</span>
            <br />
            <span className={css.cause}>{c.mend}.</span>
            {c.endangers && <span className={css.danger}> Danger: {c.endangers}.</span>}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** share is how much speaks for a cause, no finer than is known. */
const share = (s: number) => (s > 0.7 ? "most likely" : s > 0.35 ? "likely" : s > 0.15 ? "perhaps" : "hardly");

function List({ proven, here, show }: { proven: Proven; here: string | undefined; show: (id: string) => void }) {
  const taken = new Map(proven.findings.verdicts.map((v) => [v.id, v]));
  const asked = (r: AskedReading) => !r.of || r.id in proven.findings.bands || taken.has(r.id);
  return (
    <nav className={css.list} aria-label="All readings">
      {proven.stations.map((s) => (
        <section key={s.id}>
          <h3>{s.name}</h3>
          <ol>
            {proven.readings
              .filter((r) => r.station === s.id && asked(r))
              .map((r) => {
                const v = taken.get(r.id);
                return (
                  <li key={r.id} className={cx(r.of && css.piece, r.id === here && css.here)}>
                    <TextButton aria-current={r.id === here ? "step" : undefined} onClick={() => show(r.id)}>
                      <span className={css.mark} data-level={v?.level}>
                        {v ? marks[v.level] : "·"}
                      </span>
                      <span>{r.what}</span>
                      <span className={css.figure}>{v ? v.read : <span className="soft">{proven.findings.expects[r.id] ?? r.base}</span>}</span>
                    </TextButton>
                  </li>
                );
              })}
          </ol>
        </section>
      ))}
    </nav>
  );
}

const marks = { likely: "✓", possible: "≈", out: "✕", impossible: "?" };
