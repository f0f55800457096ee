import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { startRegistration, type PublicKeyCredentialCreationOptionsJSON } from "@simplewebauthn/browser";
import { useState } from "react";

import { api, Refused, take, whyNot, type Schemas } from "../api/client";
import { Part } from "../ui/Part";
import { useDates } from "../ui/useDates";
import { useMe } from "../ui/useMe";
import { Failed, Told, Waiting, Wrong } from "../ui/Wait";
import { WorkshopPage } from "../ui/WorkshopPage";
import { browserOf } from "./browserOf";
import { Codes } from "./Codes";
import { Password } from "./Join";
import css from "./people.module.css";
import { notByPasskey } from "./SignIn";

type Account = Schemas["Account"];

const said = (error: Error) => (error instanceof Refused ? error.message : whyNot(error));

/** AccountPage is how one signs in, and where one is signed in. */
export function AccountPage() {
  const account = useQuery({ queryKey: ["account"], queryFn: () => take(api.GET("/api/account")) });
  return (
    <WorkshopPage title="Your account" says="how you sign in, and where you are signed in">
      {account.isPending && <Waiting what="Fetching your account" />}
      {account.isError && <Failed what="Your account" error={account.error} again={() => void account.refetch()} />}
      {account.data && <Parts account={account.data} />}
    </WorkshopPage>
  );
}

/** useChange changes the account; what it is then is shown at once. */
export function useChange<T>(change: (input: T) => Promise<Account>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn: change, onSuccess: (now) => queries.setQueryData(["account"], now) });
}

function Parts({ account }: { account: Account }) {
  const me = useMe();
  if (me?.demo && account.signIns.some((s) => s.here && s.how === "demo")) {
    return (
      <>
        <p>People of the demo have no password: whoever opens it on this machine may be any of them, in the bar above. In a workshop of your own, a password, passkeys, one-time codes and a PIN for the bay&apos;s tablet are here.</p>
        <Places account={account} />
      </>
    );
  }
  return (
    <div className={css.parts}>
      <Places account={account} />
      <NewPassword account={account} />
      <Passkeys account={account} />
      <Codes account={account} />
      <Pin account={account} />
      <Share />
    </div>
  );
}

