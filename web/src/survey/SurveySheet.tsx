import { Button } from "@mantine/core";
import { useMemo, useState } from "react";

import { valueAt } from "../job/document";
import { FieldInput } from "../job/FieldInput";
import { factOf, fieldOf, JobContext, useJob, type OpenJob } from "../job/JobContext";
import { LoggedTest } from "../regulation/LoggedTest";
import { CheckList } from "../ui/CheckList";
import { AsFound } from "../found/AsFound";
import { FoundRows } from "../found/FoundRows";
import { BookPanel } from "./BookPanel";
import { FeedHunt } from "./FeedHunt";
import { groups, type Group } from "./groups";
import { how, Known, marking, type How } from "./known";
import { Loads, NeedsPanel } from "./Needs";

/** SurveySheet is sheet 0: what is looked at and measured on the vehicle, a group at a time. */
export function SurveySheet() {
  const job = useJob();
  const [at, setAt] = useState(() => sessionStorage.getItem("surveyAt") ?? groups[0]?.id ?? "");
  const [mark, setMark] = useState<How>(() => (sessionStorage.getItem("surveyHow") as How | null) ?? "measured");
  const index = Math.max(0, groups.findIndex((g) => g.id === at));
  const group = groups[index] as Group;
  const go = (id: string) => {
    sessionStorage.setItem("surveyAt", id);
    setAt(id);
    window.scrollTo({ top: 0 });
  };
  const choose = (h: How) => {
    sessionStorage.setItem("surveyHow", h);
    setMark(h);
  };
  const next = groups[index + 1];
  return (
    <div className="survey">
      <nav className="surveyNav" aria-label="Survey">
        {groups.map((g) => (
          <button key={g.id} type="button" className={g.id === group.id ? "on" : ""} aria-current={g.id === group.id} onClick={() => go(g.id)}>
            {g.title} <span className="soft">{countOf(job, g)}</span>
          </button>
        ))}
      </nav>
      <section className="surveyGroup" aria-label={group.title}>
        <header>
          <h2>{group.title}</h2>
          <p className="soft">{group.says}</p>
          {group.fields.length > 0 && <fieldset className="choices how">
            <legend>What I enter now is</legend>
            {how.map((h) => (
              <label key={h.value} className={`choice ${mark === h.value ? "on" : ""}`}>
                <input type="radio" name="how" checked={mark === h.value} onChange={() => choose(h.value)} />
                {h.label}
              </label>
            ))}
          </fieldset>}
        </header>
        {group.id === "needs" && <Loads />}
        <Marked mark={mark}>
          <div className="surveyFields">
            {group.fields.map((path) => (
              <SurveyField key={path} path={path} />
            ))}
          </div>
        </Marked>
        {group.id === "vehicle" && <BookPanel />}
        {group.id === "alternator" && <LoggedTest />}
        {group.id === "routes" && (
          <>
            <h3>Earth points, grommets, fasteners</h3>
            <FoundRows list="points" fields={["kind", "where", "size"]} add="Add a place" first={["kind", "earth"]}>
              {() => null}
            </FoundRows>
          </>
        )}
        {group.id === "found" && <AsFound />}
        {group.id === "feed" && <FeedHunt />}
        <div className="row surveyMove">
          <Button variant="default" disabled={index === 0} onClick={() => go(groups[index - 1]?.id ?? group.id)}>
            Back
          </Button>
          {next && <Button onClick={() => go(next.id)}>Next: {next.title.toLowerCase()}</Button>}
        </div>
      </section>
      <aside className="surveySide" aria-label="What it means">
        {group.id === "needs" ? <NeedsPanel /> : <CheckList checks={job.plan.checks.filter((c) => group.checks.includes(c.group))} />}
        <CheckList title="Answers that do not go together" checks={job.plan.checks.filter((c) => c.group === "answers")} />
        <div>
          <h3>The plan so far</h3>
          <p>{job.plan.summary}</p>
        </div>
      </aside>
    </div>
  );
}

/** Marked marks what is answered within it with how it is known. */
function Marked({ mark, children }: { mark: How; children: React.ReactNode }) {
  const job = useJob();
  const marked = useMemo<OpenJob>(() => ({ ...job, dispatch: marking(job, mark) }), [job, mark]);
  return <JobContext.Provider value={marked}>{children}</JobContext.Provider>;
}

function SurveyField({ path }: { path: string }) {
  const job = useJob();
  const field = fieldOf(job, path);
  if (!field || (path === "aux.same" || path === "aux.feed" || path === "aux.linkM" ? Number(valueAt(job.state.doc, "aux.count") ?? 1) < 2 : false)) return null;
  return (
    <div className="surveyField">
      <FieldInput field={field} />
      <Known path={path} />
    </div>
  );
}

/** countOf says how many of a group's questions are answered. */
function countOf(job: OpenJob, g: Group): string {
  if (g.id === "feed") {
    const points = job.plan.signal.feeds;
    return points.length === 0 ? "" : `${points.filter((p) => p.candidate).length}/${points.length}`;
  }
  const answered = g.fields.filter((p) => valueAt(job.state.doc, p) !== undefined && factOf(job.plan, p)?.origin !== "assumed").length;
  return `${answered}/${g.fields.length}`;
}

