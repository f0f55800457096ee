import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, take, whyNot, type Schemas } from "../api/client";
import { Part } from "../ui/Part";
import { useDates } from "../ui/useDates";
import { roleWords, useMay, useMe, type Act } from "../ui/useMe";
import { Failed, Told, Waiting, Wrong } from "../ui/Wait";
import { WorkshopPage } from "../ui/WorkshopPage";
import css from "./people.module.css";

type Role = Schemas["Somebody"]["role"];
type Workforce = Schemas["Workforce"];

const said = (error: Error) => (error instanceof Refused ? error.message : whyNot(error));

/** actWords say what an act is. */
const actWords: Partial<Record<Act, string>> = {
  talk: "asks and answers",
  survey: "surveys: what was found, measured and built",
  install: "ticks, reads, photographs, waives",
  design: "begins and designs jobs",
  books: "keeps the parts and vehicle books",
  issue: "issues revisions",
  handOver: "gives a vehicle's owner a link",
  countersign: "countersigns for apprentices",
  sign: "signs for an installation",
  settings: "sets the workshop's settings",
  trail: "sees who did what",
  invite: "invites, changes and lets go those below",
};

/** PeoplePage is who works here, and what each role may do. */
export function PeoplePage() {
  const staff = useQuery({ queryKey: ["people"], queryFn: () => take(api.GET("/api/people")) });
  return (
    <WorkshopPage title="People" says="who works here, and what each may do">
      {staff.isPending && <Waiting what="Fetching the people" />}
      {staff.isError && <Failed what="The people" error={staff.error} again={() => void staff.refetch()} />}
      {staff.data && <Staff staff={staff.data} />}
    </WorkshopPage>
  );
}

