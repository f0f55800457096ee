import { Button } from "@mantine/core";
import cx from "clsx";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { useDates } from "../ui/useDates";
import { Talk } from "../talk/Talk";
import { roleWords, useMay, useMe } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import { Files } from "../bay/Files";
import { Instrument } from "../bay/Instrument";
import { Keypad } from "../bay/Keypad";
import { Picture } from "../bay/Picture";
import css from "./proof.module.css";
import { Scale } from "./Scale";
import type { AskedReading, Proven, useProof } from "./useProof";

interface Props {
  reading: AskedReading;
  proof: ReturnType<typeof useProof>;
  proven: Proven;
  next: string | undefined;
  show: (id: string | null) => void;
  /** It stays in view when it is entered, for its verdict. */
  stay: () => void;
}

const words = { likely: "As expected", possible: "Just out: take it again", out: "Out", impossible: "That cannot be: the meter, or the entry" };

/** One is one reading, for a phone in one hand: where the probes go, what is expected, what it means. */
export function One({ reading: r, proof, proven, next, show, stay }: Props) {
  const dates = useDates();
  const installs = useMay()("install");
  const [again, setAgain] = useState(false);
  const station = proven.stations.find((s) => s.id === r.station);
  const entered = proof.entries.findLast((e) => e.kind === "reading" && e.subject === r.id);
  const verdict = proven.findings.verdicts.find((v) => v.id === r.id);
  const wrong = proven.wrong.findLast((w) => w.field === r.id && w.value === entered?.entry);
  const band = verdict?.band ?? proven.findings.bands[r.id];
  const expect = verdict?.expect ?? proven.findings.expects[r.id] ?? r.base;
  const open = again || !entered || wrong !== undefined;
  const state = station ? [station.name, ...station.setup].join("; ").slice(0, 300) : "";
  const enter = (text: string, device = "") => {
    proof.enter("reading", r.id, text, { state, ...(device ? { with: device.slice(0, 120) } : {}) });
    setAgain(false);
    stay();
  };
  return (
    <article className={css.one}>
      {station && (
        <p className={css.setup}>
          <b>{station.name}.</b> {station.setup.join(" · ")}
        </p>
      )}
      <h2>{r.what}</h2>
      {r.unit !== "seen" && r.unit !== "K" && <Picture picture={r.picture} says={r.where} />}
      <p className={css.where}>
        {r.where}
        {r.range && <span className="soft"> {r.unit === "K" || r.unit === "A" ? `(${r.range})` : `Meter at ${r.range}.`}</span>}
      </p>
      {r.untested && <p className="soft">Nobody has tested this point so: this reading is its test. What is expected is what it has to be.</p>}
      {band && r.unit !== "seen" && <Scale band={band} value={verdict && !verdict.jumps ? verdict.value : undefined} expect={expect} level={verdict?.level} />}
      {open ? (
        <Entering reading={r} enter={enter} document={proof} />
      ) : (
        <>
          <p className={css.read}>
            {verdict ? verdict.read : entered?.entry}
            {entered && (
              <small className="soft">
                {entered.by}, {dates.moment(entered.at)}
                {entered.with && `, ${entered.with}`}
                {entered.countersigned && `, countersigned by ${entered.countersigned}`}
                {entered.waits && ", waits for a countersignature"}
              </small>
            )}
          </p>
          {!verdict && <p className="soft" role="status">{proof.asking || proof.wrong === null ? "Holding it against the circuit …" : "Kept on this device. What it means is said when the server answers."}</p>}
        </>
      )}
      {wrong && open && entered && (
        <Wrong>
          {wrong.value} {wrong.wrong} Allowed: {wrong.allowed}.
        </Wrong>
      )}
      {verdict && !open && <Means verdict={verdict} proven={proven} />}
      {!open && (
        <div className={css.acts}>
          {installs && (
          <Button size="lg" variant={verdict && verdict.level !== "likely" ? "filled" : "default"} onClick={() => setAgain(true)}>
            Take it again
          </Button>
          )}
          {next && (
            <Button size="lg" className={css.go} onClick={() => show(null)}>
              <span className={css.nextName}>Next: {proven.readings.find((x) => x.id === next)?.what}</span>
            </Button>
          )}
        </div>
      )}
      <Talk about="reading" subject={r.id} named={r.what} />
    </article>
  );
}

function Means({ verdict: v, proven }: { verdict: Schemas["Meaning"]; proven: Proven }) {
  const cause = v.level === "out" ? proven.findings.causes[0] : undefined;
  return (
    <div className={cx(css.means)} data-level={v.level} role="status">
      <b>
        {words[v.level]}
        {v.off && `: ${v.off}`}
      </b>
      {v.slips.length > 0 && (
        <ul>
          {v.slips.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      )}
      {v.notYet && <p>{v.notYet}</p>}
      {cause && (
        <p>
          What of this circuit gives it, likeliest first: {proven.findings.causes.slice(0, 3).map((c) => c.says).join("; ")}.
        </p>
      )}
    </div>
  );
}

function Entering({ reading: r, enter, document }: { reading: AskedReading; enter: (text: string, device?: string) => void; document: ReturnType<typeof useProof> }) {
  const { id } = useJob();
  const me = useMe();
  const installs = useMay()("install");
  if (!installs) return <p className="soft">As {me?.person ? roleWords[me.person.role] : "who you are here"} you see what was read; who installs reads.</p>;
  return (
    <>
      {r.unit === "seen" ? (
        <div className={css.acts}>
          <Button size="lg" onClick={() => enter("yes")}>
            As stated
          </Button>
          <Button size="lg" variant="default" onClick={() => enter("no")}>
            Otherwise
          </Button>
        </div>
      ) : (
        <Keypad job={id} reading={r} enter={enter} />
      )}
      {r.unit !== "seen" && <Instrument reading={r.id} enter={enter} />}
      {r.unit !== "seen" && (
        <Files
          id={id}
          reading={r.id}
         
          enter={(list, name) => {
            for (const e of list) if (e.reading === r.id) enter(e.text, name);
              else document.enter("reading", e.reading, e.text, { with: name.slice(0, 120) });
          }}
        />
      )}
      {document.failed && <p className="soft">The server does not answer: what is entered is kept here.</p>}
    </>
  );
}
