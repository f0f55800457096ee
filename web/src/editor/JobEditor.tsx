import { Alert, Button, Loader } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useEffect, useMemo, useReducer, useState } from "react";

import { api, take, type Schemas, type Vocabulary } from "../api/client";
import { DaySheet } from "../day/DaySheet";
import { CutsSheet } from "../make/CutsSheet";
import { MethodsSheet } from "../methods/MethodsSheet";
import { Record } from "../record/Record";
import { Notes } from "../section/Notes";
import { QuestionLine } from "../section/QuestionLine";
import { Section } from "../section/Section";
import { TitleBlock } from "../section/TitleBlock";
import { StepsSheet } from "../steps/StepsSheet";
import { SurveySheet } from "../survey/SurveySheet";
import { Keys } from "./Keys";
import { SchemeSwitch } from "../ui/SchemeSwitch";
import { WiringSheet } from "../wiring/WiringSheet";
import { ConflictDialog } from "./ConflictDialog";
import { reduce, start } from "../job/history";
import { JobContext, type OpenJob } from "../job/JobContext";
import type { Journal } from "../job/journal";
import { Palette } from "./Palette";
import { SaveState } from "./SaveState";
import { columnOf } from "../job/picking";
import { addressOf, sheets, type Sheet } from "./sheets";
import { useKeys } from "./useKeys";
import { usePlan } from "./usePlan";
import { useSaving } from "./useSaving";

interface Props {
  opened: Schemas["Opened"];
  newest: Schemas["Opened"] | null;
  deleted: boolean;
  kept: Journal | null;
  vocabulary: Vocabulary;
  sheet: Sheet;
}

