import { Button } from "@mantine/core";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { Files } from "../bay/Files";
import { Instrument } from "../bay/Instrument";
import { Keypad } from "../bay/Keypad";
import { Picture } from "../bay/Picture";
import { useMay } from "../ui/useMe";
import { TextButton } from "../ui/TextButton";
import { Waiting } from "../ui/Wait";
import { helped, stayed, well, type Case } from "./cases";
import { complaintOf } from "./TraceSheet";
import { Mend } from "./Suspects";
import css from "./trace.module.css";
import type { Test, Traced, useTrace } from "./useTrace";

interface Props {
  trace: ReturnType<typeof useTrace>;
  found: Traced;
  of: Case;
}

/** Now is the test that tells most for its minutes, and what to do where a look costs less than another test. */
export function Now({ trace, found, of }: Props) {
  const installs = useMay()("install");
  const [chosen, choose] = useState("");
  const first = found.suspects.find((s) => s.id === found.found);
  const act = found.suspects.find((s) => s.id === found.act);
  const place = act && !found.next.some((n) => n.id === chosen) ? found.places.find((p) => act.places.includes(p.id)) : undefined;
  const test = found.next.find((n) => n.id === chosen) ?? found.next[0];
  const others = found.next.filter((n) => n !== test || place);
  const mended = of.entries.findLast((e) => e.kind === "mended");
  return (
    <>
      <p className={css.line} role="status">
        {complaintOf(of, found)}
        {trace.unsent > 0 && `; ${trace.unsent} kept on this device until the server answers`}
      </p>
      {mended && <Mended trace={trace} found={found} />}
      {trace.old ? (
        <Waiting what="Working out what tells most" />
      ) : first ? (
        <article className={css.one}>
          <h2>Mend first: {first.says}</h2>
          <p className={css.where}>{first.mend}.</p>
          <p className="soft">What was found is mended before anything else is measured; then the rest is judged again.</p>
          {installs && <Mend suspect={first} trace={trace} />}
        </article>
      ) : place && act ? (
        <article className={css.one}>
          <h2>Look now: {place.name}</h2>
          <p className={css.where}>{act.look}.</p>
          <p className="soft">Another test would cost more than this look.</p>
          {installs && <Looked key={place.id} trace={trace} found={found} place={place.id} />}
        </article>
      ) : test ? (
        <One key={test.id} test={test} trace={trace} found={found} installs={installs} />
      ) : (
        <h2>No test that is left here tells more.</h2>
      )}
      {others.length > 0 && !trace.old && (
        <section className={css.others} aria-label="Other tests">
          <h3>Or, where that cannot be reached</h3>
          <ul>
            {others.map((n) => (
              <li key={n.id}>
                <TextButton onClick={() => choose(n.id)}>
                  {asked(n)}{" "}
                  <span className="soft">
                    {[found.stations.find((s) => s.id === n.station)?.name.toLowerCase(), `${Math.ceil(n.minutes)} min`].filter(Boolean).join(", ")}
                  </span>
                </TextButton>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function One({ test, trace, found, installs }: { test: Test; trace: Props["trace"]; found: Traced; installs: boolean }) {
  const reading = found.readings.find((r) => r.id === test.id);
  const station = found.stations.find((s) => s.id === test.station);
  const enter = (text: string, device = "") => trace.enter("traced", test.id, text, `${test.what}: ${text}`, device);
  const fromFile = (list: Schemas["Entry"][], name: string) => {
    for (const e of list) trace.enter("traced", e.reading, e.text, `${found.readings.find((r) => r.id === e.reading)?.what ?? e.reading}: ${e.text}`, name);
  };
  return (
    <article className={css.one}>
      {station && (
        <p className={css.setup}>
          <b>{station.name}.</b> {station.setup.join(" · ")}
        </p>
      )}
      <h2>{asked(test)}</h2>
      {reading && <Picture picture={reading.picture} says={reading.where} />}
      <p className={css.where}>
        {test.where}. <span className="soft">{test.range && `${test.range}. `}About {Math.ceil(test.minutes)} min.</span>
      </p>
      {test.live && <p className={css.live}>{test.live}.</p>}
      {installs && reading && <Keypad job={trace.id} reading={reading} enter={enter} />}
      {installs && reading && <Instrument reading={reading.id} found={trace.asFound} enter={enter} />}
      {installs && reading && <Files id={trace.id} reading={reading.id} traced={{ found: trace.asFound }} enter={fromFile} />}
      {installs && test.look && !test.places && <Looked key={test.id} trace={trace} found={found} place={test.id} />}
      {installs && test.places && <Warmest trace={trace} found={found} test={test} places={test.places} />}
      {installs && test.swap && <Swapped trace={trace} test={test} />}
      {test.means.length > 0 && (
        <dl className={css.means} aria-label="What it would mean">
          {test.means.map((m) => (
            <div key={m.says}>
              <dt>{m.says}</dt>
              <dd>{m.points.length > 0 ? m.points.join("; or ") : "tells little by itself"}</dd>
            </div>
          ))}
        </dl>
      )}
    </article>
  );
}

/** asked is what a test asks, in a few words. */
const asked = (n: Test) => (n.look ? `Look at ${n.what}` : n.swap ? `Try another ${n.what}` : n.again ? `Once more, as it may have been a slip: ${n.what}` : n.what);

/** Swapped is what came of another part in a part's place. */
function Swapped({ trace, test }: { trace: Props["trace"]; test: Test }) {
  const enter = (came: string, says: string) => trace.enter("swapped", test.id, came, `Another ${test.what}: ${says}`);
  return (
    <div className={css.acts}>
      <Button size="lg" onClick={() => enter(helped, "the complaint was gone")}>
        The complaint is gone
      </Button>
      <Button size="lg" variant="default" onClick={() => enter(stayed, "no change")}>
        No change
      </Button>
    </div>
  );
}

/** Looked is what came of a look: all well, or one of what may be wrong there. */
function Looked({ trace, found, place }: { trace: Props["trace"]; found: Traced; place: string }) {
  const at = found.places.find((p) => p.id === place);
  const [open, setOpen] = useState(false);
  if (!at) return null;
  return (
    <>
      <div className={css.acts}>
        <Button size="lg" variant="default" onClick={() => trace.enter("looked", place, well, `${at.name}: all well`)}>
          All is well there
        </Button>
        <Button size="lg" aria-expanded={open} onClick={() => setOpen(!open)}>
          Something is wrong
        </Button>
      </div>
      {open && (
        <ul className={css.said}>
          {at.faults.map((f) => (
            <li key={f.id}>
              <button type="button" onClick={() => trace.enter("looked", place, f.id, `${at.name}: ${f.says}`)}>
                {f.says}
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Warmest is which of several places was the warmest. */
function Warmest({ trace, found, test, places }: { trace: Props["trace"]; found: Traced; test: Test; places: string[] }) {
  const enter = (came: string, says: string) => trace.enter("looked", test.id, came, `The warmest: ${says}`);
  return (
    <ul className={css.said} aria-label="The warmest">
      {places.map((id) => {
        const name = found.places.find((p) => p.id === id)?.name ?? id;
        return (
          <li key={id}>
            <button type="button" onClick={() => enter(id, name)}>
              {name}
            </button>
          </li>
        );
      })}
      <li>
        <button type="button" onClick={() => enter(well, "none is warm")}>
          None is warm
        </button>
      </li>
    </ul>
  );
}

/** Mended is what proves a mend, and the end of a case. */
function Mended({ trace, found }: { trace: Props["trace"]; found: Traced }) {
  const last = trace.now?.entries.findLast((e) => e.kind === "mended");
  const proves = (last?.entry ?? "").split(" ").filter((id) => found.readings.some((r) => r.id === id));
  return (
    <section className={css.mended} aria-label="Mended">
      <p>
        Mended. {proves.length > 0 ? "What proves it:" : "What was complained of is tried again."} An old vehicle may have more than one fault: what was read before the mend counts with it.
      </p>
      <ul>
        {proves.map((id) => (
          <li key={id}>{found.readings.find((r) => r.id === id)?.what}</li>
        ))}
      </ul>
      <div className={css.acts}>
        <Button size="lg" component={Link} to={`/jobs/${trace.id}/proof`}>
          To the proof
        </Button>
        <Button size="lg" variant="default" onClick={() => trace.enter("closed", "case", "closed", "Case closed")}>
          Close the case
        </Button>
      </div>
    </section>
  );
}
