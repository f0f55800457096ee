import { Button, TextInput } from "@mantine/core";
import { Link, useParams } from "@tanstack/react-router";
import cx from "clsx";
import { useRef, useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { litBy } from "../job/picking";
import { Sheet } from "../job/Sheet";
import { useMade } from "../make/useMade";
import { useCountersign } from "../bay/useCountersign";
import { useAwake } from "../bay/useAwake";
import { AddPhoto } from "../bay/AddPhoto";
import { Talk } from "../talk/Talk";
import { clock } from "../ui/shifted";
import { keep } from "../ui/stored";
import { TextButton } from "../ui/TextButton";
import { useDates } from "../ui/useDates";
import { roleWords, useMay, useMe } from "../ui/useMe";
import { Wait, Wrong } from "../ui/Wait";
import { counted } from "../ui/units";
import { many } from "../ui/words";
import { AsBuilt } from "./AsBuilt";
import { stages } from "../ui/stages";
import css from "./steps.module.css";
import { held, isDone, nextOpen, standing, type Tick } from "../bay/ticks";
import { useTicks } from "../bay/useTicks";

type Step = Schemas["Step"];

/** StepsSheet is sheet 6: one step at a time, large; the others in a list. */
export default function StepsSheet() {
  const asked = useMade();
  return <Sheet name="steps">{asked.answer ? <Steps made={asked.answer} /> : <Wait asked={asked} what="Putting the steps in order" />}</Sheet>;
}

function Steps({ made }: { made: Schemas["Made"] }) {
  useAwake();
  const job = useJob();
  const { ticks, unsent, others, refused, tick, failed, again } = useTicks(job.id);
  const me = useMe();
  const [at, setAt] = useState<string | null>(null);
  const top = useRef<HTMLElement>(null);
  const steps = made.steps;
  const lit = litBy(job.plan, job.thing);
  const slots = new Map(made.schedule.map((s) => [s.step, s]));
  const waitsFor = made.waits.filter((w) => w.step);
  const now = standing(ticks);
  const done = (step: string) => isDone(now.get(step));
  const next = nextOpen(steps, done);
  const index = at === null ? next : steps.findIndex((s) => s.id === at);
  const step = steps[index] ?? steps[Math.max(0, next)];
  const waits = held(steps, done);
  const show = (to: string | null) => {
    setAt(to);
    top.current?.scrollIntoView({ block: "start" });
  };
  const finished = steps.filter((s) => done(s.id)).length;
  const mark = (s: Step, to: boolean, note: string) => {
    tick(s, to, note);
    if (to) show(null);
  };
  return (
    <div className={css.sheet}>
      <section className={css.now} aria-label="Step" ref={top}>
        <p className="soft" role="status">
          {finished} of {steps.length} done, about {made.hours} h in all, {made.days} {made.days === 1 ? "day" : "days"} in the bay
          {unsent > 0 ? `; ${unsent} kept on this device until ${others === unsent ? "whoever ticked is back on it" : "the server answers"}` : failed ? "; the server does not answer" : ""}
        </p>
        {refused.length > 0 && (
          <Wrong>
            {refused.length === 1 ? "One tick" : `${refused.length} ticks`} could not be kept: {refused[0]?.problems.map((p) => `${p.field} ${p.wrong}; allowed: ${p.allowed}`).join(". ")}
          </Wrong>
        )}
        {next < 0 && at === null && <h2>All steps are done.</h2>}
        {step && (next >= 0 || at !== null) && (
          <One key={step.id} step={step} number={steps.indexOf(step) + 1} of={steps.length} tick={now.get(step.id)} hold={steps.find((s) => s.id === waits.get(step.id))} again={again} mark={mark} show={show} titles={new Map(steps.map((s) => [s.id, s.title]))} open={step.after.filter((a) => !done(a))} />
        )}
        {me?.person && <p className="soft">Ticks stand under {me.person.name}.</p>}
        <AsBuilt />
      </section>
      <nav className={css.list} aria-label="All steps">
        {waitsFor.length > 0 && (
          <details className={css.waitsFor}>
            <summary>
              {waitsFor.length} {waitsFor.length === 1 ? "part is" : "parts are"} not in stock
            </summary>
            <ul>
              {waitsFor.map((w) => (
                <li key={w.part}>
                  {counted(w.order, w.unit)} {w.part}: needed for “{w.title}”
                </li>
              ))}
            </ul>
          </details>
        )}
        <ol>
          {steps.map((s, i) => {
            const t = now.get(s.id);
            const heads = i === 0 || steps[i - 1]?.stage !== s.stage;
            return (
              <li key={s.id} data-lit={s.of.some((of) => lit.has(of)) || undefined} className={cx(isDone(t) && css.done, s.hold && css.hold, s.id === step?.id && css.here)}>
                {heads && <b className={css.stage}>{stages[s.stage]}</b>}
                <TextButton aria-current={s.id === step?.id ? "step" : undefined} onClick={() => show(s.id)}>
                  <span className={css.mark}>{isDone(t) ? "✓" : i + 1}</span> {s.title}
                  <When slot={slots.get(s.id)} before={slots.get(steps[i - 1]?.id ?? "")} />
                  {t?.done && <span className="soft"> {t.by}{t.waits && ", waits for a countersignature"}</span>}
                  {!t?.done && waits.has(s.id) && <span className="soft"> waits</span>}
                </TextButton>
              </li>
            );
          })}
        </ol>
      </nav>
    </div>
  );
}

/** When is the hour at which a step would begin, and the day where that is a new one. */
function When({ slot, before }: { slot: Schemas["Slot"] | undefined; before: Schemas["Slot"] | undefined }) {
  if (!slot) return null;
  return (
    <span className={cx("soft", css.when)}>
      {slot.day !== before?.day && `day ${slot.day}, `}
      {clock(slot.from)}
    </span>
  );
}

/** OnDrawing leads to the drawing, with what the step is about picked on it. */
function OnDrawing({ thing }: { thing: string }) {
  const { pick } = useJob();
  const { id = "" } = useParams({ strict: false });
  const show = () => {
    keep("wiringTab", "drawing", "window");
    pick(thing);
  };
  return (
    <Link className={css.onDrawing} to="/jobs/$id/{-$sheet}" params={{ id, sheet: "wiring" }} onClick={show}>
      Show it on the drawing
    </Link>
  );
}

interface OneProps {
  step: Step;
  number: number;
  of: number;
  tick: Tick | undefined;
  hold: Step | undefined;
  again: () => void;
  titles: Map<string, string>;
  open: string[];
  mark: (step: Step, done: boolean, note: string) => void;
  show: (id: string) => void;
}

/** One is one step, large enough for gloves. */
function One({ step, number, of, tick, hold, again, titles, open, mark, show }: OneProps) {
  const dates = useDates();
  const [photographed, setPhotographed] = useState(0);
  const [note, setNote] = useState("");
  const [looked, setLooked] = useState<Set<string>>(new Set());
  const unlooked = step.checks.filter((c) => !looked.has(c));
  const blocked = step.hold === true && unlooked.length > 0;
  const may = useMay();
  const me = useMe();
  const sign = useCountersign(again);
  return (
    <article className={cx(css.one, step.hold && css.hold)}>
      <p className="soft">
        {number} of {of}, {stages[step.stage]}, about {Math.round(step.minutes)} min{step.covered && ", before panels and floor close"}
      </p>
      <h2>{step.title}</h2>
      <p className={css.what}>{step.what}</p>
      {step.caution && (
        <p className={css.caution}>
          <b>Caution.</b> {step.caution}
        </p>
      )}
      {(step.where || step.figure || step.tool) && (
        <dl>
          {step.where && (
            <>
              <dt>Where</dt>
              <dd>{step.where}</dd>
            </>
          )}
          {step.figure && (
            <>
              <dt>Should be</dt>
              <dd className={css.figure}>{step.figure}</dd>
            </>
          )}
          {step.tool && (
            <>
              <dt>With</dt>
              <dd>{step.tool}</dd>
            </>
          )}
        </dl>
      )}
      {step.of.length > 0 && <OnDrawing thing={step.of[0] as string} />}
      {step.checks.length > 0 && (
        <fieldset className={css.checks}>
          <legend>{step.hold ? "Looked at, each" : "Look at"}</legend>
          {step.checks.map((c) => (
            <label key={c}>
              <input
                type="checkbox"
                checked={looked.has(c) || tick?.done === true}
                disabled={tick?.done === true}
                onChange={() => setLooked((was) => (was.has(c) ? new Set([...was].filter((x) => x !== c)) : new Set([...was, c])))}
              />
              {c}
            </label>
          ))}
        </fieldset>
      )}
      {hold && (
        <p className={css.caution}>
          Waits for the hold point{" "}
          <TextButton onClick={() => show(hold.id)}>{hold.title}</TextButton>
          .
        </p>
      )}
      {!hold && open.length > 0 && !tick?.done && <p className="soft">Comes after: {open.map((id) => titles.get(id)).join("; ")}.</p>}
      {tick?.done ? (
        <div className="row">
          <b className={css.doneBy}>
            {step.hold ? "Signed" : "Done"}
            {tick.by && ` by ${tick.by}`}, {dates.moment(tick.at)}
            {tick.note && `: ${tick.note}`}
            {tick.countersigned && `, countersigned by ${tick.countersigned}`}
            {tick.waits && ", and waits for a countersignature"}
          </b>
          {tick.waits && may("countersign") && tick.by !== me?.person?.name && (
            <Button loading={sign.isPending} onClick={() => sign.mutate([tick.id])}>
              Countersign
            </Button>
          )}
          {may("install") && (
            <Button variant="default" onClick={() => mark(step, false, "")}>
              Take it back
            </Button>
          )}
          {sign.isError && <Wrong>{sign.error.message}</Wrong>}
        </div>
      ) : !may("install") ? (
        <p className="soft">As {me?.person ? roleWords[me.person.role] : "who you are here"} you see the steps; who installs ticks them.</p>
      ) : (
        <>
          <AddPhoto tied={step.id} named={step.title} done={() => setPhotographed((n) => n + 1)} />
          {photographed > 0 && (
            <p className="soft" role="status">
              {many(photographed, "photograph is", "photographs are")} kept; sheet 7 shows all of the job.
            </p>
          )}
          <TextInput label="Note" value={note} maxLength={500} placeholder="what was different" onChange={(e) => setNote(e.currentTarget.value)} />
          <Button fullWidth size="lg" disabled={hold !== undefined || blocked} onClick={() => mark(step, true, note)}>
            {step.hold ? "Sign" : "Done"}
          </Button>
          {step.hold && blocked && <p className="soft">Still to look at: {unlooked.join("; ")}.</p>}
          {step.hold && me?.waits && <p className="soft">Signed by an apprentice, the step waits until somebody countersigns.</p>}
        </>
      )}
      <Talk about="step" subject={step.id} named={step.title} />
    </article>
  );
}
