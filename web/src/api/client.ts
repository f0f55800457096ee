import createClient from "openapi-fetch";

import type { components, paths } from "./schema.gen";

/** The types of the API, by their names in its document. */
export type Schemas = components["schemas"];
export type Plan = Schemas["Plan"];
export type Column = Schemas["Column"];
export type Figure = Schemas["Figure"];
export type Field = Schemas["Field"];
export type Note = Schemas["Note"];
export type Problem = Schemas["Problem"];
export type Refusal = Schemas["Refusal"];
export type Vocabulary = Schemas["Vocabulary"];

/** travelBy has every request travel by a way of its own: by the server, and where it is away by what is kept on this device. */
export function travelBy(way: (request: Request) => Promise<Response>) {
  travel = way;
}
let travel = (request: Request) => globalThis.fetch(request);

export const api = createClient<paths>({ baseUrl: "", fetch: (request) => travel(request) });

/** answerIn has every answer's words written in units, as a list of them: "awg,ft,F,lbft". */
export function answerIn(units: string) {
  asked = units;
}
let asked = "";
api.use({
  onRequest({ request }) {
    if (asked !== "") request.headers.set("Units", asked);
    request.headers.set("Device-Clock", new Date().toISOString());
    return request;
  },
});

/** heardOut is called when the server says that nobody is signed in here any longer. */
export function onOut(heard: () => void) {
  heardOut = heard;
}
let heardOut: () => void = () => undefined;
api.use({
  onResponse({ response }) {
    if (response.status === 401) heardOut();
  },
});

/** NoAnswer is a server that cannot be reached. */
export class NoAnswer extends Error {
  constructor() {
    super("The server does not answer.");
  }
}

/** Refused is what the server answered instead of doing what was asked. */
export class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.detail);
  }
}

/** EmptyFile is a file with nothing in it. */
export class EmptyFile extends Error {
  constructor() {
    super("The file is empty.");
  }
}

/** asFile is a file as the body of a request, as it is; it throws EmptyFile. */
export function asFile(file: File) {
  if (file.size === 0) throw new EmptyFile();
  return { body: file as unknown as string, bodySerializer: (b: unknown) => b as BodyInit, headers: { "Content-Type": "application/octet-stream" } };
}

/** asText is JSON as it was written, as the body of a request: what reads it names a key that stands twice. */
export function asText(text: string) {
  return { body: text as unknown as Record<string, unknown>, bodySerializer: (b: unknown) => b as BodyInit, headers: { "Content-Type": "application/json" } };
}

/** whyNot says why an answer was not given, for people. */
export function whyNot(error: unknown): string {
  if (error instanceof EmptyFile) return error.message;
  if (!(error instanceof Refused)) return "The server does not answer; try again.";
  return error.refusal.problems?.[0]?.wrong ?? error.refusal.detail;
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** take waits for an answer and returns its data, or throws Refused or NoAnswer. */
export async function take<T>(request: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await request;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new NoAnswer();
  }
  if (answer.response.ok) return answer.data as T;
  const said = answer.error;
  if (typeof said === "object" && said !== null && "detail" in said) throw new Refused(said as Refusal);
  throw new NoAnswer();
}
