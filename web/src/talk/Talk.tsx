import { Button, NativeSelect, Textarea } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "@tanstack/react-router";
import { useState } from "react";

import { api, take } from "../api/client";
import { useStored } from "../ui/stored";
import { TextButton } from "../ui/TextButton";
import { useDates } from "../ui/useDates";
import { useMay } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import css from "./talk.module.css";
import { useTalk, type About, type Thread } from "./useTalk";

interface Props {
  about: About;
  subject: string;
  /** What it is about, as it is called. */
  named: string;
}

/** Talk is what is said and asked about something of the open job: a line until it is opened. */
export function Talk({ about, subject, named }: Props) {
  const { id = "" } = useParams({ strict: false });
  const may = useMay()("talk");
  const talk = useTalk(id, about, subject);
  const open = talk.threads.filter((t) => t.open).length;
  const [shown, setShown] = useState(false);
  const count = talk.threads.length;
  if (!may && count === 0) return null;
  const says = open > 0 ? `${open} open ${open === 1 ? "question" : "questions"}` : count > 0 ? `${count} ${count === 1 ? "comment" : "comments"}` : "Ask or say something";
  return (
    <div className={css.talk}>
      <TextButton aria-expanded={shown} onClick={() => setShown(!shown)}>
        <span className={open > 0 ? css.open : "soft"}>{says}</span>
      </TextButton>
      {shown && (
        <>
          {talk.threads.map((t) => (
            <One key={t.first.id} thread={t} talk={talk} may={may} />
          ))}
          {talk.refused.map((w) => (
            <Wrong key={w.id}>
              “{String(w.body.text)}” could not be kept: {w.refused?.[0]?.wrong}
            </Wrong>
          ))}
          {may && <Saying talk={talk} subject={subject} named={named} kept={`comment:${id}:${about}:${subject}`} />}
        </>
      )}
    </div>
  );
}

function One({ thread: t, talk, may }: { thread: Thread; talk: ReturnType<typeof useTalk>; may: boolean }) {
  const dates = useDates();
  const [answering, setAnswering] = useState(false);
  return (
    <article className={css.thread} data-open={t.open || undefined}>
      {[t.first, ...t.answers].map((c) => (
        <p key={c.id}>
          <b>{c.by}</b> <span className="soft">{dates.since(c.at)}{c.asks ? ", asks" : c.answers ? ", answers" : ""}</span>
          <br />
          {c.text}
        </p>
      ))}
      {may && !answering && (
        <Button size="compact-sm" variant="default" onClick={() => setAnswering(true)}>
          Answer
        </Button>
      )}
      {answering && <Saying talk={talk} thread={t} subject={t.first.subject ?? ""} named={t.first.named ?? ""} kept={`comment:${t.first.id}`} done={() => setAnswering(false)} />}
    </article>
  );
}

function Saying({ talk, thread, subject, named, kept, done }: { talk: ReturnType<typeof useTalk>; thread?: Thread; subject: string; named: string; kept: string; done?: () => void }) {
  const staff = useQuery({ queryKey: ["people"], queryFn: () => take(api.GET("/api/people")), staleTime: 300_000 });
  const [text, setText] = useStored(kept, "");
  const [marked, setMarked] = useState(true);
  const send = () => {
    talk.say({ text: text.trim(), subject, named: named.slice(0, 200), ...(thread ? { thread: thread.first.id, answers: thread.open && marked } : { asks: marked }) });
    setText("");
    done?.();
  };
  return (
    <div className={css.saying}>
      <Textarea aria-label={thread ? "Answer" : "Question or comment"} rows={2} autosize maxLength={2000} value={text} onChange={(e) => setText(e.currentTarget.value)} />
      <span className="row">
        {(!thread || thread.open) && (
          <label className={css.mark}>
            <input type="checkbox" checked={marked} onChange={(e) => setMarked(e.currentTarget.checked)} />
            {thread ? "It answers the question" : "It is a question"}
          </label>
        )}
        <NativeSelect aria-label="Mention somebody" value="" data={[{ value: "", label: "Mention …" }, ...(staff.data?.people.filter((p) => !p.left).map((p) => p.name) ?? [])]} onChange={(e) => e.currentTarget.value && setText(`${text}${text && !text.endsWith(" ") ? " " : ""}@${e.currentTarget.value} `)} />
        <Button disabled={text.trim() === ""} onClick={send}>
          {thread ? "Answer" : marked ? "Ask" : "Say it"}
        </Button>
      </span>
    </div>
  );
}
