import { Button, TextInput } from "@mantine/core";
import { Link, useParams } from "@tanstack/react-router";
import { useState } from "react";

import { AddPhoto } from "../bay/AddPhoto";
import { useShown } from "../job/JobContext";
import { useMay } from "../ui/useMe";
import css from "./proof.module.css";
import { PhotoRow } from "./Photos";
import type { Gate, useProof } from "./useProof";

const words = { open: "Open", closed: "Closed", waived: "Waived" };

/** Gates are what has to be so before it is signed for, each with what closes it. */
export function Gates({ proof, gates }: { proof: ReturnType<typeof useProof>; gates: Gate[] }) {
  const open = gates.filter((g) => g.state === "open").length;
  const [all, setAll] = useState(false);
  return (
    <section className={css.gates} aria-label="Gates">
      <h2>{open === 0 ? "All gates are closed" : `${open} of ${gates.length} gates are open`}</h2>
      <ol>
        {gates
          .filter((g) => all || g.state !== "closed" || g.asks === "photo")
          .map((g) => (
            <One key={g.id} gate={g} proof={proof} />
          ))}
      </ol>
      <Button variant="subtle" size="compact-sm" onClick={() => setAll(!all)}>
        {all ? "Only those that are open" : "Those that are closed too"}
      </Button>
    </section>
  );
}

function One({ gate: g, proof }: { gate: Gate; proof: ReturnType<typeof useProof> }) {
  const installs = useMay()("install");
  const { sheets } = useShown();
  const { id = "" } = useParams({ strict: false });
  const [says, setSays] = useState<"statement" | "waiver" | null>(null);
  const [text, setText] = useState("");
  const photos = proof.photos.filter((p) => p.tied === g.id);
  const say = () => {
    if (!says) return;
    proof.enter(says, g.id, text.trim());
    setSays(null);
    setText("");
  };
  return (
    <li>
      <span>
        <span className={css.state} data-state={g.state}>
          {words[g.state]}
        </span>{" "}
        {g.name}
      </span>
      {g.open.map((o) => (
        <span key={o}>{o}</span>
      ))}
      {g.said && (
        <span className="soft">
          {g.said.waives ? "Waived" : "Stated"} by {g.said.by}: {g.said.text}
          {g.said.countersigned && ` Countersigned by ${g.said.countersigned}.`}
        </span>
      )}
      {g.state === "open" && (
        <span className="soft">
          {g.closes} {g.stop && "This one cannot be waived."}
        </span>
      )}
      {photos.length > 0 && <PhotoRow photos={photos} />}
      <span className="row">
        {g.asks === "photo" && installs && <AddPhoto tied={g.id} named={g.name} />}
        {g.state === "open" && g.sheet !== "proof" && (
          <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: sheets.find((s) => s.name === g.sheet)?.address }}>
            Go there
          </Link>
        )}
        {g.state === "open" && g.asks === "statement" && installs && says === null && (
          <Button size="compact-md" variant="default" onClick={() => setSays("statement")}>
            State it
          </Button>
        )}
        {g.state === "open" && !g.stop && installs && says === null && (
          <Button size="compact-md" variant="subtle" onClick={() => setSays("waiver")}>
            Waive it
          </Button>
        )}
      </span>
      {says && (
        <span className={css.said}>
          <TextInput label={says === "waiver" ? "Why it is let pass; it is printed with your name" : "What was done"} value={text} maxLength={500} onChange={(e) => setText(e.currentTarget.value)} />
          <span className="row">
            <Button disabled={text.trim() === ""} onClick={say}>
              {says === "waiver" ? "Waive" : "State"}
            </Button>
            <Button variant="default" onClick={() => setSays(null)}>
              Leave it
            </Button>
          </span>
        </span>
      )}
    </li>
  );
}
