import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useRef } from "react";

import { api, take, whyNot } from "../api/client";
import { uuid } from "../api/once";
import { useJob } from "../job/JobContext";
import { useDates } from "../ui/useDates";
import { roleWords, useMay, useMe } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import css from "./proof.module.css";
import type { Proven, useProof } from "./useProof";

/** Signed is the signature: refused while a gate is open; what was signed stays as it was. */
export function Signed({ proof, proven }: { proof: ReturnType<typeof useProof>; proven: Proven }) {
  const { id, version, unsaved } = useJob();
  const dates = useDates();
  const may = useMay();
  const me = useMe();
  const name = useRef("");
  const sign = useMutation({
    mutationFn: () => {
      name.current ||= uuid(); // sent again it is the same signature
      return take(api.POST("/api/jobs/{id}/signoffs", { params: { path: { id } }, body: { id: name.current, version } }));
    },
    onSuccess: () => {
      name.current = "";
      proof.again();
    },
  });
  const open = proven.gates.filter((g) => g.state === "open");
  const waits = open.length > 0 ? "A gate is open." : !may("sign") ? `As ${me?.person ? roleWords[me.person.role] : "who you are here"} you do not sign for it: an installer, a foreman or the owner does.` : unsaved || proof.unsent > 0 ? "Something is not on the server yet." : "";
  return (
    <section className={css.signed} aria-label="Sign-off">
      <h2>Sign-off</h2>
      <p className="soft">Signed, the document, as built, the readings and the photographs are frozen with a certificate.</p>
      <ul className="soft">
        {proven.reserved.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
      <Button size="lg" disabled={waits !== ""} loading={sign.isPending} onClick={() => sign.mutate()}>
        Sign{me?.person && ` as ${me.person.name}`}
      </Button>
      {waits && <p className="soft">{waits}</p>}
      {sign.isError && <Wrong>{whyNot(sign.error)}</Wrong>}
      {proof.signed.length > 0 && (
        <p>
          The pack now has the owner's pages with what was proven: <a href={`/api/jobs/${id}/pack.pdf`} download>the pack</a>. What comes next goes into the calendar on{" "}
          <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "record" }}>
            sheet 9
          </Link>
          .
        </p>
      )}
      <ol>
        {proof.signed.map((s) => (
          <li key={s.id}>
            <a href={`/api/jobs/${id}/signoffs/${s.number}/certificate.pdf`} download>
              Certificate {s.number}
            </a>{" "}
            <span className="soft">
              by {s.by}, {dates.moment(s.at)}
              {s.version !== version && "; the job was changed since"}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
