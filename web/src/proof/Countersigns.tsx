import { Button } from "@mantine/core";

import { Refused, whyNot } from "../api/client";
import { useCountersign } from "../bay/useCountersign";
import { useDates } from "../ui/useDates";
import { useMay, useMe } from "../ui/useMe";
import { Wrong } from "../ui/Wait";
import css from "./proof.module.css";

/** Awaiting is something that waits for a countersignature. */
export interface Awaiting {
  /** Of the tick or the entry. */
  id: string;
  what: string;
  entry: string;
  by: string;
  at: string;
}

/** Countersigns are what of the job waits for a countersignature: each is looked at, and stood for. */
export function Countersigns({ list, done }: { list: Awaiting[]; done: () => void }) {
  const may = useMay()("countersign");
  const me = useMe();
  const dates = useDates();
  const sign = useCountersign(done);
  if (list.length === 0) return null;
  const theirs = list.filter((w) => w.by !== me?.person?.name);
  return (
    <section className={css.signed} aria-label="Countersignatures">
      <h2>{list.length === 1 ? "One entry waits" : `${list.length} entries wait`} for a countersignature</h2>
      <p className="soft">{may ? "Who countersigns has looked, and stands for it." : "Somebody who may countersign looks at it, and stands for it: an installer, a foreman or the owner."}</p>
      <ol className={css.awaiting}>
        {list.map((w) => (
          <li key={w.id}>
            <span>
              <b>{w.what}</b> {w.entry}
              <br />
              <span className="soft">
                {w.by}, {dates.moment(w.at)}
              </span>
            </span>
            {may && w.by !== me?.person?.name && (
              <Button size="compact-md" variant="default" loading={sign.isPending} onClick={() => sign.mutate([w.id])}>
                Countersign
              </Button>
            )}
          </li>
        ))}
      </ol>
      {may && theirs.length > 1 && (
        <Button loading={sign.isPending} onClick={() => sign.mutate(theirs.map((w) => w.id))}>
          Countersign all {theirs.length}
        </Button>
      )}
      {sign.isError && <Wrong>{sign.error instanceof Refused ? sign.error.message : whyNot(sign.error)}</Wrong>}
    </section>
  );
}
