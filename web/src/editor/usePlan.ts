import { useLayoutEffect, useRef, useState, type Dispatch } from "react";

import { api, NoAnswer, take, type Plan } from "../api/client";
import { overlay, type Action, type Edited } from "../job/history";

/** wait is how long to leave a silent server alone before asking again, in ms. */
const wait = 1500;

/**
 * usePlan keeps the plan of what is being edited: every change is sent at once,
 * before the screen is painted; the newest answer wins, and a server that does not
 * answer is asked again. What it cannot work out is told, and not asked for twice.
 */
export function usePlan(state: Edited, dispatch: Dispatch<Action>): { plan: Plan | null; silent: boolean; fell: boolean } {
  const [plan, setPlan] = useState<Plan | null>(null);
  const [silent, setSilent] = useState(false);
  const [fell, setFell] = useState(false);
  const [again, setAgain] = useState(0);
  const { doc, sent } = overlay(state);
  const key = JSON.stringify(doc);
  const latest = useRef({ doc, sent });
  const planned = useRef("");
  useLayoutEffect(() => {
    latest.current = { doc, sent };
  });

  useLayoutEffect(() => {
    const abort = new AbortController();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const asked = latest.current;
    if (planned.current === key) return;
    take(api.POST("/api/plan", { body: asked.doc as unknown as Record<string, unknown>, signal: abort.signal }))
      .then((answer) => {
        if (abort.signal.aborted) return;
        setSilent(false);
        setFell(false);
        dispatch({ type: "read", doc: answer.document, sent: asked.sent, problems: answer.problems });
        if (answer.problems.length > 0) return;
        planned.current = JSON.stringify(answer.document);
        setPlan(answer.plan);
      })
      .catch((error: unknown) => {
        if (abort.signal.aborted) return;
        setSilent(error instanceof NoAnswer);
        setFell(!(error instanceof NoAnswer)); // asked again it would fall again: the next answer may not
        if (error instanceof NoAnswer) timer = setTimeout(() => setAgain((n) => n + 1), wait);
      });
    return () => {
      abort.abort();
      clearTimeout(timer);
    };
  }, [key, again, dispatch]);

  return { plan, silent, fell };
}
