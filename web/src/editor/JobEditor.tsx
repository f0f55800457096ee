import { Button } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { lazy, Suspense, useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";

import { api, take, type Schemas, type Vocabulary } from "../api/client";
import { uuid } from "../api/once";
import { reduce, start } from "../job/history";
import { JobProvider, type Edit, type Shown } from "../job/JobContext";
import type { Journal } from "../job/journal";
import { columnOf } from "../job/picking";
import { Banner } from "../ui/Banner";
import { handOver } from "../ui/handOver";
import { Page } from "../ui/Page";
import { Waiting } from "../ui/Wait";
import { useMay, useMe } from "../ui/useMe";
import { useUnits, vocabularyOf } from "../ui/useSettings";
import css from "./editor.module.css";
import { SaveState } from "./SaveState";
import { Acts } from "./Acts";
import { addressOf, sheetOf, sheets, type SheetKey } from "./sheets";
import { useHere } from "./useHere";
import { useKeys } from "./useKeys";
import { usePlan } from "./usePlan";
import { useSaving } from "./useSaving";

/** What is seldom wanted is loaded when it is. */
const ConflictDialog = lazy(() => import("./ConflictDialog"));
const Finder = lazy(() => import("./Finder"));
const Keys = lazy(() => import("./Keys"));

interface Props {
  opened: Schemas["Opened"];
  newest: Schemas["Opened"] | null;
  deleted: boolean;
  kept: Journal | null;
  vocabulary: Vocabulary;
  sheet: SheetKey;
}

/** JobEditor is an open job: its draft, its plan and its sheets. */
export function JobEditor({ opened, newest, deleted, kept, vocabulary: workshops, sheet }: Props) {
  const { id } = opened;
  const [state, dispatch] = useReducer(reduce, null, () => start(kept?.doc ?? opened.draft.document, kept?.typing));
  const base = kept ? { version: kept.base, doc: kept.baseDoc } : { version: opened.draft.version, doc: opened.draft.document };
  const units = useUnits(state.doc.written?.units);
  // Its fields are said in its own units too, where it has some.
  const vocabulary = useQuery({ ...vocabularyOf(units), enabled: state.doc.written?.units !== undefined }).data ?? workshops;
  const { plan, silent, fell } = usePlan(state, dispatch);
  const [by] = useState(() => kept?.by ?? uuid());
  const saving = useSaving(id, base, opened.draft.savedAt, by, state, dispatch);
  const [thing, pick] = useState<string | null>(null);
  const picked = plan ? columnOf(plan, thing) : null;
  const [asked, ask] = useState<string | null>(null);
  const [shown, show] = useState<string | null>(null);
  const [keys, setKeys] = useState(false);
  const [wanted, setWanted] = useState(0);
  const find = useCallback(() => setWanted((n) => n + 1), []);
  const showKeys = useCallback(() => setKeys(true), []);
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
  useKeys({ sheet, plan, picked, pick, shown, show, ask, dispatch, go, find, showKeys });

  const number = String(newest?.number ?? opened.number).padStart(4, "0");
  const doc = useRef(state.doc);
  useEffect(() => {
    doc.current = state.doc;
  });
  const exportJob = useCallback(() => {
    handOver(JSON.stringify(doc.current, null, 2) + "\n", `job-${number}.json`, "application/json");
    void api.POST("/api/jobs/{id}/taken", { params: { path: { id } } }).catch(() => undefined); // with the server away nobody notes it
  }, [id, number]);
  const revision = newest?.revision ?? opened.revision;
  const unsaved = saving.saved.at !== "saved";
  const { version } = saving;
  const issue = useCallback(async () => {
    await take(api.POST("/api/jobs/{id}/revisions", { params: { path: { id } }, body: { base: version } }));
    await queries.invalidateQueries({ queryKey: ["revisions", id] });
    await queries.invalidateQueries({ queryKey: ["job", id] });
  }, [id, queries, version]);
  const me = useMe();
  const may = useMay();
  const here = useHere(id);
  const designs = may("design");
  const surveys = may("survey");
  const surveyed = me?.surveyed;
  const mayChange = useCallback((path: string) => designs || (surveys && surveyed?.includes(path.split(".")[0] ?? "") === true), [designs, surveys, surveyed]);
  const seen = useMemo<Shown | null>(
    () => plan && { id, number, revision, sheets, plan, vocabulary, readOnly: !designs, mayChange, thing, picked, pick, shown, show, asked, ask },
    [id, number, revision, plan, vocabulary, designs, mayChange, thing, picked, shown, asked],
  );
  const edit = useMemo<Edit>(() => ({ state, unsaved, version, issue }), [state, unsaved, version, issue]);
  const { Page: Sheet, label } = sheetOf(sheet);

  return (
    <Page
      says={
        <>
          <input
            className={css.title}
            aria-label="Title"
            placeholder="Untitled job"
            readOnly={!designs}
            maxLength={120}
            value={state.typing.title ?? state.doc.title ?? ""}
            onChange={(e) => dispatch({ type: "type", path: "title", text: e.currentTarget.value })}
            onBlur={() => dispatch({ type: "leave", path: "title" })}
          />
          <SaveState number={number} revision={revision} saved={saving.saved} />
          {here.length > 0 && (
            <span className={css.here} title={`${here.join(", ")} ${here.length === 1 ? "has" : "have"} this job open too`}>
              with {here.join(", ")}
            </span>
          )}
        </>
      }
      acts={<Acts id={id} undo={state.past.length > 0} redo={state.future.length > 0} dispatch={dispatch} find={find} exportJob={exportJob} showKeys={showKeys} />}
    >
      {silent && (
        <Banner role="status">
          The server does not answer. What you type is saved as soon as it does; until then the line above says where it is. The figures are those of the last answer.
        </Banner>
      )}
      {fell && (
        <Banner role="alert" title="This could not be worked out for these answers">
          That is a fault of this program, and no fault of yours. What you type is saved all the same; the figures, where there are any, are those before the last change.
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
      <Suspense>
        {saving.saved.at === "conflict" && <ConflictDialog conflicts={saving.saved.conflicts} fields={vocabulary.fields} decide={saving.decide} />}
        {keys && <Keys onClose={() => setKeys(false)} />}
        {wanted > 0 && <Finder wanted={wanted} go={go} dispatch={dispatch} pick={pick} ask={ask} plan={plan} exportJob={exportJob} showKeys={showKeys} />}
      </Suspense>
      {seen ? (
        <JobProvider shown={seen} edit={edit} dispatch={dispatch}>
          <Suspense fallback={<Waiting what={label} />}>
            <Sheet />
          </Suspense>
        </JobProvider>
      ) : (
        <Waiting what="Planning" />
      )}
    </Page>
  );
}
