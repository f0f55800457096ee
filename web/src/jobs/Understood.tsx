import { Button } from "@mantine/core";

import type { Problem, Schemas } from "../api/client";
import { Banner } from "../ui/Banner";
import css from "./jobs.module.css";

/** JobFile is a file as it was read: what it would become, or why it cannot be used. */
export type JobFile = { name: string; text: string; planned: Schemas["Planned"] } | { name: string; problems: Problem[] };

interface Props {
  file: JobFile;
  busy: boolean;
  make: (text: string, name: string) => void;
  leave: () => void;
}

/** Understood shows what was understood of a file before anything is made of it. */
export function Understood({ file, busy, make, leave }: Props) {
  const problems = "problems" in file ? file.problems : file.planned.problems;
  if (problems.length > 0 || "problems" in file) {
    return (
      <Banner m={0} role="alert" title={`${file.name} cannot be used`} withCloseButton onClose={leave}>
        <ul className={css.problems}>
          {problems.map((p) => (
            <li key={p.field + p.wrong}>
              <b>{p.field || "the file"}</b> {[p.value, p.wrong].filter(Boolean).join(" ")}; allowed: {p.allowed}
            </li>
          ))}
        </ul>
      </Banner>
    );
  }
  const { document, plan } = file.planned;
  return (
    <Banner m={0} role="status" title={`${file.name}: ${document.title || "an untitled job"}`} withCloseButton onClose={leave}>
      <p className={css.understood}>
        {[document.customer, plan.vehicle.label].filter(Boolean).join(", ")}. {plan.summary}
      </p>
      <div className="row">
        <Button loading={busy} onClick={() => make(file.text, file.name)}>
          Make this a job
        </Button>
        <Button variant="default" onClick={leave}>
          Leave this file
        </Button>
      </div>
    </Banner>
  );
}
