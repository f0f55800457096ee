import { api, take, type Schemas } from "../api/client";
import { useAsked } from "../job/useAsked";

export type Method = Schemas["Method"];

/** useJudged holds every coupling, school and charger against the job. */
export const useJudged = () => useAsked("methods", (doc, signal) => take(api.POST("/api/methods", { body: doc, signal })));
