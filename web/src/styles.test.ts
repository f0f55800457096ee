import { readdirSync, readFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { expect, test } from "vitest";

const src = join(__dirname);
const files = readdirSync(src, { recursive: true, encoding: "utf8" });
const read = (file: string) => readFileSync(join(src, file), "utf8");
const modules = files.filter((f) => f.endsWith(".module.css"));
const scripts = files.filter((f) => /\.tsx?$/.test(f) && !/\.(test|gen)\./.test(f)).map((file) => ({ file, text: read(file) }));

/** importersOf are the scripts that use a module, with the name by which they do. */
const importersOf = (module: string) =>
  scripts.flatMap(({ file, text }) => {
    if (dirname(file) !== dirname(module)) return [];
    const name = new RegExp(`import (\\w+) from "\\./${basename(module).replaceAll(".", "\\.")}"`).exec(text)?.[1];
    return name ? [{ file, text: text.replaceAll(/^import .*$/gm, ""), name }] : [];
  });

/** classesOf are the classes that a module defines. */
const classesOf = (module: string) => new Set([...read(module).replaceAll(/:global\([^)]*\)/g, "").replaceAll(/\d\.\d|\.\d/g, "").matchAll(/\.([a-zA-Z][\w-]*)/g)].map((m) => m[1] as string));

test("every class that is used is defined in its module, and none is defined that nothing uses", () => {
  expect(modules.length).toBeGreaterThan(20);
  const wrong: string[] = [];
  for (const module of modules) {
    const users = importersOf(module);
    const used = new Set(users.flatMap(({ text, name }) => [...text.matchAll(new RegExp(`\\b${name}\\.(\\w+)`, "g"))].map((m) => m[1] as string)));
    const dynamic = users.some(({ text, name }) => text.includes(`${name}[`));
    const defined = classesOf(module);
    wrong.push(...[...used].filter((c) => !defined.has(c)).map((c) => `${module}: .${c} is used, not defined`));
    if (!dynamic) wrong.push(...[...defined].filter((c) => !used.has(c)).map((c) => `${module}: .${c} is defined, not used`));
  }
  expect(wrong).toEqual([]);
});

test("what Mantine calls its own parts is in no style of the house, and no global style is imported but in main", () => {
  for (const file of files.filter((f) => f.endsWith(".css") && !f.endsWith("mantine.css"))) expect(read(file), file).not.toContain(".mantine-");
  for (const { file, text } of scripts) if (file !== "main.tsx") expect(text, file).not.toMatch(/import "\.{1,2}\/[^"]*\.css"/);
});
