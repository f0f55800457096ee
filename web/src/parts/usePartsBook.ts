import { useQuery } from "@tanstack/react-query";

import { api, take } from "../api/client";

/** usePartsBook is the workshop's parts. */
export function usePartsBook() {
  return useQuery({ queryKey: ["parts"], queryFn: () => take(api.GET("/api/parts")) });
}
