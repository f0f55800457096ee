import { api, take, type Problem, type Schemas } from "../api/client";
import type { Road, Waits } from "./db";

/** Arrived is what the server answered to entries of one road: those that it cannot keep, and all that it has of that road. */
export interface Arrived {
  refused: { id: string; problems: Problem[] }[];
  whole: unknown;
}

type Sent = Record<string, unknown>[];

/** roads send entries of one job, in their order; those of a road that takes one at a time come one at a time. */
export const roads: Record<Road, { most: number; send: (job: string, list: Waits[]) => Promise<Arrived> }> = {
  ticks: {
    most: 200,
    send: async (id, list) => {
      const whole = await take(api.POST("/api/jobs/{id}/ticks", { params: { path: { id } }, body: list.map((w) => w.body) as Sent }));
      return { refused: whole.refused, whole };
    },
  },
  proof: {
    most: 200,
    send: async (id, list) => {
      const whole = await take(api.POST("/api/jobs/{id}/proof", { params: { path: { id } }, body: list.map((w) => w.body) as Sent }));
      return { refused: whole.refused, whole };
    },
  },
  comments: {
    most: 1,
    send: async (id, list) => ({ refused: [], whole: await take(api.POST("/api/jobs/{id}/comments", { params: { path: { id } }, body: list[0]?.body as Schemas["SaidComment"] })) }),
  },
  photos: {
    most: 1,
    send: async (id, list) => {
      const { id: photo, body, blob } = list[0] as Waits;
      const query = body as { tied: string; at: string };
      await take(api.PUT("/api/jobs/{id}/photos/{photo}", { params: { path: { id, photo }, query }, body: blob as unknown as string, bodySerializer: (b: unknown) => b as BodyInit, headers: { "Content-Type": "image/jpeg" } }));
      return { refused: [], whole: null };
    },
  },
};
