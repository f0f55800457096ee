import { Button, TextInput } from "@mantine/core";
import { useState } from "react";

import { uuid } from "../api/once";
import { useStored } from "../ui/stored";
import { inWords } from "./cases";
import css from "./trace.module.css";
import type { Traced, useTrace } from "./useTrace";

/** Complaint begins a case: what somebody complains of, in their words. */
export function Complaint({ trace, found }: { trace: ReturnType<typeof useTrace>; found: Traced }) {
  const [said, setSaid] = useState<string[]>([]);
  const [words, setWords] = useStored(`complaint:${trace.id}`, "", "window");
  const turn = (id: string) => setSaid(said.includes(id) ? said.filter((s) => s !== id) : [...said, id]);
  const begin = () => {
    const of = uuid();
    for (const s of found.symptoms.filter((s) => said.includes(s.id))) trace.enter("complaint", s.id, s.says, s.says, "", of);
    if (words.trim()) trace.enter("complaint", inWords, words.trim(), words.trim(), "", of);
    setWords("");
  };
  return (
    <>
      <h2>What is the complaint?</h2>
      <p className="soft">Everything the owner says. Several complaints that began together are often one fault.</p>
      <ul className={css.said}>
        {found.symptoms.map((s) => (
          <li key={s.id}>
            <button type="button" aria-pressed={said.includes(s.id)} onClick={() => turn(s.id)}>
              {s.says}
            </button>
          </li>
        ))}
      </ul>
      <TextInput label="In other words" description="Kept with the case; the shares below do not count these words" maxLength={300} value={words} onChange={(e) => setWords(e.currentTarget.value)} />
      <div className={css.acts}>
        <Button size="lg" disabled={said.length === 0 && words.trim() === ""} onClick={begin}>
          Begin
        </Button>
      </div>
    </>
  );
}
