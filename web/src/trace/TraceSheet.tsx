import { Button } from "@mantine/core";
import { useEffect, useRef } from "react";

import { useAwake } from "../bay/useAwake";
import { Sheet } from "../job/Sheet";
import { useDates } from "../ui/useDates";
import { useMay } from "../ui/useMe";
import { TextButton } from "../ui/TextButton";
import { Wait, Wrong } from "../ui/Wait";
import { inWords, minutesOf, type Case } from "./cases";
import { Complaint } from "./Complaint";
import { Installed } from "./Installed";
import { Now } from "./Now";
import { Past } from "./Past";
import { Shaded } from "./Shaded";
import { Suspects } from "./Suspects";
import css from "./trace.module.css";
import { Trail } from "./Trail";
import { useTrace, type Traced } from "./useTrace";

/** TraceSheet is sheet 8: from a complaint to what is wrong, one test at a time. */
export default function TraceSheet() {
  const trace = useTrace();
  const asked = { answer: trace.found, asking: trace.asking, failed: trace.wrong, again: trace.again };
  return <Sheet name="trace">{trace.found ? <Trace trace={trace} found={trace.found} /> : <Wait asked={asked} what="Working out what may be wrong" />}</Sheet>;
}

function Trace({ trace, found }: { trace: ReturnType<typeof useTrace>; found: Traced }) {
  useAwake();
  const installs = useMay()("install");
  const { now } = trace;
  const top = useRef<HTMLElement>(null);
  const done = `${now?.id} ${now?.entries.length}`;
  const before = useRef(done);
  useEffect(() => {
    if (before.current !== done) top.current?.scrollIntoView({ block: "start" });
    before.current = done;
  }, [done]);
  return (
    <div className={css.sheet} data-new={!now || undefined}>
      <section className={css.now} aria-label="Test" ref={top}>
        {trace.refused.length > 0 && <Wrong>{trace.refused[0]?.problems.map((p) => `${p.field} ${p.value} ${p.wrong}; allowed: ${p.allowed}`).join(". ")}</Wrong>}
        {!now && (installs ? <Complaint trace={trace} found={found} /> : <p className="soft">Whoever installs begins a case.</p>)}
        {now && !now.closed && <Now key={now.entries.length} trace={trace} found={found} of={now} />}
        {now && !now.closed && <Past trace={trace} found={found} of={now} />}
        {installs && now && <Installed trace={trace} found={found} />}
        {now?.closed && <h2>This case is closed.</h2>}
        {trace.failed && <p className="soft">The server does not answer: what is entered is kept here.</p>}
      </section>
      <div className={css.beside}>
        {installs && !now && <Installed trace={trace} found={found} />}
        {now && <Suspects trace={trace} found={found} of={now} />}
        {now && <Shaded found={found} />}
        {now && <Trail found={found} of={now} />}
        <Cases trace={trace} found={found} />
      </div>
    </div>
  );
}

/** Cases are all complaints of the job. */
function Cases({ trace, found }: { trace: ReturnType<typeof useTrace>; found: Traced }) {
  const dates = useDates();
  const others = trace.cases.filter((c) => c.id !== trace.now?.id).reverse();
  return (
    <section className={css.cases} aria-label="Cases">
      {trace.now && (
        <Button variant="default" onClick={() => trace.pick("new")}>
          Another complaint
        </Button>
      )}
      {others.length > 0 && (
        <>
          <h2>{trace.now ? "Other cases" : "Cases"}</h2>
          <ol>
            {others.map((c) => (
              <li key={c.id}>
                <TextButton onClick={() => trace.pick(c.id)}>
                  {complaintOf(c, found)} <span className="soft">{dates.moment(c.entries[0]?.at ?? "")}, {c.closed ? `closed after ${minutesOf(c)} min` : "open"}</span>
                </TextButton>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}

/** complaintOf is a case's complaints, in words. */
export function complaintOf(of: Case, found: Traced): string {
  const said = of.entries.filter((e) => e.kind === "complaint");
  return said.map((e) => (e.subject === inWords ? e.entry : (found.symptoms.find((s) => s.id === e.subject)?.says ?? e.entry))).join("; ");
}
