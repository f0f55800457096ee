import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, take, whyNot, type Schemas } from "../api/client";
import { roleWords, type Me } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import { Plate } from "./Plate";
import css from "./people.module.css";

/** Tablet is the bay's tablet while nobody has it: who takes it says so, and gives their PIN. */
export default function Tablet({ me, come }: { me: Me; come: (now: Me) => void }) {
  const [who, setWho] = useState<Schemas["Somebody"] | null>(null);
  const [pin, setPin] = useState("");
  const take1 = useMutation({
    mutationFn: () => take(api.POST("/api/tablet/switch", { body: { person: who?.id ?? "", pin } })),
    onSuccess: come,
    onError: () => setPin(""),
  });
  const out = useMutation({ mutationFn: () => take(api.POST("/api/door/out")), onSuccess: () => window.location.reload() });
  if (!who) {
    return (
      <Plate title="Who has the tablet?" says={`${me.workshop}. Steps and readings stand under the name of whoever has it.`}>
        <ul className={css.names}>
          {me.others.map((o) => (
            <li key={o.id}>
              <Button size="lg" variant="default" onClick={() => setWho(o)}>
                {o.name}, {roleWords[o.role]}
              </Button>
            </li>
          ))}
        </ul>
        {me.others.length === 0 && <p>Nobody has a PIN yet. Each sets their own on another device, under their name, “Your account”.</p>}
        <Button variant="subtle" loading={out.isPending} onClick={() => out.mutate()}>
          It is the bay's tablet no longer
        </Button>
      </Plate>
    );
  }
  const press = (digit: string) => setPin((was) => (was + digit).slice(0, 8));
  return (
    <Plate title={who.name} says="Your PIN.">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          take1.mutate();
        }}
        onKeyDown={(e) => {
          if (/^\d$/.test(e.key)) press(e.key);
          if (e.key === "Backspace") setPin((was) => was.slice(0, -1));
        }}
      >
        <p className={css.dots} role="status" aria-label={`${pin.length} digits given`}>
          {"•".repeat(pin.length)}
        </p>
        <div className={css.pin}>
          {["1", "2", "3", "4", "5", "6", "7", "8", "9"].map((d) => (
            <Button key={d} variant="default" onClick={() => press(d)}>
              {d}
            </Button>
          ))}
          <Button variant="default" aria-label="Take a digit back" onClick={() => setPin((was) => was.slice(0, -1))}>
            ←
          </Button>
          <Button variant="default" onClick={() => press("0")}>
            0
          </Button>
          <Button type="submit" loading={take1.isPending} disabled={pin.length < 4}>
            Take it
          </Button>
        </div>
        {take1.isError && <Wrong>{take1.error instanceof Refused ? take1.error.message : whyNot(take1.error)}</Wrong>}
        <Button mt="md" variant="subtle" onClick={() => (setWho(null), setPin(""))}>
          Somebody else
        </Button>
      </form>
    </Plate>
  );
}
