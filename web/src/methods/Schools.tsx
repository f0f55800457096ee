import type { Schemas } from "../api/client";
import { fieldOf, useJob } from "../job/JobContext";

/** Schools are the questions on which the trade is of more than one mind, with what each answer comes to here. */
export function Schools({ list }: { list: Schemas["School"][] }) {
  const job = useJob();
  const { dispatch, readOnly } = job;
  const choose = (school: Schemas["School"], value: string) => {
    const kind = fieldOf(job, school.path)?.kind;
    dispatch({ type: "set", path: school.path, value: kind === "number" || kind === "level" ? Number(value) : value });
  };
  return (
    <div className="schools">
      {list.map((s) => (
        <section key={s.id} aria-label={s.ask}>
          <h3>{s.ask}</h3>
          <p className="soft">{s.default}</p>
          <ul>
            {s.options.map((o) => (
              <li key={o.value} className={`${o.level} ${o.now ? "now" : ""}`}>
                <label className={`choice ${o.now ? "on" : ""}`}>
                  <input type="radio" name={s.id} checked={o.now} disabled={readOnly} onChange={() => choose(s, o.value)} />
                  {o.label}
                </label>
                <span>
                  {o.level !== "good" && <b>{o.level === "bad" ? "not here" : "caution"}. </b>}
                  {o.comes}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