function Staff({ staff }: { staff: Workforce }) {
  const may = useMay();
  return (
    <div className={css.parts}>
      <Members staff={staff} />
      {may("invite") && <Invitations staff={staff} />}
      <Part title="What each role may do" says="Everybody sees all jobs. What an apprentice signs, reads or waives waits until somebody countersigns it; nobody countersigns their own.">
        <div className={css.table}>
          <table>
            <thead>
              <tr>
                <th scope="col">May</th>
                {staff.roles.map((r) => (
                  <th key={r.role} scope="col">
                    {roleWords[r.role]}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {(Object.keys(actWords) as Act[]).map((act) => (
                <tr key={act}>
                  <th scope="row">{actWords[act]}</th>
                  {staff.roles.map((r) => (
                    <td key={r.role}>{r.may.includes(act) ? "yes" : "–"}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Part>
    </div>
  );
}

function Members({ staff }: { staff: Workforce }) {
  const queries = useQueryClient();
  const dates = useDates();
  const me = useMe();
  const [going, setGoing] = useState<string | null>(null);
  const [link, setLink] = useState<{ name: string; made: Schemas["NewLink"] } | null>(null);
  const role = useMutation({
    mutationFn: ({ id, to }: { id: string; to: Role }) => take(api.PUT("/api/people/{id}/role", { params: { path: { id } }, body: { role: to } })),
    onSuccess: (now) => queries.setQueryData(["people"], now),
  });
  const letGo = useMutation({
    mutationFn: (id: string) => take(api.DELETE("/api/people/{id}", { params: { path: { id } } })),
    onSuccess: () => {
      setGoing(null);
      void queries.invalidateQueries({ queryKey: ["people"] });
    },
  });
  const reset = useMutation({
    mutationFn: (m: Schemas["Member"]) => take(api.POST("/api/people/{id}/reset", { params: { path: { id: m.id } } })).then((made) => ({ name: m.name, made })),
    onSuccess: setLink,
  });
  const failed = role.error ?? letGo.error ?? reset.error;
  const give = staff.roles.filter((r) => r.give).map((r) => ({ value: r.role, label: roleWords[r.role] }));
  return (
    <section aria-label="Who works here">
      <ul className={css.rows}>
        {staff.people.map((m) => (
          <li key={m.id} className={m.left ? css.gone : undefined}>
            <b>{m.name}</b>
            <span className={css.grow}>
              {m.left ? `left ${dates.moment(m.left)}; their work stays under their name` : roleWords[m.role]}
              {m.id === me?.person?.id && ", you"}
              {m.signIn && !m.left && <span className="soft"> signs in as {m.signIn}</span>}
            </span>
            {m.below && m.id !== me?.person?.id && (
              <span className="row">
                <NativeSelect aria-label={`Role of ${m.name}`} data={give} value={m.role} onChange={(e) => role.mutate({ id: m.id, to: e.currentTarget.value as Role })} />
                <Button size="compact-sm" variant="default" onClick={() => reset.mutate(m)}>
                  New password
                </Button>
                {going === m.id ? (
                  <>
                    <Button size="compact-sm" loading={letGo.isPending} onClick={() => letGo.mutate(m.id)}>
                      Yes, let {m.name} go
                    </Button>
                    <Button size="compact-sm" variant="default" onClick={() => setGoing(null)}>
                      Keep
                    </Button>
                  </>
                ) : (
                  <Button size="compact-sm" variant="subtle" onClick={() => setGoing(m.id)}>
                    Let go
                  </Button>
                )}
              </span>
            )}
          </li>
        ))}
      </ul>
      {link && <Made says={`With this link ${link.name} sets a password anew.`} made={link.made} />}
      {failed && <Wrong>{said(failed)}</Wrong>}
    </section>
  );
}

function Invitations({ staff }: { staff: Workforce }) {
  const queries = useQueryClient();
  const dates = useDates();
  const give = staff.roles.filter((r) => r.give).map((r) => ({ value: r.role, label: roleWords[r.role] }));
  const [role, setRole] = useState<Role>("installer");
  const refresh = () => queries.invalidateQueries({ queryKey: ["people"] });
  const invite = useMutation({ mutationFn: () => take(api.POST("/api/people/invitations", { body: { role } })), onSuccess: () => void refresh() });
  const back = useMutation({ mutationFn: (id: string) => take(api.DELETE("/api/people/invitations/{id}", { params: { path: { id } } })), onSuccess: () => void refresh() });
  const failed = invite.error ?? back.error;
  return (
    <Part title="Invite somebody" says="A link for one person, good once. Send it as you like; who opens it gives their name and a password of their own.">
      <span className="row">
        <NativeSelect aria-label="Invited as" data={give} value={role} onChange={(e) => setRole(e.currentTarget.value as Role)} />
        <Button loading={invite.isPending} onClick={() => invite.mutate()}>
          Make a link
        </Button>
      </span>
      {invite.data && <Made says="The invitation; it is shown this once." made={invite.data} />}
      {staff.invitations.length > 0 && (
        <ul className={css.rows} aria-label="Invitations that nobody has taken yet">
          {staff.invitations.map((i) => (
            <li key={i.id}>
              <b>{roleWords[i.role]}</b>
              <span className={`soft ${css.grow}`}>
                made {dates.since(i.made)}, good until {dates.moment(i.expires)}
              </span>
              <Button size="compact-sm" variant="default" onClick={() => back.mutate(i.id)}>
                Take it back
              </Button>
            </li>
          ))}
        </ul>
      )}
      {failed && <Wrong>{said(failed)}</Wrong>}
    </Part>
  );
}

/** Made is a link that was made, to be handed over. */
export function Made({ says, made }: { says: string; made: Schemas["NewLink"] }) {
  const dates = useDates();
  const [copied, setCopied] = useState(false);
  const whole = new URL(made.address, window.location.href).href;
  return (
    <div className={css.form}>
      <Told>{says}</Told>
      <TextInput aria-label="The link" readOnly value={whole} onFocus={(e) => e.currentTarget.select()} />
      <span className="row">
        <Button size="compact-sm" variant="default" onClick={() => void navigator.clipboard?.writeText(whole).then(() => setCopied(true))}>
          {copied ? "Copied" : "Copy"}
        </Button>
        <span className="soft">good until {dates.moment(made.expires)}</span>
      </span>
    </div>
  );
}
