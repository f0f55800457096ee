import { Button, Textarea } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { whyNot, type Schemas } from "../api/client";
import css from "./BookFile.module.css";
import { FileDrop } from "./FileDrop";
import { readText } from "./readText";
import { useStored } from "./stored";
import { useMay } from "./useMe";

interface Props {
  /** where lines that could not be used wait to be mended, so that a reload loses none */
  kept: string;
  name: string;
  hint: string;
  says: (lines: number) => string;
  send: (csv: string, preview: boolean) => Promise<Schemas["BookRead"]>;
  onRead: () => unknown;
}

/** Seen is a file with what it would do. */
interface Seen {
  csv: string;
  name: string;
  read: Schemas["BookRead"];
}

/** whatItDoes says what a file would do to the book. */
function whatItDoes({ name, read }: Seen): string {
  const same = read.kept - read.new - read.changed;
  const bad = new Set(read.problems.map((p) => p.line)).size;
  const what = [`${read.new} new`, `${read.changed} changed`, `${same} as it is in the book already`];
  return `${name}: ${what.join(", ")}${bad > 0 ? `; ${bad} ${bad === 1 ? "line" : "lines"} cannot be used, and will be kept here to be mended` : ""}.`;
}

/** BookFile reads files for one of the workshop's books, and keeps the lines that could not be used until they are mended. */
export function BookFile({ kept, name, hint, says, send: to, onRead }: Props) {
  const may = useMay()("books");
  const [rest, setRest] = useStored(kept, "");
  const [problems, setProblems] = useState<Schemas["LineProblem"][]>([]);
  const [told, setTold] = useState("");
  const [seen, setSeen] = useState<Seen | null>(null);
  const look = useMutation({
    mutationFn: (file: { csv: string; name: string }) => to(file.csv, true),
    onSuccess: (read, file) => setSeen({ ...file, read }),
    onError: (error) => setTold(whyNot(error)),
  });
  const send = useMutation({
    mutationFn: (csv: string) => to(csv, false),
    onSuccess: (read, sent) => {
      setSeen(null);
      // Lines of an earlier file that still wait to be mended stay.
      const waiting = sent === rest ? "" : rest;
      setRest([waiting, read.rest].filter(Boolean).join(waiting && read.rest ? "\n" : ""));
      setProblems(read.problems);
      setTold(`${says(read.kept)}${read.problems.length > 0 ? " The other lines are kept here until they are mended." : ""}`);
      onRead();
    },
    onError: (error) => setTold(whyNot(error)),
  });
  if (!may) return null;
  return (
    <section className={css.file} aria-label="From a file">
      <FileDrop
        label="Read a file"
        name={name}
        endings={[".csv", ".txt"]}
        busy={send.isPending || look.isPending}
        onRefused={setTold}
        onFile={(file) => {
          setSeen(null);
          if (rest) setTold("Mend or clear the lines below first; then read another file.");
          else readText(file).then((csv) => look.mutate({ csv, name: file.name }), (error: Error) => setTold(`${file.name} ${error.message}`));
        }}
      >
        <p role="status">{seen ? whatItDoes(seen) : told || hint}</p>
        {seen && (
          <div className="row">
            <Button size="compact-md" loading={send.isPending} onClick={() => send.mutate(seen.csv)}>
              Put it in
            </Button>
            <Button size="compact-md" variant="default" onClick={() => setSeen(null)}>
              Leave it
            </Button>
          </div>
        )}
      </FileDrop>
      {problems.length > 0 && (
        <ul className={css.problems}>
          {problems.map((p) => (
            <li key={`${p.line} ${p.field}`}>
              <b>line {p.line}</b> {p.field} {p.value && `“${p.value}”`} {p.wrong}; allowed: {p.allowed}
            </li>
          ))}
        </ul>
      )}
      {rest && (
        <>
          <Textarea label="Lines to mend" value={rest} autosize minRows={3} maxRows={12} onChange={(e) => setRest(e.currentTarget.value)} />
          <div className="row">
            <Button size="compact-md" onClick={() => send.mutate(rest)}>
              Read these lines
            </Button>
            <Button
              size="compact-md"
              variant="subtle"
              onClick={() => {
                setRest("");
                setProblems([]);
              }}
            >
              Clear them
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
