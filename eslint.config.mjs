// What the compiler and the formatter cannot see.
import next from "eslint-config-next";
import tseslint from "typescript-eslint";

const WITH_REACT = ["src/ui/**/*.{ts,tsx}", "src/app/**/*.{ts,tsx}", "src/contracts/**/*.{ts,tsx}"];

export default tseslint.config(
  {
    ignores: [
      "node_modules",
      ".cache",
      ".next",
      "dist-workers",
      "data",
      "next-env.d.ts",
      "src/core/measure/letterForms.ts",
    ],
  },
  // What React and the framework ask is asked where they are used: their rules compile each file once more.
  ...next.map((config) => (config.ignores ? config : { ...config, files: WITH_REACT })),
  ...tseslint.configs.recommended,
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "no-console": ["error", { allow: ["error"] }],
      eqeqeq: "error",
      // Configuration files export their one object; the virtual list is fine without the React compiler, which is not used.
      "import/no-anonymous-default-export": "off",
      "react-hooks/incompatible-library": "off",
      "no-empty": ["error", { allowEmptyCatch: false }],
    },
  },
  {
    files: ["**/*.ts", "**/*.tsx"],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/no-misused-promises": "error",
      "@typescript-eslint/await-thenable": "error",
      "@typescript-eslint/no-for-in-array": "error",
      "@typescript-eslint/no-unnecessary-type-assertion": "error",
    },
  },
  { files: ["scripts/**", "tests/e2e/*.mjs"], rules: { "no-console": "off" } },
);
