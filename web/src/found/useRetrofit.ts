import { api, take } from "../api/client";
import { useAsked } from "../job/useAsked";

/** useRetrofit is what becomes of what was found, as the job stands. */
export const useRetrofit = () => useAsked("retrofit", (doc, signal) => take(api.POST("/api/retrofit", { body: doc, signal })));
