import { Link } from "@tanstack/react-router";

import { Fields } from "../job/Fields";
import { useShown } from "../job/JobContext";
import { Choices } from "../ui/Choices";
import css from "./trace.module.css";
import type { Traced, useTrace } from "./useTrace";

/** Installed is what is traced: the installation as it was found, or as it is designed and built here. */
export function Installed({ trace, found }: { trace: ReturnType<typeof useTrace>; found: Traced }) {
  const { id } = useShown();
  const open = !trace.now;
  return (
    <section className={css.installed} aria-label="What is traced">
      {open && (
        <Choices
          legend="What is in the vehicle"
          choices={[
            { value: "found", label: "What was there before" },
            { value: "designed", label: "What is designed here" },
          ]}
          value={trace.asFound ? "found" : "designed"}
          onChoose={(v) => trace.choose(v === "found")}
        />
      )}
      {open && trace.asFound && <Fields brief paths={["have.coupling", "have.couplingA"]} />}
      <p className="soft">
        {trace.asFound ? "As it was found" : "As it is designed"}: {found.of}.
      </p>
      {found.missing.length > 0 && (
        <p className="soft">
          Nobody knows {found.missing.join(" and ")}: the plan&apos;s own stands for it, so a reading may be off.{" "}
          <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "survey" }}>
            To the survey
          </Link>
        </p>
      )}
    </section>
  );
}
