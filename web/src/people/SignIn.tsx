import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { startAuthentication, type PublicKeyCredentialRequestOptionsJSON } from "@simplewebauthn/browser";
import { useState } from "react";

import { api, Refused, take, whyNot } from "../api/client";
import { useStored } from "../ui/stored";
import type { Me } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import { Plate } from "./Plate";
import css from "./people.module.css";

/** SignIn is the way in: by a password, and where it asks for one a code; or by a passkey. */
export default function SignIn({ me, come, within }: { me: Me; come: (now: Me) => void; within?: boolean }) {
  const [workshop, setWorkshop] = useStored("signInWorkshop", "");
  const [name, setName] = useStored("signInName", "");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const enter = useMutation({
    mutationFn: () => take(api.POST("/api/door", { body: { name, password, ...(workshop && { workshop }), ...(code && { code }) } })),
    onSuccess: come,
  });
  const asksCode = enter.error instanceof Refused && enter.error.refusal.type === "urn:epitrope:code";
  const passkey = useMutation({
    mutationFn: async () => {
      const asked = await take(api.POST("/api/door/passkey/ask"));
      const answer = await startAuthentication({ optionsJSON: asked.options as PublicKeyCredentialRequestOptionsJSON });
      return take(api.POST("/api/door/passkey", { body: { answer } }));
    },
    onSuccess: come,
  });
  const form = !me.begun ? (
    <p>
      There is no workshop here yet. The one-time link that <code>epitrope serve</code> printed when it started begins it: open that link.
    </p>
  ) : (
    <form
      className={css.form}
      onSubmit={(e) => {
        e.preventDefault();
        enter.mutate();
      }}
    >
      {me.several && <TextInput label="Workshop" description="its sign-in name" autoComplete="organization" value={workshop} onChange={(e) => setWorkshop(e.currentTarget.value)} />}
      <TextInput label="Name or e-mail" autoComplete="username" autoCapitalize="none" spellCheck={false} value={name} onChange={(e) => setName(e.currentTarget.value)} />
      <PasswordInput label="Password" autoComplete="current-password" value={password} onChange={(e) => setPassword(e.currentTarget.value)} visibilityToggleButtonProps={{ "aria-label": "Show the password" }} />
      {(asksCode || code !== "") && <TextInput label="One-time code" inputMode="numeric" autoComplete="one-time-code" value={code} onChange={(e) => setCode(e.currentTarget.value)} autoFocus />}
      {enter.isError && <Wrong>{enter.error instanceof Refused ? enter.error.message : whyNot(enter.error)}</Wrong>}
      <Button type="submit" size="md" loading={enter.isPending} disabled={name.trim() === "" || password === ""}>
        Sign in
      </Button>
      {me.passkeys === "" ? (
        <Button variant="default" size="md" loading={passkey.isPending} onClick={() => passkey.mutate()}>
          Use a passkey
        </Button>
      ) : (
        <p className="soft">{me.passkeys}</p>
      )}
      {passkey.isError && <Wrong>{notByPasskey(passkey.error)}</Wrong>}
      <p className="soft">Password lost? The workshop's owner makes a link that sets it anew; for the owner, whoever runs the server does.</p>
    </form>
  );
  return within ? form : <Plate title="Sign in">{form}</Plate>;
}

/** notByPasskey says why a passkey did not do, for people. */
export function notByPasskey(error: Error): string {
  if (error instanceof Refused) return error.message;
  if (error.name === "NotAllowedError" || error.name === "AbortError") return "No passkey was given: it was left, or this device has none for here.";
  return error.name === "InvalidStateError" ? "This device has a passkey of yours already." : whyNot(error);
}
