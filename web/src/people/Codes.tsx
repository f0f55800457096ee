import { Button, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, take, whyNot, type Schemas } from "../api/client";
import { Part } from "../ui/Part";
import { QR } from "../ui/QR";
import { Told, Wrong } from "../ui/Wait";
import { Mine, useChange } from "./AccountPage";
import css from "./people.module.css";

const said = (error: Error) => (error instanceof Refused ? error.message : whyNot(error));

/** Codes asks for a one-time code besides the password, or no longer. */
export function Codes({ account }: { account: Schemas["Account"] }) {
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const begin = useMutation({
    mutationFn: () => take(api.POST("/api/account/codes")),
  });
  const put = useChange((secret: string) => take(api.PUT("/api/account/codes", { body: { password, ...(secret && { secret, code }) } })));
  const done = { onSuccess: () => (setPassword(""), setCode(""), begin.reset()) };
  const made = begin.data;
  return (
    <Part title="One-time codes" says={`${account.codes ? "A code of your device is asked for besides the password." : "A code of a device besides the password: whoever learns the password alone does not come in."} Lost the device? The workshop's owner makes a link that sets the password anew and ends the codes.`}>
      {account.codes ? (
        <form
          className={css.form}
          onSubmit={(e) => {
            e.preventDefault();
            put.mutate("", done);
          }}
        >
          <Mine value={password} put={setPassword} />
          <Button type="submit" variant="default" loading={put.isPending} disabled={password === ""}>
            Ask for no codes any longer
          </Button>
        </form>
      ) : made ? (
        <form
          className={css.codes}
          onSubmit={(e) => {
            e.preventDefault();
            put.mutate(made.secret, done);
          }}
        >
          <QR text={made.address} says="The secret as a picture, for the device to read" />
          <div>
            <p>Have your device read the picture, or type the secret into it:</p>
            <code className={css.secret}>{made.secret}</code>
            <TextInput label="The code that it shows now" inputMode="numeric" autoComplete="one-time-code" maxLength={7} value={code} onChange={(e) => setCode(e.currentTarget.value)} />
            <Mine value={password} put={setPassword} />
            <Button type="submit" loading={put.isPending} disabled={password === "" || code.trim().length < 6}>
              Ask for codes from now on
            </Button>
          </div>
        </form>
      ) : (
        <Button variant="default" loading={begin.isPending} onClick={() => begin.mutate()}>
          Set them up
        </Button>
      )}
      {(begin.error ?? put.error) && <Wrong>{said((begin.error ?? put.error) as Error)}</Wrong>}
      {put.isSuccess && <Told>{account.codes ? "Codes are asked for from now on." : "No codes are asked for any longer."}</Told>}
    </Part>
  );
}
