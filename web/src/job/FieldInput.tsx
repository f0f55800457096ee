import { NativeSelect, TextInput } from "@mantine/core";

import type { Field } from "../api/client";
import { Choices } from "../ui/Choices";
import { valueAt } from "./document";
import { factOf, useJob } from "./JobContext";

/** most is how many choices are shown side by side: fewer in a row of a list. */
const most = { alone: 6, inRow: 5 };

/** FieldInput answers one field: as choices side by side, a list, or text with any unit. */
export function FieldInput({ field, label = true, brief = false, list = false, onAnswer }: { field: Field; label?: boolean; /** without saying why a value is assumed */ brief?: boolean; /** choices as a list, however few */ list?: boolean; onAnswer?: () => void }) {
  const { state, dispatch, plan, readOnly } = useJob();
  const value = valueAt(state.doc, field.path);
  const fact = factOf(plan, field.path);
  const assumed = fact?.origin === "assumed" ? fact : undefined;
  const wrong = state.refused[field.path];
  const error = wrong && wrong.text === state.typing[field.path] ? `${wrong.text} ${wrong.problem.wrong}. Allowed: ${wrong.problem.allowed}.` : undefined;

  if (field.choices.length > 0) {
    const now = value === undefined ? "" : String(value);
    const answer = (v: string) => {
      if (field.kind === "level") dispatch({ type: "set", path: field.path, value: Number(v) });
      else dispatch({ type: "set", path: field.path, value: v });
      onAnswer?.();
    };
    if (list || field.choices.length > (brief ? most.inRow : most.alone)) {
      const none = field.pin ? "the plan decides" : assumed ? `assumed: ${assumed.text}` : "not answered";
      return (
        <NativeSelect
          label={label ? field.label : undefined}
          aria-label={field.label}
          disabled={readOnly}
          value={now}
          data={[{ value: "", label: none }, ...field.choices]}
          onChange={(e) => (e.currentTarget.value === "" ? dispatch({ type: "set", path: field.path, value: undefined }) : answer(e.currentTarget.value))}
        />
      );
    }
    const taken = now === "" ? field.choices.find((c) => c.label === assumed?.text)?.value : undefined;
    return <Choices legend={field.label} legendAt={label ? "above" : "nowhere"} disabled={readOnly} choices={field.choices} value={now} assumed={taken} onChoose={answer} onSame={onAnswer} />;
  }

  const shown = value === undefined ? "" : typeof value === "number" && field.unit ? `${value} ${field.unit}` : String(value);
  return (
    <TextInput
      wrapperProps={{ "data-quantity": true }}
      label={label ? field.label : undefined}
      aria-label={field.label}
      readOnly={readOnly}
      value={state.typing[field.path] ?? shown}
      placeholder={assumed ? `assumed ${assumed.text}` : field.pin ? `auto; ${field.example}` : field.example}
      description={assumed && label && !brief ? `assumed: ${assumed.why}` : undefined}
      error={error}
      type={field.kind === "date" ? "date" : "text"}
      inputMode={field.kind === "number" ? "text" : undefined}
      onChange={(e) => dispatch({ type: "type", path: field.path, text: e.currentTarget.value })}
      onBlur={() => dispatch({ type: "leave", path: field.path })}
      onKeyDown={(e) => {
        if (e.key !== "Enter" || error) return;
        e.currentTarget.blur();
        onAnswer?.();
      }}
    />
  );
}
