import { useCallback, useEffect, useRef, useState, type Dispatch } from "react";

import { api, Refused, take, type Problem, type Schemas } from "../api/client";
import { changed, merge, same, withValue, type Conflict, type Doc } from "../job/document";
import { overlay, unreadOf, type Action, type Edited } from "../job/history";
import * as journal from "../job/journal";

export type Saved =
  | { at: "saved"; when: string }
  | { at: "saving" }
  | { at: "waiting"; why: string; /** the server answered, and refuses it */ refused: boolean; /** the browser keeps it meanwhile */ kept: boolean }
  | { at: "deleted" }
  | { at: "conflict"; conflicts: Conflict[]; theirs: Schemas["Draft"] };

const said = (p: Problem) => `${p.field} ${p.wrong}; allowed: ${p.allowed}`;

/** pause gathers keystrokes into one save, in ms. */
const pause = 350;
/** retry is how long to wait before a save that failed is sent again, in ms. */
const retry = 2000;

interface Base {
  version: number;
  doc: Doc;
}

/**
 * useSaving saves the draft as it is edited. What is not yet on the server is kept
 * in the browser. Where another window saved first, fields that only one side
 * changed are joined; fields that both changed are asked about.
 */
export function useSaving(id: string, opened: Base, when: string, by: string, state: Edited, dispatch: Dispatch<Action>) {
  const [at, setAt] = useState<Base>(opened);
  const base = useRef(at);
  const busy = useRef(false);
  const [saved, setSaved] = useState<Saved>({ at: "saved", when });
  const [tries, setTries] = useState(0);
  const [merged, setMerged] = useState<string[]>([]);
  const latest = useRef(state);
  useEffect(() => {
    latest.current = state;
  });

  const rebase = useCallback((draft: Schemas["Draft"]) => {
    base.current = { version: draft.version, doc: draft.document };
    setAt(base.current);
  }, []);

  /** join takes in a newer draft of the server: at once, after asking, or later, when what is being typed in what it changed has been read. */
  const join = useCallback(
    (draft: Schemas["Draft"]): "joined" | "asks" | "later" => {
      const theirs = changed(base.current.doc, draft.document);
      if (unreadOf(latest.current, theirs)) return "later";
      const result = merge(base.current.doc, latest.current.doc, draft.document);
      if (result.conflicts.length > 0) {
        setSaved({ at: "conflict", conflicts: result.conflicts, theirs: draft });
        return "asks";
      }
      setMerged(theirs);
      rebase(draft);
      dispatch({ type: "adopt", doc: result.merged });
      return "joined";
    },
    [dispatch, rebase],
  );

  /** write keeps in the browser what is not on the server yet; it says whether the browser does. */
  const write = useCallback(() => {
    const { doc, typing } = latest.current;
    return journal.keep(id, { base: base.current.version, baseDoc: base.current.doc, doc, typing, by, beat: Date.now() });
  }, [id, by]);

  const failed = useCallback(
    (error: unknown) => {
      if (error instanceof Refused && error.refusal.type === "urn:epitrope:stale" && error.refusal.current) {
        const went = join(error.refusal.current);
        if (went === "joined") setTries((n) => n + 1);
        if (went === "later") setSaved({ at: "waiting", why: "another window saved first", refused: false, kept: write() });
        return;
      }
      if (error instanceof Refused && error.refusal.type === "urn:epitrope:deleted") {
        setSaved({ at: "deleted" });
        return;
      }
      const why = error instanceof Refused ? (error.refusal.problems[0] ? said(error.refusal.problems[0]) : error.message) : String(error);
      setSaved({ at: "waiting", why, refused: error instanceof Refused && error.refusal.status < 500, kept: write() });
    },
    [join, write],
  );

  const save = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    const sent = latest.current.doc;
    setSaved({ at: "saving" });
    try {
      const draft = await take(
        api.PUT("/api/jobs/{id}/draft", {
          params: { path: { id } },
          body: { base: base.current.version, by, document: sent as unknown as Record<string, unknown> },
        }),
      );
      rebase(draft);
      setSaved({ at: "saved", when: draft.savedAt });
      busy.current = false;
      if (!same(latest.current.doc, sent)) setTries((n) => n + 1);
    } catch (error) {
      busy.current = false;
      failed(error);
    }
  }, [by, failed, id, rebase]);

  // A change is not saved from the key that made it until the server has it.
  const pending = !same(at.doc, state.doc);
  const unread = Object.keys(overlay(state).sent).length > 0;
  const asking = saved.at === "conflict" || saved.at === "deleted";

  // Keep in the browser at once; save after a short pause.
  useEffect(() => {
    if (!pending && Object.keys(state.typing).length === 0) {
      journal.drop(id);
      return;
    }
    write();
    const beat = setInterval(write, journal.silence / 3);
    const timer = !pending || asking ? undefined : setTimeout(() => void save(), pause);
    return () => {
      clearInterval(beat);
      clearTimeout(timer);
    };
  }, [id, state.doc, state.typing, pending, asking, save, tries, write]);

  // A save that failed is sent again until it arrives.
  const waiting = saved.at === "waiting" ? saved : null;
  useEffect(() => {
    if (!waiting) return;
    const timer = setTimeout(() => void save(), retry);
    return () => clearTimeout(timer);
  }, [waiting, save]);

  /** heard takes in what another window saved, where nothing here is waiting; what cannot be taken in yet is, once it can be. */
  const late = useRef<Schemas["Draft"] | null>(null);
  const heard = useCallback(
    (draft: Schemas["Draft"]) => {
      late.current = null;
      if (draft.version > base.current.version && !busy.current && !asking && join(draft) === "later") late.current = draft;
    },
    [asking, join],
  );
  useEffect(() => {
    if (!unread && late.current) heard(late.current);
  }, [unread, heard]);

  /** decide settles a conflict field by field. */
  const decide = useCallback(
    (mine: Set<string>) => {
      if (saved.at !== "conflict") return;
      let doc = merge(base.current.doc, latest.current.doc, saved.theirs.document).merged;
      for (const c of saved.conflicts) if (mine.has(c.path)) doc = withValue(doc, c.path, c.mine);
      rebase(saved.theirs);
      setSaved({ at: "saved", when: saved.theirs.savedAt });
      dispatch({ type: "replace", doc });
    },
    [dispatch, rebase, saved],
  );

  const putBack = useCallback(async () => {
    await take(api.POST("/api/jobs/{id}/restore", { params: { path: { id } } }));
    setSaved({ at: "saving" });
    setTries((n) => n + 1);
    void save();
  }, [id, save]);

  const gone = useCallback(() => setSaved({ at: "deleted" }), []);

  const shown: Saved = saved.at === "saved" && (pending || unread) ? { at: "saving" } : saved;
  return { saved: shown, version: at.version, merged, forgetMerged: () => setMerged([]), heard, decide, putBack, gone };
}
