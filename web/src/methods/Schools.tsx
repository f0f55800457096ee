import { Chip } from "@mantine/core";

import type { Schemas } from "../api/client";
import { fieldOf, useJob } from "../job/JobContext";
import css from "./methods.module.css";

/** Schools are the questions on which the trade is of more than one mind, with what each answer comes to here. */
export function Schools({ list }: { list: Schemas["School"][] }) {
  const job = useJob();
  const { dispatch, readOnly } = job;
  const choose = (school: Schemas["School"], value: string) => {
    const kind = fieldOf(job, school.path)?.kind;
    dispatch({ type: "set", path: school.path, value: kind === "number" || kind === "level" ? Number(value) : value });
  };
  const differ = list.filter((s) => !alike(s));
  const same = list.filter(alike);
  return (
    <div className={css.schools}>
      {differ.map((s) => (
        <section key={s.id} aria-label={s.ask}>
          <h3>{s.ask}</h3>
          <p className="soft">{s.default}</p>
          <Chip.Group value={s.options.find((o) => o.now)?.value ?? null} onChange={(value) => choose(s, value ?? "")}>
            <ul>
              {s.options.map((o) => (
                <li key={o.value} data-level={o.level}>
                  <Chip value={o.value} disabled={readOnly}>
                    {o.label}
                  </Chip>
                  <span>
                    {o.level !== "good" && <b>{o.level === "bad" ? "not here" : "caution"}. </b>}
                    {o.comes}
                    {o.costs && <span className="soft"> {o.costs}.</span>}
                  </span>
                </li>
              ))}
            </ul>
          </Chip.Group>
        </section>
      ))}
      {same.length > 0 && (
        <section aria-label="No difference here">
          <h3>No difference here</h3>
          <ul className={css.same}>
            {same.map((s) => (
              <li key={s.id}>
                <b>{s.ask}</b> <span className="soft">{s.options[0]?.comes}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** alike says whether every answer to a question comes to the same on this job. */
const alike = (s: Schemas["School"]) => s.options.every((o) => o.comes === s.options[0]?.comes && o.level === "good");
