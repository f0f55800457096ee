import { travelBy } from "../api/client";
import { db } from "./db";
import { askKnowing } from "./known";
import { away, lost, reached } from "./reach";

/** A server that answers nothing for so long is asked no further where this device has an answer, in ms. */
const patience = 4000;

/** worked are the addresses that are worked out from what is sent: the core answers them on this device too. */
const worked = /^\/api\/(plan|methods(\/[a-z-]+)?|modes|moves|built|retrofit|shelf|trial|dates|make|proof|trace|vocabulary)$/i;

/** keeps are the addresses whose answers are kept while they are wanted on this device. */
let keeps: (path: string) => boolean = () => false;
let whose = "";

/** keepFor has answers kept for somebody: those whose address is wanted. */
export function keepFor(person: string, wanted: (path: string) => boolean) {
  whose = person;
  keeps = wanted;
}

/** own is the address of what the workshop has of its own, which the core is begun with. */
export const own = "/api/workshop";

async function keptAt(path: string): Promise<string | null> {
  const kept = await (await db()).get("kept", path);
  return kept && (kept.person === whose || whose === "") ? kept.text : null;
}

const json = (text: string, status = 200) => new Response(text, { status, headers: { "Content-Type": "application/json" } });

/** fromHere is what this device has to answer, or null. */
async function fromHere(request: Request, body: string): Promise<Response | null> {
  const { pathname, search, searchParams } = new URL(request.url);
  try {
    if (request.method === "GET") {
      const kept = await keptAt(pathname + search);
      if (kept !== null) return json(kept);
    }
    if (!worked.test(pathname)) return null;
    const has = await keptAt(own);
    if (has === null) return null;
    const question = { path: pathname, from: Number(searchParams.get("from") ?? 0), to: Number(searchParams.get("to") ?? 0), units: request.headers.get("Units") ?? "", today: new Date().toISOString().slice(0, 10) };
    const got = await askKnowing(has, question, body, request.signal);
    if (got.status === 200) return json(got.text);
    if (got.status !== 500) return null;
    return json(JSON.stringify({ type: "about:blank", title: "", status: 500, detail: got.text, problems: [] }), 500);
  } catch (error) {
    if (request.signal.aborted) throw error;
    return null;
  }
}

/** fromDevice answers a request on this device alone: without the server even where it is there. */
export async function fromDevice(request: Request): Promise<Response> {
  return (await fromHere(request, await request.clone().text())) ?? json("", 503);
}

/** note keeps an answer that is wanted on this device. */
async function note(request: Request, response: Response): Promise<void> {
  const { pathname, search } = new URL(request.url);
  const path = pathname + search;
  if (request.method !== "GET" || !response.ok || !keeps(path)) return;
  const text = await response.clone().text();
  try {
    await (await db()).put("kept", { path, person: whose, text, at: new Date().toISOString() });
  } catch {
    // it is kept as it was
  }
}

/** travel asks the server, and this device where the server does not answer. */
async function travel(request: Request): Promise<Response> {
  const body = request.method === "GET" ? "" : request.headers.get("Content-Type")?.startsWith("application/json") ? await request.clone().text() : "";
  if (away.now()) {
    const here = await fromHere(request, body);
    if (here) return here;
  }
  const there = fetch(request)
    .then(async (response) => {
      reached();
      await note(request, response);
      return response;
    })
    .catch((error: unknown) => {
      if (!request.signal.aborted) lost();
      throw error;
    });
  let timer: ReturnType<typeof setTimeout> | undefined;
  const slow = new Promise<null>((resolve) => (timer = setTimeout(() => resolve(null), patience)));
  try {
    const first = await Promise.race([there, slow]);
    if (first) return first;
    return (await fromHere(request, body)) ?? (await there);
  } catch (error) {
    if (request.signal.aborted) throw error;
    const here = await fromHere(request, body);
    if (here) return here;
    throw error;
  } finally {
    clearTimeout(timer);
    there.catch(() => undefined);
  }
}

travelBy(travel);
