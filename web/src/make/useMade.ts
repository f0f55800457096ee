import { api, take } from "../api/client";
import { useAsked } from "../job/useAsked";

/** useMade is what the design as it stands takes to make. */
export const useMade = () => useAsked("make", (doc, signal) => take(api.POST("/api/make", { body: doc, signal })));
