import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef } from "react";

import { api, take } from "../api/client";
import type { Me } from "../ui/useMe";
import { Failed, Waiting } from "../ui/Wait";

/** DemoIn signs whoever opens the demo in as its foreman. */
export default function DemoIn({ me, come }: { me: Me; come: (now: Me) => void }) {
  const foreman = me.others.find((o) => o.role === "foreman") ?? me.others[0];
  const enter = useMutation({ mutationFn: (person: string) => take(api.POST("/api/door/demo", { body: { person } })), onSuccess: come });
  const asked = useRef(false);
  const { mutate } = enter;
  useEffect(() => {
    if (asked.current || !foreman) return;
    asked.current = true;
    mutate(foreman.id);
  }, [foreman, mutate]);
  if (!foreman) return <Failed what="The demo" error={new Error("There is nobody in it: seed it first, with make demo.")} />;
  return enter.isError ? <Failed what="The demo" error={enter.error} again={() => mutate(foreman.id)} /> : <Waiting what={`Opening the demo as ${foreman.name}`} />;
}
