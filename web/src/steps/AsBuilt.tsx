import { NativeSelect, TextInput } from "@mantine/core";

import { api, take, type Schemas } from "../api/client";
import { valueAt } from "../job/document";
import { useJob } from "../job/JobContext";
import { useAsked } from "../job/useAsked";
import { severityWord } from "../ui/words";
import { Wait } from "../ui/Wait";

const at = (path: string) => `built.${path.replaceAll(".", "/")}`;

/** AsBuilt is what was fitted in the bay where it is not as designed, judged by the same rules; the design stays beside it. */
export function AsBuilt() {
  const asked = useAsked("built", (doc, signal) => take(api.POST("/api/built", { body: doc, signal })));
  if (!asked.answer) return <Wait asked={asked} what="Judging what was built" />;
  const b = asked.answer;
  return (
    <section className="asBuilt" aria-label="As built">
      <h2>As built</h2>
      <p className="soft">What was fitted otherwise than designed. The design stays as it is; the rules judge what is there.</p>
      <div className="surveyFields">
        {b.asked.map((a) => (
          <Answer key={a.path} answer={a} problem={b.problems.find((p) => p.field === a.path)} />
        ))}
      </div>
      {b.changes.length === 0 ? (
        <p>Built as designed.</p>
      ) : (
        <>
          <table>
            <thead>
              <tr>
                <th scope="col">What</th>
                <th scope="col">As designed</th>
                <th scope="col">As built</th>
              </tr>
            </thead>
            <tbody>
              {b.changes.map((c) => (
                <tr key={c.path}>
                  <th scope="row">{c.label}</th>
                  <td>{c.from || "not answered"}</td>
                  <td>
                    <b>{c.to}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p>
            <b>As built:</b> {b.summary}
          </p>
          {b.new.map((n) => (
            <div key={n.id + n.text} className={`panelNote ${n.severity}`}>
              <b>{severityWord[n.severity]}, new.</b> {n.text} <span className="soft">{n.why}</span>
            </div>
          ))}
          {b.gone.map((n) => (
            <p key={n.id + n.text} className="soft">
              No longer so: {n.text}
            </p>
          ))}
          {b.new.length === 0 && b.gone.length === 0 && <p>It weakens nothing: the notes are those of the design.</p>}
        </>
      )}
    </section>
  );
}

function Answer({ answer, problem }: { answer: Schemas["BuiltAnswer"]; problem: Schemas["Problem"] | undefined }) {
  const { state, dispatch, vocabulary, readOnly } = useJob();
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
