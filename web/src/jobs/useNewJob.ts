import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";

import { api, asText, NoAnswer, Refused, take } from "../api/client";
import { once } from "../api/once";
import { keep } from "../ui/stored";
import { installedAt, wasFound } from "../trace/cases";
import { readText } from "../ui/readText";
import type { JobFile } from "./Understood";

/** fresh is a job that nothing was answered of yet. */
const fresh = JSON.stringify({ format: "epitrope-job", version: 1 });

interface Making {
  text: string;
  /** Of its file. */
  name: string;
  named: ReturnType<typeof once>;
  /** It is begun because something does not work: its trace is opened, of what was found. */
  broken: boolean;
}

/** useNewJob begins jobs: an empty one, one of a file that was looked at first, one of a vehicle that comes with a fault. */
export function useNewJob() {
  const navigate = useNavigate();
  const [told, setTold] = useState<string | null>(null);
  const [file, setFile] = useState<JobFile | null>(null);
  const create = useMutation({
    mutationFn: (made: Making) => take(api.POST("/api/jobs", { params: made.named, ...asText(made.text) })),
    retry: (times, error) => error instanceof NoAnswer && times < 3,
    onSuccess: (opened, made) => {
      if (made.broken) keep(installedAt(opened.id), wasFound);
      return navigate({ to: "/jobs/$id/{-$sheet}", params: { id: opened.id, sheet: made.broken ? "trace" : undefined } });
    },
    onError: (error, made) => {
      if (error instanceof Refused && error.refusal.problems.length > 0) setFile({ name: made.name, problems: error.refusal.problems });
      else setTold(error.message);
    },
  });

  async function read(from: File) {
    setFile(null);
    setTold(null);
    try {
      const text = await readText(from);
      const planned = await take(api.POST("/api/plan", asText(text)));
      setFile({ name: from.name, text, planned });
    } catch (error) {
      if (error instanceof Refused && error.refusal.problems.length > 0) setFile({ name: from.name, problems: error.refusal.problems });
      else setTold(error instanceof NoAnswer || error instanceof Refused ? error.message : `${from.name} ${(error as Error).message}`);
    }
  }
  return {
    busy: create.isPending,
    told,
    setTold,
    file,
    leave: () => setFile(null),
    read,
    make: (text: string, name: string) => create.mutate({ text, name, named: once(), broken: false }),
    begin: () => create.mutate({ text: fresh, name: "The new job", named: once(), broken: false }),
    beginBroken: () => create.mutate({ text: fresh, name: "The new job", named: once(), broken: true }),
  };
}
