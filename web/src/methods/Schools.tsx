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
  return (
    <div className={css.schools}>
      {list.map((s) => (
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
    </div>
  );
}
