import type { Schemas } from "../api/client";
import { Fields } from "../job/Fields";
import { Findings } from "../ui/CheckList";
import css from "./found.module.css";
import { FoundRows } from "./FoundRows";
import { GearSays, WireSays } from "./Says";
import { useRetrofit } from "./useRetrofit";

const gearFields = ["kind", "name", "ratingA", "works", "fault", "across", "restA", "factoryFeed"];
const wireFields = ["role", "endA", "endB", "colour", "size", "insulation", "lengthM", "fuseA", "fuseIs", "fuseMM", "fuseBA", "fuseBIs", "fuseForm", "sources", "state", "amps", "dropV", "remark"];
const bypassFields = ["have.fuseA", "have.fuses", "have.size", "have.metres", "have.relayA"];

/** AsFound takes in what was there before: devices and wires, each with its verdict; and what is in the van. */
export function AsFound() {
  const { answer } = useRetrofit();
  return (
    <div className={css.asFound}>
      <h3>Devices</h3>
      <FoundRows list="gear" fields={gearFields} add="Add a device" first={["kind", "relay"]}>
        {(key) => <GearSays gear={answer?.gear.find((g) => g.key === key)} />}
      </FoundRows>
      <h3>Wires</h3>
      <FoundRows list="found" fields={wireFields} add="Add a wire" first={["role", "start"]}>
        {(key) => <WireSays wire={answer?.wires.find((w) => w.key === key)} />}
      </FoundRows>
      <h3>In the van, for a bypass</h3>
      <Fields paths={bypassFields} />
      {answer?.bypass && <Bypass bypass={answer.bypass} />}
    </div>
  );
}

function Bypass({ bypass }: { bypass: Schemas["Bypass"] }) {
  return (
    <section className={css.bypass} data-level={bypass.level} aria-label="Bypass">
      <h3>Bypass, temporary</h3>
      <p>
        <b>{bypass.level === "bad" ? "Not with this." : bypass.level === "caution" ? "With caution." : "This works."}</b> {bypass.says}
      </p>
      <ul>
        {bypass.limits.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
      {bypass.against.length > 0 && (
        <Findings list={bypass.against.map((a) => ({ key: a, word: "against", level: bypass.level, text: a }))} />
      )}
      {bypass.level !== "bad" && (
        <ol className={css.steps}>
          {bypass.steps.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
      )}
      <p className={css.tag}>{bypass.tag}</p>
    </section>
  );
}
