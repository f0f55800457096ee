import { NativeSelect, TextInput } from "@mantine/core";
import { lazy, memo, Suspense } from "react";

import type { Field } from "../api/client";
import { Choices } from "../ui/Choices";
import { valueAt, type Value } from "./document";
import type { Action } from "./history";
import { factOf, useDispatch, useEdit, useShown } from "./JobContext";
import { asTyped, meant, typed as asWritten } from "../ui/units";

/** What picks a day is loaded where one is asked for. */
const DayInput = lazy(() => import("../ui/DayInput"));

/** most is how many choices are shown side by side: fewer in a row of a list, a few more where they are short. */
const most = { alone: 6, inRow: 5, short: 8 };
const shortLetters = 70;

/** areFew says whether choices fit side by side. */
function areFew(field: Field, brief: boolean): boolean {
  const count = field.choices.length;
  if (brief) return count <= most.inRow;
  return count <= most.alone || (count <= most.short && field.choices.reduce((sum, c) => sum + c.label.length, 0) <= shortLetters);
}

interface Props {
  field: Field;
  label?: boolean;
  /** without saying why a value is assumed */
  brief?: boolean;
  /** choices as a list, however few */
  list?: boolean;
  onAnswer?: () => void;
}

/** FieldInput answers one field: as choices side by side, a list, or text with any unit. */
export function FieldInput({ field, label = true, brief = false, list = false, onAnswer }: Props) {
  const { plan, mayChange } = useShown();
  const { state } = useEdit();
  const { path } = field;
  const fact = factOf(plan, path);
  const none = valueAt(state.doc, path) === undefined;
  // What the workshop always answers stands where the job does not.
  const assumed = fact?.origin === "assumed" || (none && !field.pin) ? fact : undefined;
  const wrong = state.refused[path];
  const typed = state.typing[path];
  const error = wrong && wrong.text === typed ? `${asWritten(wrong.text)} ${wrong.problem.wrong}. Allowed: ${wrong.problem.allowed}.` : undefined;
  const as = field.kind === "date" ? "day" : field.choices.length === 0 ? "text" : list || !areFew(field, brief) ? "list" : "choices";
  const Control = controls[as];
  return <Control field={field} label={label} brief={brief} value={valueAt(state.doc, path)} typed={typed} error={error} assumed={assumed?.text} why={assumed?.why} readOnly={!mayChange(path)} dispatch={useDispatch()} onAnswer={onAnswer} />;
}

interface ControlProps {
  field: Field;
  label: boolean;
  brief: boolean;
  value: Value;
  /** What is being typed, and is not read yet. */
  typed: string | undefined;
  error: string | undefined;
  /** What stands in for an answer, and why. */
  assumed: string | undefined;
  why: string | undefined;
  readOnly: boolean;
  dispatch: (action: Action) => void;
  onAnswer: (() => void) | undefined;
}

/** answer is a choice as the document keeps it: a level is a number. */
const answer = (field: Field, choice: string): Action => ({ type: "set", path: field.path, value: choice === "" ? undefined : field.kind === "level" ? Number(choice) : choice });

// Each is drawn anew only where something of its own field changed.

const ChoiceList = memo(function ChoiceList({ field, label, value, assumed, readOnly, dispatch, onAnswer }: ControlProps) {
  const none = field.pin ? "the plan decides" : assumed ? `assumed: ${assumed}` : "not answered";
  const take = (choice: string) => {
    dispatch(answer(field, choice));
    if (choice !== "") onAnswer?.();
  };
  return (
    <NativeSelect
      label={label ? field.label : undefined}
      aria-label={field.label}
      disabled={readOnly}
      value={value === undefined ? "" : String(value)}
      data={[{ value: "", label: none }, ...field.choices]}
      onChange={(e) => take(e.currentTarget.value)}
    />
  );
});

const SideBySide = memo(function SideBySide({ field, label, value, assumed, readOnly, dispatch, onAnswer }: ControlProps) {
  const stands = value === undefined ? field.choices.find((c) => c.label === assumed)?.value : undefined;
  const take = (choice: string) => {
    dispatch(answer(field, choice));
    onAnswer?.();
  };
  return <Choices legend={field.label} legendAt={label ? "above" : "nowhere"} disabled={readOnly} choices={field.choices} value={value === undefined ? "" : String(value)} assumed={stands} onChoose={take} onSame={onAnswer} />;
});

const Typed = memo(function Typed({ field, label, brief, value, typed, error, assumed, why, readOnly, dispatch, onAnswer }: ControlProps) {
  const shown = value === undefined ? "" : typeof value === "number" && field.unit ? asTyped(value, field.unit) : String(value);
  return (
    <TextInput
      wrapperProps={{ "data-quantity": true }}
      label={label ? field.label : undefined}
      aria-label={field.label}
      readOnly={readOnly}
      value={typed === undefined ? shown : asWritten(typed)}
      placeholder={assumed ? `assumed ${assumed}` : field.pin ? `auto; ${field.example}` : field.example && `such as ${field.example}`}
      description={why && label && !brief ? `assumed: ${why}` : undefined}
      error={error}
      onChange={(e) => dispatch({ type: "type", path: field.path, text: meant(e.currentTarget.value, field.unit ?? "") })}
      onBlur={() => dispatch({ type: "leave", path: field.path })}
      onKeyDown={(e) => {
        if (e.key !== "Enter" || error) return;
        e.currentTarget.blur();
        onAnswer?.();
      }}
    />
  );
});

const Day = memo(function Day({ field, label, value, error, readOnly, dispatch }: ControlProps) {
  const take = (text: string) => {
    dispatch({ type: "type", path: field.path, text });
    dispatch({ type: "leave", path: field.path });
  };
  return (
    <Suspense fallback={<TextInput label={label ? field.label : undefined} aria-label={field.label} readOnly value={String(value ?? "")} />}>
      <DayInput label={label ? field.label : undefined} named={field.label} value={String(value ?? "")} error={error} readOnly={readOnly} onDay={take} />
    </Suspense>
  );
});

const controls = { list: ChoiceList, choices: SideBySide, text: Typed, day: Day };
