import { Button } from "@mantine/core";
import { Link, useParams } from "@tanstack/react-router";

import type { Column } from "../api/client";
import { Cures } from "../job/Cures";
import { FieldInputs } from "../job/Fields";
import { FoldedFields, Moved } from "../job/FoldedFields";
import { useDispatch, useShown } from "../job/JobContext";
import { Talk } from "../talk/Talk";
import { NoteBox } from "../ui/NoteBox";
import { Working } from "../ui/Working";
import { LoggedTest } from "../regulation/LoggedTest";
import { TimeCurrent } from "./TimeCurrent";
import css from "./panel.module.css";

/** PartPanel is a part opened in place: what decided it, pin, questions and working. */
export default function PartPanel({ column }: { column: Column }) {
  const { plan, pick, readOnly } = useShown();
  const dispatch = useDispatch();
  const notes = plan.notes.filter((n) => n.column === column.id);
  const choice = column.choice;
  const fields = column.fields.filter((p) => p !== choice?.path);
  const figures = column.figures.flatMap((key) => plan.figures[key] ?? []);
  const joints = plan.joints.filter((j) => j.after === column.id);
  const components = plan.system.components.filter((c) => c.id === column.id);
  return (
    <section data-panel className={css.panel} aria-label={column.name}>
      <header>
        <h2>{column.name}</h2>
        <span>{components[0]?.rating ?? column.part.text}</span>
        <Button variant="subtle" size="compact-sm" aria-label={`Close ${column.name}`} onClick={() => pick(null)}>
          Close
        </Button>
      </header>
      {notes.map((n) => (
        <NoteBox key={n.id} note={n}>
          <span className={css.ruleId}>
            {n.id}, {n.mark}
          </span>{" "}
          <Cures note={n} />
        </NoteBox>
      ))}
      <Talk about="part" subject={column.id} named={column.name} />
      {choice && (
        <div className={css.pinning}>
          <FieldInputs paths={[choice.path]} />
          <p>
            {choice.pinned ? (
              <>
                Pinned to {choice.now}; the plan would take {choice.auto}.{" "}
                {!readOnly && (
                  <Button size="compact-sm" variant="default" onClick={() => dispatch({ type: "set", path: choice.path, value: undefined })}>
                    Let the plan decide
                  </Button>
                )}
              </>
            ) : (
              <>
                Auto: {choice.auto}; {choice.decidedBy}.
              </>
            )}
          </p>
        </div>
      )}
      {column.id === "coupling" && <Methods />}
      {column.id === "alternator" && <LoggedTest />}
      {plan.curves.filter((c) => c.fuse === column.id).map((c) => (
        <TimeCurrent key={c.fuse} curve={c} />
      ))}
      {figures.length > 0 && (
        <>
          <h3>Working</h3>
          {figures.map((f) => (
            <Working key={f.name + f.formula} figure={f} />
          ))}
        </>
      )}
      {fields.length > 0 && (
        <div className={css.asks}>
          <FieldInputs paths={fields} />
        </div>
      )}
      {joints.length > 0 && (
        <details className={css.label}>
          <summary>The joints here, as measured</summary>
          {joints.map((j) => (
            <div key={j.id} className={css.joint}>
              <p>{j.says}</p>
              <FieldInputs brief paths={["mV", "atA", "mOhm", "tempC"].map((name) => `${j.row}.${name}`)} />
            </div>
          ))}
          <Moved paths={joints.flatMap((j) => ["mV", "atA", "mOhm", "tempC"].map((name) => `${j.row}.${name}`))} />
        </details>
      )}
      {column.folded.map((f) => (
        <FoldedFields key={f.title} folded={f} />
      ))}
    </section>
  );
}

/** Methods says why this coupling is fitted, and leads to all of them. */
function Methods() {
  const { plan } = useShown();
  const { id } = useParams({ strict: false });
  const fitted = plan.methods.find((m) => m.kind === plan.coupling);
  if (!fitted) return null;
  return (
    <div className={css.methods}>
      <h3>Why this coupling</h3>
      <p>
        {fitted.label}: <b>{fitted.ruledOut ? "ruled out" : fitted.chosen ? "best for this job" : "possible"}</b>.{" "}
        {id && (
          <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "methods" }}>
            All couplings side by side
          </Link>
        )}
      </p>
      <ul>
        {fitted.reasons.map((r) => (
          <li key={r.id}>
            <b>{r.effect}:</b> {r.text} {r.unless && <i>Unless: {r.unless}</i>}
          </li>
        ))}
      </ul>
    </div>
  );
}
