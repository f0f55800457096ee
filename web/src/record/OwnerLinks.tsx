import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { api, Refused, take, whyNot } from "../api/client";
import { Made } from "../people/PeoplePage";
import { useDates } from "../ui/useDates";
import { useMay } from "../ui/useMe";
import { Wrong } from "../ui/Wait";

/** OwnerLinks are the links that a vehicle's owner has: to what was handed over, and nothing else. */
export function OwnerLinks({ id }: { id: string }) {
  const queries = useQueryClient();
  const dates = useDates();
  const may = useMay()("handOver");
  const params = { path: { id } };
  const links = useQuery({ queryKey: ["ownerLinks", id], queryFn: () => take(api.GET("/api/jobs/{id}/links", { params })), enabled: may });
  const refresh = () => void queries.invalidateQueries({ queryKey: ["ownerLinks", id] });
  const add = useMutation({ mutationFn: () => take(api.POST("/api/jobs/{id}/links", { params })), onSuccess: refresh });
  const drop = useMutation({ mutationFn: (link: string) => take(api.DELETE("/api/jobs/{id}/links/{link}", { params: { path: { id, link } } })), onSuccess: refresh });
  const failed = add.error ?? drop.error;
  if (!may) return null;
  return (
    <section aria-label="For the vehicle's owner">
      <h2>For the vehicle&apos;s owner</h2>
      <p className="soft">A link to what was handed over, the booklet and the question of the first trip, as it was last signed for: without an account, and to nothing else.</p>
      <Button variant="default" loading={add.isPending} onClick={() => add.mutate()}>
        Make a link
      </Button>
      {add.data && <Made says="The owner's link; it is shown this once." made={add.data} />}
      <ul>
        {links.data?.map((l) => (
          <li key={l.id} className="row">
            <span>
              made {dates.moment(l.made)}, good until {dates.moment(l.expires)}
            </span>
            <Button size="compact-sm" variant="default" onClick={() => drop.mutate(l.id)}>
              Take it back
            </Button>
          </li>
        ))}
      </ul>
      {failed && <Wrong>{failed instanceof Refused ? failed.message : whyNot(failed)}</Wrong>}
    </section>
  );
}
