import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, take, whyNot } from "../api/client";
import { roleWords } from "../ui/useMe";
import { Waiting, Wrong } from "../ui/Wait";
import { Plate } from "./Plate";
import css from "./people.module.css";

/** token is the secret part of the address: what stands behind its # goes to no server and into no log. */
const token = () => window.location.hash.slice(1);

/** useLink is what the link of this address is for. */
function useLink() {
  return useQuery({ queryKey: ["link", token()], queryFn: () => take(api.POST("/api/door/link", { body: { token: token() } })), retry: false, staleTime: Infinity });
}

const said = (error: Error) => (error instanceof Refused ? error.message : whyNot(error));

/** came opens the jobs anew, as whoever has just come in. */
const came = () => window.location.assign("/");

/** Join is where a link leads that makes a person: of the first, with their workshop; of others, by invitation. */
export function Join() {
  const link = useLink();
  const [form, setForm] = useState({ name: "", signIn: "", password: "", workshop: "", address: "" });
  const put = (change: Partial<typeof form>) => setForm({ ...form, ...change });
  const join = useMutation({ mutationFn: () => take(api.POST("/api/door/join", { body: { token: token(), ...form } })), onSuccess: came });
  if (link.isPending) return <Waiting what="Looking at the link" />;
  if (link.isError) return <NoUse why={said(link.error)} />;
  if (link.data.kind === "reset") return <Reset />;
  const first = link.data.kind === "first";
  return (
    <Plate
      title={first ? "Begin your workshop" : `Join ${link.data.workshop}`}
      says={first ? "You will be its owner: you invite the others, and say who does what." : `You are invited as ${link.data.role ? roleWords[link.data.role] : "somebody"}.`}
    >
      <form
        className={css.form}
        onSubmit={(e) => {
          e.preventDefault();
          join.mutate();
        }}
      >
        {first && <TextInput label="The workshop's name" autoComplete="organization" maxLength={80} value={form.workshop} onChange={(e) => put({ workshop: e.currentTarget.value })} />}
        <TextInput label="Your name" description="it stands under your work" autoComplete="name" maxLength={60} value={form.name} onChange={(e) => put({ name: e.currentTarget.value })} />
        <TextInput label="Name or e-mail to sign in with" autoComplete="username" autoCapitalize="none" spellCheck={false} maxLength={120} value={form.signIn} onChange={(e) => put({ signIn: e.currentTarget.value })} />
        <Password value={form.password} put={(password) => put({ password })} />
        {join.isError && <Wrong>{said(join.error)}</Wrong>}
        <Button type="submit" size="md" loading={join.isPending} disabled={form.name.trim() === "" || form.signIn.trim() === "" || form.password === "" || (first && form.workshop.trim() === "")}>
          {first ? "Begin" : "Join"}
        </Button>
      </form>
    </Plate>
  );
}

/** Password is a new one; there is no rule but how long it is. */
export function Password({ value, put, label = "Password" }: { value: string; put: (text: string) => void; label?: string }) {
  return (
    <PasswordInput label={label} description="at least 10 characters, whatever they are: a few words do well" autoComplete="new-password" maxLength={128} value={value} onChange={(e) => put(e.currentTarget.value)} visibilityToggleButtonProps={{ "aria-label": "Show the password" }} />
  );
}

/** Reset is where a link leads that sets a password anew. */
export function Reset() {
  const link = useLink();
  const [password, setPassword] = useState("");
  const reset = useMutation({ mutationFn: () => take(api.POST("/api/door/reset", { body: { token: token(), password } })), onSuccess: came });
  if (link.isPending) return <Waiting what="Looking at the link" />;
  if (link.isError || link.data.kind !== "reset") return <NoUse why={link.error ? said(link.error) : "This link is for joining, not for a password."} />;
  return (
    <Plate title="A new password" says={`${link.data.name}, ${link.data.workshop}. Whoever is signed in under this name is signed out, and one-time codes are asked for no longer.`}>
      <form
        className={css.form}
        onSubmit={(e) => {
          e.preventDefault();
          reset.mutate();
        }}
      >
        <Password value={password} put={setPassword} />
        {reset.isError && <Wrong>{said(reset.error)}</Wrong>}
        <Button type="submit" size="md" loading={reset.isPending} disabled={password === ""}>
          Set it, and sign in
        </Button>
      </form>
    </Plate>
  );
}

function NoUse({ why }: { why: string }) {
  return (
    <Plate title="This link does not open">
      <p>{why}</p>
      <Button component="a" href="/" variant="default">
        To the front page
      </Button>
    </Plate>
  );
}
