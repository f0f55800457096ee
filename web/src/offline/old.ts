import { db, type Road, type Waits } from "./db";

/** importOld puts into the row what an earlier version left to be sent. */
export async function importOld(): Promise<void> {
  try {
    for (const key of Object.keys(localStorage)) {
      const [, road, job] = /^(ticks|proof):([0-9a-f-]{36})$/.exec(key) ?? [];
      if (!road || !job) continue;
      for (const body of JSON.parse(localStorage.getItem(key) ?? "[]") as { id: string; person?: string; at: string }[]) {
        const entry: Waits = { id: body.id, road: road as Road, job, person: body.person, named: road === "ticks" ? "a step" : "a reading", at: body.at, body: { ...body } };
        await (await db()).add("waits", entry);
      }
      localStorage.removeItem(key);
    }
  } catch {
    // it stays where it is
  }
}
