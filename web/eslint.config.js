import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import { defineConfig } from "eslint/config";
import tseslint from "typescript-eslint";

export default defineConfig(
  { ignores: ["dist", "node_modules", "src/api/schema.d.ts", "src/api/limits.ts", "test-results"] },
  js.configs.recommended,
  { files: ["*.js"], languageOptions: { globals: { process: "readonly", console: "readonly" } } },
  {
    files: ["**/*.{ts,tsx}"],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { "react-hooks": hooks },
    rules: { ...hooks.configs.recommended.rules, "max-lines": ["error", 350] },
  },
);
