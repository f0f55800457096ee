import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/**
 * The folders of src, from what knows least to what knows most: each may import those before it.
 * "ui" and "theme" know no feature; "job" is what all sheets of an open job stand on; "editor"
 * composes the sheets.
 */
const folders = [
  "theme", "api", "offline", "ui", "job", "people", "talk", "bay", "regulation", "found", "parts", "make", "section", "methods", "day", "survey", "wiring", "record",
  "steps", "proof", "trace", "jobs", "week", "failures", "vehicles", "settings", "browser", "along", "editor",
];

const directions = folders.map((folder, i) => ({
  files: [`src/${folder}/**`],
  rules: {
    "no-restricted-imports": ["error", { patterns: [{
      group: ["../router", "../main", ...folders.slice(i + 1).map((later) => `../${later}/*`)],
      message: `"${folder}" may not know of what comes after it: see the folders in eslint.config.js.`,
    }] }],
  },
}));

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.gen.ts"] },
  ...tseslint.configs.recommended,
  { plugins: { "react-hooks": hooks }, rules: hooks.configs.recommended.rules },
  ...directions,
);
