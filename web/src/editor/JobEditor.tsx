import { Button } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { Suspense, useCallback, useEffect, useMemo, useReducer, useState } from "react";

import { api, take, type Schemas, type Vocabulary } from "../api/client";
import { reduce, start } from "../job/history";
import { JobContext, type OpenJob } from "../job/JobContext";
import type { Journal } from "../job/journal";
import { columnOf } from "../job/picking";
import { Banner } from "../ui/Banner";
import { Page } from "../ui/Page";
import { Waiting } from "../ui/Wait";
import { ConflictDialog } from "./ConflictDialog";
import css from "./editor.module.css";
import { Keys } from "./Keys";
import { Palette } from "./Palette";
import { SaveState } from "./SaveState";
import { addressOf, sheetOf, sheets, type SheetKey } from "./sheets";
import { useKeys } from "./useKeys";
import { usePlan } from "./usePlan";
import { useSaving } from "./useSaving";

interface Props {
  opened: Schemas["Opened"];
  newest: Schemas["Opened"] | null;
  deleted: boolean;
  kept: Journal | null;
  vocabulary: Vocabulary;
  sheet: SheetKey;
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

  const go = (to: SheetKey) => navigate({ to: "/jobs/$id/{-$sheet}", params: { id, sheet: addressOf(to) } });
  useKeys({ sheet, plan, picked, pick, shown, show, ask, dispatch, go, showKeys: () => setKeys(true) });

  const number = String(newest?.number ?? opened.number).padStart(4, "0");
  const revision = newest?.revision ?? opened.revision;
  const unsaved = saving.saved.at !== "saved";
  const { version } = saving;
  const issue = useCallback(async () => {
    await take(api.POST("/api/jobs/{id}/revisions", { params: { path: { id } }, body: { base: version } }));
    await queries.invalidateQueries({ queryKey: ["revisions", id] });
    await queries.invalidateQueries({ queryKey: ["job", id] });
  }, [id, queries, version]);
  const job = useMemo<OpenJob | null>(
    () => plan && { id, number, revision, unsaved, issue, sheets, plan, state, dispatch, vocabulary, readOnly: false, thing, picked, pick, shown, show, asked, ask },
    [id, number, revision, unsaved, issue, plan, state, vocabulary, thing, picked, shown, asked],
  );
  const { Shown, label } = sheetOf(sheet);

  return (
    <Page
      says={
        <>
          <input
            className={css.title}
            aria-label="Title"
            placeholder="Untitled job"
            maxLength={120}
            value={state.typing.title ?? state.doc.title ?? ""}
            onChange={(e) => dispatch({ type: "type", path: "title", text: e.currentTarget.value })}
            onBlur={() => dispatch({ type: "leave", path: "title" })}
          />
          <SaveState number={number} revision={revision} saved={saving.saved} />
        </>
      }
      acts={
        <>
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
        </>
      }
    >
      {silent && (
        <Banner role="status">
          The server does not answer. What you type is kept in this browser; the figures are those of the last answer.
        </Banner>
      )}
      {saving.saved.at === "deleted" && (
        <Banner title="This job was deleted in another window">
          <div className="row">
            What is here is not lost.
            <Button size="compact-sm" onClick={() => void saving.putBack()}>
              Put the job back
            </Button>
          </div>
        </Banner>
      )}
      {saving.merged.length > 0 && (
        <Banner role="status" withCloseButton onClose={saving.forgetMerged}>
          Taken in from another window: {saving.merged.map((p) => vocabulary.fields.find((f) => f.path === p)?.label ?? p).join(", ")}.
        </Banner>
      )}
      {saving.saved.at === "conflict" && <ConflictDialog conflicts={saving.saved.conflicts} fields={vocabulary.fields} decide={saving.decide} />}
      <Keys opened={keys} onClose={() => setKeys(false)} />
      {job ? (
        <JobContext.Provider value={job}>
          <Suspense fallback={<Waiting what={label} />}>
            <Shown />
          </Suspense>
        </JobContext.Provider>
      ) : (
        <Waiting what="Planning" />
      )}
    </Page>
  );
}
