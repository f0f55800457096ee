import { Button } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";

import { api, take } from "../api/client";
import { useJob } from "../job/JobContext";
import { keep } from "../ui/stored";
import { useMay } from "../ui/useMe";
import { Wrong } from "../ui/Wait";

/** lastRemoved is where the job that was deleted last is kept for the list of jobs, which puts it back. */
export const lastRemoved = "removed";

/** Removal deletes the job; the list of jobs, which opens then, puts it back. */
export function Removal() {
  const { id, state } = useJob();
  const designs = useMay()("design");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const removing = useMutation({
    mutationFn: () => take(api.DELETE("/api/jobs/{id}", { params: { path: { id } } })),
    onSuccess: async () => {
      keep(lastRemoved, JSON.stringify({ id, title: state.doc.title || "Untitled job" }), "window");
      await navigate({ to: "/" }); // before the open job asks for itself again
      await queries.invalidateQueries({ queryKey: ["jobs"] });
    },
  });
  if (!designs) return null;
  return (
    <section aria-label="Delete">
      <h2>Delete</h2>
      <p className="soft">The job leaves the list. What was issued of it stays; the list puts it back.</p>
      <Button variant="default" loading={removing.isPending} onClick={() => removing.mutate()}>
        Delete this job
      </Button>
      {removing.isError && <Wrong>Not deleted: {removing.error.message}</Wrong>}
    </section>
  );
}
