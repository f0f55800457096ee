import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.gen.ts"] },
  ...tseslint.configs.recommended,
  { plugins: { "react-hooks": hooks }, rules: hooks.configs.recommended.rules },
);
