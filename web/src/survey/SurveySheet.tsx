import { Button } from "@mantine/core";
import cx from "clsx";
import { useMemo } from "react";

import { valueAt } from "../job/document";
import { FieldInput } from "../job/FieldInput";
import { FoldedFields } from "../job/FoldedFields";
import { DispatchProvider, factOf, fieldOf, useDispatch, useEdit, useJob, type OpenJob } from "../job/JobContext";
import { LoggedTest } from "../regulation/LoggedTest";
import { Sheet } from "../job/Sheet";
import { CheckList } from "../ui/CheckList";
import { Choices } from "../ui/Choices";
import { Fieldset } from "../ui/Fieldset";
import { useStored } from "../ui/stored";
import { AsFound } from "../found/AsFound";
import { FoundRows } from "../found/FoundRows";
import { Beliefs } from "./Beliefs";
import { BookPanel } from "./BookPanel";
import { Changed } from "./Changed";
import { FeedHunt } from "./FeedHunt";
import { groups, type Group } from "./groups";
import { how, Known, marking, type How } from "./known";
import { Loads, NeedsPanel } from "./Needs";
import css from "./survey.module.css";

/** SurveySheet is sheet 0: what is looked at and measured on the vehicle, a group at a time. */
export default function SurveySheet() {
  const job = useJob();
  const [at, setAt] = useStored("surveyAt", groups[0]?.id ?? "", "window");
  const [mark, setMark] = useStored("surveyHow", "measured", "window") as [How, (h: string) => void];
  const index = Math.max(0, groups.findIndex((g) => g.id === at));
  const group = groups[index] as Group;
  const go = (id: string) => {
    setAt(id);
    window.scrollTo({ top: 0 });
  };
  const next = groups[index + 1];
  // A group of which all is answered folds, unless it is open.
  const done = groups.filter((g) => g.id !== group.id && isDone(job, g));
  const entry = (g: Group) => (
    <button key={g.id} type="button" className={cx(g.id === group.id && css.on)} aria-current={g.id === group.id} onClick={() => go(g.id)}>
      {g.title} <span className="soft">{countOf(job, g)}</span>
    </button>
  );
  return (
    <Sheet name="survey" fills>
    <div className={css.survey}>
      <nav className={css.nav} aria-label="Survey">
        {groups.filter((g) => !done.includes(g)).map(entry)}
        {done.length > 0 && (
          <details>
            <summary>{done.length} done</summary>
            {done.map(entry)}
          </details>
        )}
      </nav>
      <section className={css.group} aria-label={group.title}>
        <header>
          <h2>{group.title}</h2>
          <p className="soft">{group.says}</p>
          {group.fields.length > 0 && <Choices legend="What I enter now is" legendAt="beside" choices={how} value={mark} onChoose={setMark} />}
        </header>
        {group.id === "needs" && <Loads />}
        <Marked mark={mark}>
          <Fieldset>
            {group.fields.map((path) => (
              <SurveyField key={path} path={path} />
            ))}
          </Fieldset>
          <Measured group={group} />
        </Marked>
        {group.id === "vehicle" && <BookPanel />}
        {group.id === "alternator" && <LoggedTest />}
        {group.id === "routes" && (
          <>
            <h3>Earth points, grommets, fasteners</h3>
            <FoundRows list="points" fields={["kind", "where", "size"]} add="Add a place" first={["kind", "earth"]} />
          </>
        )}
        {group.id === "aux" && (
          <>
            <h3>A bank of unlike batteries</h3>
            <p className="soft">Listed one by one, where they differ in kind, size or age: two to four in parallel.</p>
            <FoundRows list="bank" fields={["chemistry", "ah", "ageYears"]} add="Add a battery" first={["chemistry", "agm"]} />
          </>
        )}
        {group.id === "arranged" && (
          <>
            <h3>What hangs on the run at the coupling</h3>
            <FoundRows list="taps" fields={["kind", "name", "at", "amps", "hours", "when", "fused", "longM"]} add="Add a fuse block, an inverter, a feed or a load" first={["kind", "block"]} />
          </>
        )}
        {group.id === "found" && <AsFound />}
        {group.id === "feed" && <FeedHunt />}
        {group.id === "beliefs" && <Beliefs />}
        <div className={cx("row", css.move)}>
          <Button variant="default" disabled={index === 0} onClick={() => go(groups[index - 1]?.id ?? group.id)}>
            Back
          </Button>
          {next && <Button onClick={() => go(next.id)}>Next: {next.title.toLowerCase()}</Button>}
        </div>
      </section>
      <aside className={css.side} aria-label="What it means">
        {group.id === "needs" ? <NeedsPanel /> : <CheckList checks={job.plan.checks.filter((c) => group.checks.includes(c.group))} />}
        <Changed key={group.id} />
        <CheckList title="Answers that do not go together" checks={job.plan.checks.filter((c) => c.group === "answers")} />
        <div>
          <h3>The plan so far</h3>
          <p>{job.plan.summary}</p>
        </div>
      </aside>
    </div>
    </Sheet>
  );
}

/** Measured asks a group's parts for what their labels say and meters show, folded. */
function Measured({ group }: { group: Group }) {
  const { plan } = useJob();
  const parts = plan.columns.filter((c) => group.parts?.includes(c.id));
  return parts.flatMap((c) =>
    c.folded.map((f) => (
      <FoldedFields key={c.id + f.title} folded={{ title: parts.length > 1 ? `${c.name}. ${f.title}` : f.title, fields: f.fields.filter((p) => !group.fields.includes(p)) }} />
    )),
  );
}

/** Marked marks what is answered within it with how it is known. */
function Marked({ mark, children }: { mark: How; children: React.ReactNode }) {
  const dispatch = useDispatch();
  const { state } = useEdit();
  return <DispatchProvider value={useMemo(() => marking(dispatch, state, mark), [dispatch, state, mark])}>{children}</DispatchProvider>;
}

function SurveyField({ path }: { path: string }) {
  const job = useJob();
  const field = fieldOf(job, path);
  if (!field) return null;
  return (
    <div className={css.field}>
      <FieldInput field={field} />
      <Known path={path} />
    </div>
  );
}

/** answered is how many of a group's questions are answered. */
const answered = (job: OpenJob, g: Group): number => g.fields.filter((p) => valueAt(job.state.doc, p) !== undefined && factOf(job.plan, p)?.origin !== "assumed").length;

/** isDone says whether every question of a group is answered. */
const isDone = (job: OpenJob, g: Group): boolean => g.fields.length > 0 && answered(job, g) === g.fields.length;

/** countOf says how many of a group's questions are answered. */
function countOf(job: OpenJob, g: Group): string {
  if (g.id === "feed") {
    const points = job.plan.signal.feeds;
    return points.length === 0 ? "" : `${points.filter((p) => p.candidate).length}/${points.length}`;
  }
  if (g.id === "beliefs") return "";
  return `${answered(job, g)}/${g.fields.length}`;
}

