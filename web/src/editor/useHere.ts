import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { api, take } from "../api/client";
import { uuid } from "../api/once";

/** again is how often a window says that it has a job open, in ms. */
const again = 20_000;

/** useHere says that this window has a job open, and is who else has. */
export function useHere(id: string): string[] {
  const [page] = useState(uuid);
  const params = { path: { id } };
  const got = useQuery({ queryKey: ["here", id], queryFn: () => take(api.POST("/api/jobs/{id}/here", { params, body: { page } })), refetchInterval: again, retry: false });
  useEffect(() => {
    const leave = () => void fetch(`/api/jobs/${id}/here`, { method: "POST", keepalive: true, headers: { "Content-Type": "application/json" }, body: JSON.stringify({ page, left: true }) }).catch(() => undefined);
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [id, page]);
  return got.isError ? [] : (got.data?.people.map((p) => p.name) ?? []);
}