function Places({ account }: { account: Account }) {
  const dates = useDates();
  const out = useChange((signIn: string) => take(api.POST("/api/account/out", { body: signIn ? { signIn } : {} })));
  return (
    <Part title="Signed in" says="Where you are signed in. One that you do not know: end it, and change your password.">
      <ul className={css.rows} aria-label="Where you are signed in">
        {account.signIns.map((s) => (
          <li key={s.id}>
            <span className={css.grow}>
              <span title={s.agent}>{browserOf(s.agent)}</span>
              {s.tablet && ", the bay's tablet"}
              <br />
              <span className="soft">
                by {s.how}, since {dates.moment(s.began)}, last seen {dates.since(s.seen)}
              </span>
            </span>
            {s.here ? (
              <b>here</b>
            ) : (
              <Button size="compact-sm" variant="default" onClick={() => out.mutate(s.id)}>
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      {account.signIns.length > 1 && (
        <Button variant="default" loading={out.isPending} onClick={() => out.mutate("")}>
          Sign out everywhere but here
        </Button>
      )}
      {out.isError && <Wrong>{said(out.error)}</Wrong>}
    </Part>
  );
}

function NewPassword({ account }: { account: Account }) {
  const [old, setOld] = useState("");
  const [password, setPassword] = useState("");
  const put = useChange(() => take(api.PUT("/api/account/password", { body: { old, password } })));
  return (
    <Part title="Password" says={`You sign in as “${account.signIn}”. A new password signs you out everywhere else.`}>
      <form
        className={css.form}
        onSubmit={(e) => {
          e.preventDefault();
          put.mutate(undefined, { onSuccess: () => (setOld(""), setPassword("")) });
        }}
      >
        <Mine value={old} put={setOld} label="Password until now" />
        <Password value={password} put={setPassword} label="New password" />
        <Button type="submit" variant="default" loading={put.isPending} disabled={old === "" || password === ""}>
          Change it
        </Button>
        {put.isError && <Wrong>{said(put.error)}</Wrong>}
        {put.isSuccess && <Told>Changed.</Told>}
      </form>
    </Part>
  );
}

/** Mine is one's password, asked for before what one signs in with is changed. */
export function Mine({ value, put, label = "Your password" }: { value: string; put: (text: string) => void; label?: string }) {
  return <PasswordInput label={label} autoComplete="current-password" value={value} onChange={(e) => put(e.currentTarget.value)} visibilityToggleButtonProps={{ "aria-label": "Show the password" }} />;
}

function Passkeys({ account }: { account: Account }) {
  const me = useMe();
  const dates = useDates();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const add = useChange(async () => {
    const asked = await take(api.POST("/api/account/passkeys/ask", { body: { password } }));
    const answer = await startRegistration({ optionsJSON: asked.options as PublicKeyCredentialCreationOptionsJSON });
    return take(api.POST("/api/account/passkeys", { body: { name: name.trim() || "passkey", answer } }));
  });
  const drop = useChange((id: string) => take(api.POST("/api/account/passkeys/drop", { body: { id, password } })));
  return (
    <Part title="Passkeys" says="A fingerprint, a face or a key instead of a password. It is of use at this address alone, so that no page elsewhere can ask for it.">
      <ul className={css.rows} aria-label="Passkeys">
        {account.passkeys.map((k) => (
          <li key={k.id}>
            <b>{k.name}</b>
            <span className={`soft ${css.grow}`}>
              made {dates.since(k.made)}
              {k.used ? `, last used ${dates.since(k.used)}` : ", never used"}
            </span>
            <Button size="compact-sm" variant="default" disabled={password === ""} onClick={() => drop.mutate(k.id)}>
              Take it away
            </Button>
          </li>
        ))}
      </ul>
      {me?.passkeys ? (
        <p>{me.passkeys}</p>
      ) : (
        <form
          className={css.form}
          onSubmit={(e) => {
            e.preventDefault();
            add.mutate(undefined, { onSuccess: () => (setName(""), setPassword("")) });
          }}
        >
          <TextInput label="What to call it" description="such as this phone" maxLength={60} value={name} onChange={(e) => setName(e.currentTarget.value)} />
          <Mine value={password} put={setPassword} />
          <Button type="submit" variant="default" loading={add.isPending} disabled={password === ""}>
            Make a passkey
          </Button>
          {add.isError && <Wrong>{notByPasskey(add.error)}</Wrong>}
          {drop.isError && <Wrong>{said(drop.error)}</Wrong>}
        </form>
      )}
    </Part>
  );
}

function Pin({ account }: { account: Account }) {
  const [pin, setPin] = useState("");
  const [password, setPassword] = useState("");
  const put = useChange((digits: string) => take(api.PUT("/api/account/pin", { body: { password, ...(digits && { pin: digits }) } })));
  const done = { onSuccess: () => (setPin(""), setPassword("")) };
  return (
    <Part title="PIN for the bay's tablet" says={`${account.pin ? "You have one." : "You have none."} On the shared tablet it says who you are, for what is done in the bay; it signs you in nowhere else.`}>
      <form
        className={css.form}
        onSubmit={(e) => {
          e.preventDefault();
          put.mutate(pin, done);
        }}
      >
        <PasswordInput label="PIN" description="4 to 8 digits" inputMode="numeric" autoComplete="off" maxLength={8} value={pin} onChange={(e) => setPin(e.currentTarget.value)} visibilityToggleButtonProps={{ "aria-label": "Show the PIN" }} />
        <Mine value={password} put={setPassword} />
        <span className="row">
          <Button type="submit" variant="default" loading={put.isPending} disabled={pin === "" || password === ""}>
            Set the PIN
          </Button>
          {account.pin && (
            <Button variant="subtle" disabled={password === ""} onClick={() => put.mutate("", done)}>
              Take it away
            </Button>
          )}
        </span>
        {put.isError && <Wrong>{said(put.error)}</Wrong>}
        {put.isSuccess && <Told>Kept.</Told>}
      </form>
    </Part>
  );
}

/** Share makes this browser the bay's tablet. */
function Share() {
  const me = useMe();
  const share = useMutation({ mutationFn: () => take(api.POST("/api/tablet")), onSuccess: () => window.location.assign("/") });
  if (!me?.may.includes("invite")) return null;
  return (
    <Part title="The bay's tablet" says="Makes this browser the bay's: it is nobody's until somebody says who they are with their PIN, and it does what the bay does and no more.">
      <Button variant="default" loading={share.isPending} onClick={() => share.mutate()}>
        This is the bay&apos;s tablet
      </Button>
      {share.isError && <Wrong>{said(share.error)}</Wrong>}
    </Part>
  );
}
