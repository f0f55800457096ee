import { useQuery } from "@tanstack/react-query";

import { api, take } from "../api/client";
import { useShown } from "../job/JobContext";
import { useDates } from "../ui/useDates";

/** Documents are what is printed of a job: the draft as a pack, what was signed for, lists and the calendar. */
export function Documents() {
  const { id } = useShown();
  const dates = useDates();
  const proof = useQuery({ queryKey: ["proof", id], queryFn: () => take(api.GET("/api/jobs/{id}/proof", { params: { path: { id } } })) });
  const at = `/api/jobs/${id}`;
  return (
    <section aria-label="Documents">
      <h2>Documents</h2>
      <ul>
        <li>
          The draft as a pack, as it is saved: <a href={`${at}/pack.pdf`}>PDF, A4</a> or <a href={`${at}/pack.pdf?paper=Letter`}>Letter</a>
        </li>
        <li>
          For the bench, without workings:{" "}
          <a href={`${at}/pack.pdf?bench=true`} aria-label="Bench copy, PDF, A4">
            PDF, A4
          </a>{" "}
          or{" "}
          <a href={`${at}/pack.pdf?bench=true&paper=Letter`} aria-label="Bench copy, PDF, Letter">
            Letter
          </a>
        </li>
        {proof.data?.signed.map((s) => (
          <li key={s.id}>
            <a href={`${at}/signoffs/${s.number}/certificate.pdf`} download>
              Certificate {s.number}, PDF
            </a>{" "}
            <span className="soft">
              signed by {s.by}, {dates.moment(s.at)}
            </span>
          </li>
        ))}
        <li>
          Lists: <a href={`${at}/parts.csv`}>parts</a>, <a href={`${at}/wires.csv`}>wires</a>, <a href={`${at}/cuts.csv`}>cuts</a> as CSV
        </li>
      </ul>
    </section>
  );
}
