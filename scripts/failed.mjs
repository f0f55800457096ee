#!/usr/bin/env node
// Names the failed tests of a JSON report, of Playwright or of Vitest, each with the first line of why.
import { readFileSync } from "node:fs";
import { stripVTControlCharacters } from "node:util";

const why = (text) => stripVTControlCharacters(String(text ?? "")).split("\n").find((line) => line.trim()) ?? "";
const say = (name, text) => console.log(`FAILED: ${name}: ${why(text)}`);

let report;
try {
  report = JSON.parse(readFileSync(process.argv[2], "utf8"));
} catch (cannot) {
  say(process.argv[2], cannot.message);
  process.exit();
}
const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)];
for (const spec of (report.suites ?? []).flatMap(specs).filter((s) => !s.ok)) {
  say(`${spec.file}:${spec.line} ${spec.title}`, spec.tests.flatMap((t) => t.results).findLast((r) => r.error)?.error.message);
}
for (const test of (report.testResults ?? []).flatMap((f) => f.assertionResults).filter((a) => a.status === "failed")) {
  say(test.fullName, test.failureMessages[0]);
}
