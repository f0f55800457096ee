import { api, take } from "../api/client";
import { useAsked } from "../job/useAsked";

/** useCalendar is how the job's dates stand today, and what such a job usually asks for. */
export const useCalendar = () => useAsked("dates", (doc, signal) => take(api.POST("/api/dates", { body: doc, signal })));
