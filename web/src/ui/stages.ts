import type { Schemas } from "../api/client";

/** stages are the parts of the work, as people call them. */
export const stages: Record<Schemas["Step"]["stage"], string> = {
  prepare: "Prepare", isolate: "Make dead", remove: "Take off", ground: "Earth points", lay: "Lay", fit: "Fit", end: "Ends", join: "Connect", check: "Hold point", live: "Make live", prove: "Prove", hand: "Hand over",
};
