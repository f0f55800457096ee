import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { api, asFile, take, whyNot, type Schemas } from "../api/client";
import { FilePick } from "../ui/FilePick";
import { Wrong } from "../ui/Wait";

/** Files enters what a file says: readings by name, or a logger's or monitor's file of the one that is asked for. */
export function Files({ id, reading, traced, enter }: { id: string; reading: string; /** while a fault is traced */ traced?: { found: boolean }; enter: (list: Schemas["Entry"][], name: string) => void }) {
  const [refused, setRefused] = useState("");
  const read = useMutation({
    mutationFn: (file: File) => take(api.POST("/api/jobs/{id}/proof/file", { params: { path: { id }, query: { reading, ...(traced && { traced: true, found: traced.found }) } }, ...asFile(file) })),
    onSuccess: (got, file) => enter(got.entries, file.name),
  });
  return (
    <>
      <FilePick name="A file of readings, or a logger's" accept=".csv,.txt,.tsv" busy={read.isPending} onFile={(file) => (setRefused(""), read.mutate(file))} onRefused={setRefused}>
        From a file
      </FilePick>
      {(refused || read.isError) && <Wrong>{refused || whyNot(read.error)}</Wrong>}
    </>
  );
}
