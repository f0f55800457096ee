import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "@tanstack/react-router";

import { api, take, whyNot } from "../api/client";
import { leaves, valueAt, type Value } from "../job/document";
import { useJob } from "../job/JobContext";
import { isList } from "../job/rows";
import { useDates } from "../ui/useDates";
import { Told, Wrong } from "../ui/Wait";
import { knownPath } from "./known";
import css from "./survey.module.css";

/** BookPanel is the vehicle book on this job's model: what is known of it, to start from, and a place for what is found here. */
export function BookPanel() {
  const { state, plan, dispatch, mayChange } = useJob();
  const readOnly = !mayChange("vehicle");
  const { id = "" } = useParams({ strict: false });
  const queries = useQueryClient();
  const dates = useDates();
  const model = String(valueAt(state.doc, "vehicle.model") ?? "");
  const book = useQuery({
    queryKey: ["vehicles", model.trim().toLowerCase()],
    queryFn: () => take(api.GET("/api/vehicles", { params: { query: { model } } })),
    enabled: model.trim() !== "",
  });
  const add = useMutation({
    mutationFn: () => take(api.POST("/api/jobs/{id}/finds", { params: { path: { id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["vehicles"] }),
  });
  if (model.trim() === "") return <p className="soft">Name the model: what was found on other vehicles of that model then stands here to start from.</p>;
  const entry = book.data?.[0];
  const missing = entry ? [...leaves(entry.document)].filter(([path]) => path.includes(".") && path !== "vehicle.model" && valueAt(state.doc, path) === undefined) : [];
  const start = () => {
    const values: Record<string, Value> = {};
    for (const [path, value] of missing) {
      values[path] = value;
      if (!isList(path.split(".")[0] ?? "")) values[knownPath(path)] = "book";
    }
    dispatch({ type: "setAll", values });
  };
  const feeds = entry ? Object.keys(entry.document.feeds ?? {}).length : 0;
  return (
    <section className={css.book} aria-label="Vehicle book">
      <h3>Vehicle book: {model}</h3>
      {entry ? (
        <p>
          {entry.finds} {entry.finds === 1 ? "job has" : "jobs have"} put something in, last {dates.since(entry.lastAt)}: {leaves(entry.document).size} answers, {feeds} feed {feeds === 1 ? "point" : "points"}.{" "}
          {missing.length === 0 ? "This job has all of it." : `${missing.length} of them are not answered here.`}
        </p>
      ) : (
        <p className="soft">{book.isError ? whyNot(book.error) : book.isPending ? "Looking …" : "Nothing of this model yet."}</p>
      )}
      {!readOnly && (
        <div className="row">
          <Button size="compact-md" disabled={missing.length === 0} onClick={start}>
            Start from the book
          </Button>
          <Button size="compact-md" variant="default" loading={add.isPending} onClick={() => add.mutate()}>
            Put what was found here into the book
          </Button>
        </div>
      )}
      {add.isError && <Wrong>{whyNot(add.error)}</Wrong>}
      {add.isSuccess && <Told>What was found is in the book.</Told>}
      {plan.signal.feeds.length === 0 && feeds > 0 && missing.length > 0 && <p>Its feed points come along; test again that they do the same here.</p>}
    </section>
  );
}