/** JobEditor is an open job: its draft, its plan and its sheets. */
export function JobEditor({ opened, newest, deleted, kept, vocabulary, sheet }: Props) {
  const { id } = opened;
  const [state, dispatch] = useReducer(reduce, null, () => start(kept?.doc ?? opened.draft.document, kept?.typing));
  const base = kept ? { version: kept.base, doc: kept.baseDoc } : { version: opened.draft.version, doc: opened.draft.document };
  const { plan, silent } = usePlan(state, dispatch);
  const saving = useSaving(id, base, opened.draft.savedAt, state, dispatch);
  const [thing, pick] = useState<string | null>(null);
  const picked = plan ? columnOf(plan, thing) : null;
  const [asked, ask] = useState<string | null>(null);
  const [shown, show] = useState<string | null>(null);
  const [keys, setKeys] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { heard, gone } = saving;

  useEffect(() => {
    if (newest) heard(newest.draft);
  }, [newest, heard]);
  useEffect(() => {
    if (deleted) gone();
  }, [deleted, gone]);
  useEffect(() => {
    document.title = `${state.doc.title || "Untitled job"}, Epitrope`;
  }, [state.doc.title]);

  const go = (to: Sheet) => navigate({ to: "/jobs/$id/{-$sheet}", params: { id, sheet: addressOf(to) } });
  useKeys({ sheet, plan, picked, pick, shown, show, ask, dispatch, go, showKeys: () => setKeys(true) });

  const job = useMemo<OpenJob | null>(
    () => plan && { plan, state, dispatch, vocabulary, readOnly: false, thing, picked, pick, shown, show, asked, ask },
    [plan, state, vocabulary, thing, picked, shown, asked],
  );
  const number = String(newest?.number ?? opened.number).padStart(4, "0");
  const revision = newest?.revision ?? opened.revision;

  async function issue() {
    await take(api.POST("/api/jobs/{id}/revisions", { params: { path: { id } }, body: { base: saving.version } }));
    await queries.invalidateQueries({ queryKey: ["revisions", id] });
    await queries.invalidateQueries({ queryKey: ["job", id] });
  }

  return (
    <div className="page">
      <header className="bar">
        <Link to="/" className="wordmark" aria-label="Epitrope, to the jobs">
          Epitrope
        </Link>
        <input
          className="title"
          aria-label="Title"
          placeholder="Untitled job"
          maxLength={120}
          value={state.typing.title ?? state.doc.title ?? ""}
          onChange={(e) => dispatch({ type: "type", path: "title", text: e.currentTarget.value })}
          onBlur={() => dispatch({ type: "leave", path: "title" })}
        />
        <SaveState number={number} revision={revision} saved={saving.saved} />
        <span className="gap" />
        <Button variant="subtle" size="compact-sm" disabled={state.past.length === 0} onClick={() => dispatch({ type: "undo" })}>
          Undo
        </Button>
        <Button variant="subtle" size="compact-sm" disabled={state.future.length === 0} onClick={() => dispatch({ type: "redo" })}>
          Redo
        </Button>
        <Palette go={go} dispatch={dispatch} pick={pick} ask={ask} plan={plan} doc={state.doc} number={number} showKeys={() => setKeys(true)} />
        <Button className="wideOnly" variant="subtle" size="compact-sm" onClick={() => setKeys(true)}>
          Keys ?
        </Button>
        <SchemeSwitch />
      </header>
      {silent && (
        <Alert color="ink" className="banner" role="status">
          The server does not answer. What you type is kept in this browser; the figures are those of the last answer.
        </Alert>
      )}
      {saving.saved.at === "deleted" && (
        <Alert color="ink" className="banner" title="This job was deleted in another window">
          <div className="row">
            What is here is not lost.
            <Button size="compact-sm" onClick={() => void saving.putBack()}>
              Put the job back
            </Button>
          </div>
        </Alert>
      )}
      {saving.merged.length > 0 && (
        <Alert color="ink" className="banner" role="status" withCloseButton closeButtonLabel="Close" onClose={saving.forgetMerged}>
          Taken in from another window: {saving.merged.map((p) => vocabulary.fields.find((f) => f.path === p)?.label ?? p).join(", ")}.
        </Alert>
      )}
      {saving.saved.at === "conflict" && <ConflictDialog conflicts={saving.saved.conflicts} fields={vocabulary.fields} decide={saving.decide} />}
      <Keys opened={keys} onClose={() => setKeys(false)} />
      {job ? (
        <JobContext.Provider value={job}>
          {sheet === "section" ? (
            <main className="sheet">
              <h1 className="hidden">{state.doc.title || "Untitled job"}: section</h1>
              <QuestionLine />
              <Section />
              <div className="foot">
                <div className="footLeft">
                  <div className="wideOnly">
                    <Notes />
                  </div>
                  <SheetTabs id={id} />
                </div>
                <TitleBlock sheet="Sheet 1, section" number={number} state={revision ? `draft after revision ${revision}` : "draft, never issued"} />
              </div>
            </main>
          ) : (
            <main className="sheet">
              {sheet !== "record" && (
                <h1 className="hidden">
                  {state.doc.title || "Untitled job"}: {sheet}
                </h1>
              )}
              {sheet === "survey" && <SurveySheet />}
              {sheet === "methods" && <MethodsSheet />}
              {sheet === "day" && <DaySheet id={id} jobNumber={number} />}
              {sheet === "wiring" && <WiringSheet />}
              {sheet === "cuts" && <CutsSheet />}
              {sheet === "steps" && <StepsSheet id={id} />}
              {sheet === "record" && <Record id={id} revision={revision} unsaved={saving.saved.at !== "saved"} issue={issue} />}
              <span className="gap" />
              <SheetTabs id={id} />
            </main>
          )}
        </JobContext.Provider>
      ) : (
        <Loader role="status" aria-label="Planning" color="ink" m="xl" />
      )}
    </div>
  );
}

/** SheetTabs switches between the sheets of the job, as the digits do. */
function SheetTabs({ id }: { id: string }) {
  return (
    <nav className="sheets" aria-label="Sheets">
      {sheets.map((s) => (
        <Link key={s.name} to="/jobs/$id/{-$sheet}" params={{ id, sheet: addressOf(s.name) }} activeOptions={{ exact: true }}>
          {s.digit} {s.label}
        </Link>
      ))}
    </nav>
  );
}
