import { useMutation } from "@tanstack/react-query";

import { letGo, takeAlong } from "../offline/along";
import { useAlong } from "../offline/useWaits";

/** useTakeAlong takes a job along onto this device, or lets it go. */
export function useTakeAlong(id: string) {
  const is = useAlong().some((a) => a.id === id);
  const act = useMutation({ mutationFn: () => (is ? letGo(id) : takeAlong(id)) });
  return { is, busy: act.isPending, failed: act.isError, act: () => act.mutate() };
}
