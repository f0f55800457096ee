import { NativeSelect, TextInput } from "@mantine/core";

import { api, take, type Schemas } from "../api/client";
import { valueAt } from "../job/document";
import { useJob } from "../job/JobContext";
import { useAsked } from "../job/useAsked";
import { Fieldset } from "../ui/Fieldset";
import { NoteBox } from "../ui/NoteBox";
import { Table, type TableColumn } from "../ui/Table";
import { Wait } from "../ui/Wait";
import css from "./steps.module.css";

const at = (path: string) => `built.${path.replaceAll(".", "/")}`;

const columns: TableColumn<Schemas["Built"]["changes"][number]>[] = [
  { key: "what", head: "What", names: true, cell: (c) => c.label },
  { key: "from", head: "As designed", cell: (c) => c.from || "not answered" },
  { key: "to", head: "As built", cell: (c) => <b>{c.to}</b> },
];

/** AsBuilt is what was fitted in the bay where it is not as designed, judged by the same rules; the design stays beside it. */
export function AsBuilt() {
  const asked = useAsked("built", (doc, signal) => take(api.POST("/api/built", { body: doc, signal })));
  if (!asked.answer) return <Wait asked={asked} what="Judging what was built" />;
  const b = asked.answer;
  return (
    <section className={css.asBuilt} aria-label="As built">
      <h2>As built</h2>
      <p className="soft">What was fitted otherwise than designed. The design stays as it is; the rules judge what is there.</p>
      <Fieldset>
        {b.asked.map((a) => (
          <Answer key={a.path} answer={a} problem={b.problems.find((p) => p.field === a.path)} />
        ))}
      </Fieldset>
      {b.changes.length === 0 ? (
        <p>Built as designed.</p>
      ) : (
        <>
          <Table caption="What is built otherwise" className={css.changes} rows={b.changes} columns={columns} keyOf={(c) => c.path} />
          <p>
            <b>As built:</b> {b.summary}
          </p>
          {b.new.map((n) => (
            <NoteBox key={n.id + n.text} note={n} besides="new" />
          ))}
          {b.gone.map((n) => (
            <p key={n.id + n.text} className="soft">
              No longer so: {n.text}
            </p>
          ))}
          {b.new.length === 0 && b.gone.length === 0 && <p>What differs weakens nothing: the notes are those of the design.</p>}
        </>
      )}
    </section>
  );
}

function Answer({ answer, problem }: { answer: Schemas["BuiltAnswer"]; problem: Schemas["Problem"] | undefined }) {
  const { state, dispatch, vocabulary, mayChange } = useJob();
  const readOnly = !mayChange("built");
  const field = vocabulary.fields.find((f) => f.path === answer.path);
  const path = at(answer.path);
  const value = String(valueAt(state.doc, path) ?? "");
  const error = problem && `${problem.wrong}; allowed: ${problem.allowed}`;
  if (field && field.choices.length > 0)
    return (
      <NativeSelect
        label={answer.label}
        disabled={readOnly}
        value={value}
        error={error}
        data={[{ value: "", label: `as designed: ${answer.designed}` }, ...field.choices]}
        onChange={(e) => dispatch({ type: "set", path, value: e.currentTarget.value || undefined })}
      />
    );
  return (
    <TextInput
      label={answer.label}
      readOnly={readOnly}
      value={state.typing[path] ?? value}
      placeholder={`as designed: ${answer.designed}`}
      error={error}
      onChange={(e) => dispatch({ type: "type", path, text: e.currentTarget.value })}
      onBlur={() => dispatch({ type: "leave", path })}
    />
  );
}
