import { expect, it } from "vitest";

import { asFile, NoAnswer, Refused, take, whyNot, type Refusal } from "./client";

const refusal: Refusal = { type: "urn:epitrope:input", title: "Unprocessable Entity", status: 422, detail: "log line 3: no", problems: [{ field: "log", value: "", wrong: "line 3: no", allowed: "a table" }] };
const answer = (status: number, rest: object) => Promise.resolve({ response: new Response(null, { status }), ...rest });

it("gives the data of a good answer", async () => {
  expect(await take(answer(200, { data: 7 }))).toBe(7);
});

it("tells a refusal from no answer", async () => {
  await expect(take(answer(422, { error: refusal }))).rejects.toBeInstanceOf(Refused);
  await expect(take(answer(502, { error: "<html>" }))).rejects.toBeInstanceOf(NoAnswer);
  await expect(take(Promise.reject(new TypeError("fetch failed")))).rejects.toBeInstanceOf(NoAnswer);
});

it("lets a request that was called off stay called off", async () => {
  const gone = new DOMException("gone", "AbortError");
  await expect(take(Promise.reject(gone))).rejects.toBe(gone);
});

it("says why a file was not taken", () => {
  expect(whyNot(new Refused(refusal))).toBe("line 3: no");
  expect(whyNot(new Refused({ ...refusal, problems: [] }))).toBe("log line 3: no");
  expect(whyNot(new NoAnswer())).toBe("The server does not answer; try again.");
});

it("names an empty file without asking the server", () => {
  let said = "";
  try {
    asFile(new File([], "empty.csv"));
  } catch (error) {
    said = whyNot(error);
  }
  expect(said).toBe("The file is empty.");
});
