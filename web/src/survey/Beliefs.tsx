import { valueAt } from "../job/document";
import { useJob } from "../job/JobContext";
import css from "./survey.module.css";

/** Beliefs are sentences to pick from: what the customer, or the shop, takes for granted; beside each that is picked what holds on this job. */
export function Beliefs() {
  const { vocabulary, state, dispatch, plan, mayChange } = useJob();
  const readOnly = !mayChange("beliefs");
  return (
    <ul className={css.beliefs} aria-label="Taken for granted">
      {vocabulary.fields
        .filter((f) => f.path.startsWith("beliefs."))
        .map((f) => {
          const answer = plan.checks.find((c) => c.group === "beliefs" && c.fields.includes(f.path));
          const held = valueAt(state.doc, f.path) === "yes";
          return (
            <li key={f.path}>
              <label>
                <input type="checkbox" checked={held} disabled={readOnly} onChange={() => dispatch({ type: "set", path: f.path, value: held ? undefined : "yes" })} /> {f.label}
              </label>
              {held && answer && (
                <p data-level={answer.level}>
                  <b>{answer.level === "good" ? "True on this job." : "Not true on this job."}</b> {answer.text}
                </p>
              )}
            </li>
          );
        })}
    </ul>
  );
}
