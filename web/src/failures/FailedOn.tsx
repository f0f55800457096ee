import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take } from "../api/client";
import { useDates } from "../ui/useDates";

/** FailedOn is what failed in vehicles of a model, on the workshop's jobs; nothing where nothing has. */
export function FailedOn({ model }: { model: string }) {
  const dates = useDates();
  const failed = useQuery({ queryKey: ["failures", model], queryFn: ({ signal }) => take(api.GET("/api/failures", { params: { query: { search: model } }, signal })), staleTime: 60_000 });
  const key = model.trim().toLowerCase();
  const list = failed.data?.newest.filter((f) => f.vehicle?.trim().toLowerCase() === key) ?? [];
  if (list.length === 0) return null;
  return (
    <section aria-label={`What failed in ${model}`}>
      <h3>What failed in such vehicles</h3>
      <ul>
        {list.map((f, i) => (
          <li key={f.job + String(i)}>
            {f.says},{" "}
            <Link to="/jobs/$id/{-$sheet}" params={{ id: f.job, sheet: "record" }}>
              {String(f.number).padStart(4, "0")} {f.title || "Untitled job"}
            </Link>
            , <span className="soft">{dates.since(f.at)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
