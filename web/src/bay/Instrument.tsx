import { Button, NativeSelect } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";

import { api, take, whyNot } from "../api/client";
import { useJob } from "../job/JobContext";
import { useStored } from "../ui/stored";
import { useSettings } from "../ui/useSettings";
import { Wrong } from "../ui/Wait";
import css from "./instrument.module.css";

/** Instrument has a reading taken by one of the instruments that the settings list; nothing where they list none. */
export function Instrument({ reading, found = false, enter }: { reading: string; /** of the installation that was found */ found?: boolean; enter: (text: string, device: string) => void }) {
  const { state } = useJob();
  const meters = useSettings().data?.settings.meters ?? [];
  const [name, setName] = useStored("meter", "");
  const meter = meters.find((m) => m.name === name) ?? meters[0];
  const read = useMutation({
    mutationFn: () => take(api.POST("/api/meter", { body: { document: state.doc as never, reading, found, meter: meter?.name ?? "" } })),
    onSuccess: (got) => enter(got.entry, got.with),
  });
  if (meters.length === 0) return null;
  return (
    <>
      <div className={css.meter}>
        <NativeSelect aria-label="Instrument" data={meters.map((m) => m.name)} value={meter?.name ?? ""} onChange={(e) => setName(e.currentTarget.value)} />
        <Button variant="default" loading={read.isPending} onClick={() => read.mutate()}>
          Read it from there
        </Button>
      </div>
      {read.isError && <Wrong>{whyNot(read.error)}</Wrong>}
    </>
  );
}
