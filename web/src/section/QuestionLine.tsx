import { Button } from "@mantine/core";
import { useEffect, useRef } from "react";

import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import css from "./question.module.css";

/** QuestionLine asks the next open question, in working order. */
export function QuestionLine() {
  const job = useJob();
  const { plan, asked, ask } = job;
  const open = plan.questions.filter((q) => !q.settled);
  const at = plan.questions.findIndex((q) => q.id === asked);
  const question = plan.questions[at] ?? open[0];
  const line = useRef<HTMLElement>(null);
  const moved = useRef(false);

  // After an answer the next question takes the keyboard.
  useEffect(() => {
    if (!moved.current) return;
    moved.current = false;
    line.current?.querySelector<HTMLElement>("input, select")?.focus();
  }, [asked]);

  const next = () => {
    const rest = plan.questions.slice(plan.questions.findIndex((q) => q.id === question?.id) + 1);
    const to = rest.find((q) => !q.settled) ?? open.find((q) => q.id !== question?.id);
    moved.current = true;
    ask(to ? to.id : "done");
  };
  const back = () => {
    const from = question ? plan.questions.indexOf(question) : plan.questions.length;
    moved.current = true;
    ask(plan.questions[Math.max(0, from - 1)]?.id ?? null);
  };

  if (!question || asked === "done") {
    return (
      <section className={css.question} aria-label="Questions">
        <span className="soft">{open.length === 0 ? "All answers are settled." : `${open.length} of ${plan.questions.length} are still assumed.`}</span>
        <span className="gap" />
        <Button variant="subtle" size="compact-sm" onClick={() => ask(open[0]?.id ?? plan.questions[0]?.id ?? null)}>
          {open.length === 0 ? "Go through them again" : "Ask on"}
        </Button>
      </section>
    );
  }
  const fields = question.fields.flatMap((path) => fieldOf(job, path) ?? []);
  return (
    <section className={css.question} aria-label="Questions" ref={line} data-question={question.id}>
      <span className="soft">
        {open.length} of {plan.questions.length} still open. {question.settled ? "Settled:" : "Next:"}
      </span>
      <b id="asked">{question.ask}</b>
      <div className={css.answers} role="group" aria-labelledby="asked">
        {fields.map((f, i) => (
          <FieldInput
            key={f.path}
            field={f}
            label={false}
            onAnswer={i === fields.length - 1 ? next : () => line.current?.querySelector<HTMLElement>("[data-quantity] input")?.focus()}
          />
        ))}
      </div>
      <span className="gap" />
      <Button variant="subtle" size="compact-sm" onClick={back} disabled={plan.questions[0]?.id === question.id}>
        back
      </Button>
      <Button variant="subtle" size="compact-sm" onClick={next}>
        {question.settled ? "next" : "later"}
      </Button>
    </section>
  );
}
