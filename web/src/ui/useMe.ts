import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "../api/client";

/** Me is who is signed in here, and how one signs in. */
export type Me = Schemas["Me"];
export type Act = Me["may"][number];

export const meQuery = { queryKey: ["me"], queryFn: () => take(api.GET("/api/me")), staleTime: 20_000, refetchInterval: 60_000, retry: false, retryOnMount: false };

/** useMe is who is signed in here; undefined until the server has said it. */
export function useMe(): Me | undefined {
  return useQuery(meQuery).data;
}

/** useMay says whether who is signed in may do something. Where the server has not said it, nothing is hidden: it is the server that refuses. */
export function useMay(): (act: Act) => boolean {
  const me = useMe();
  return (act) => me === undefined || me.may.includes(act);
}

/** roleWords are what roles are called. */
export const roleWords: Record<Schemas["Somebody"]["role"], string> = { owner: "owner", foreman: "foreman", designer: "designer", installer: "installer", apprentice: "apprentice", reader: "reads only" };
