import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

export default ts.config(
  { ignores: ["dist", "src/api/schema.ts"] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    files: ["**/*.{ts,tsx}"],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/no-misused-promises": "error",
      "@typescript-eslint/await-thenable": "error",
      "@typescript-eslint/no-unnecessary-type-assertion": "error",
      "@typescript-eslint/no-unnecessary-condition": "error",
      "@typescript-eslint/switch-exhaustiveness-check": [
        "error",
        { considerDefaultExhaustiveForUnions: true },
      ],
    },
  },
  // A member that is taken out of a rest is meant not to be used.
  { rules: { "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }] } },
  {
    files: ["src/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      // A feature has one door: its index.
      "no-restricted-imports": ["error", { patterns: ["@/features/*/*"] }],
    },
  },
  // Rooms in order: each knows those below it.
  ...[
    ["lib", ["store", "parts", "features"]],
    ["api", ["store", "parts", "features"]],
    ["store", ["parts", "features"]],
  ].map(([room, above]) => ({
    files: [`src/${room}/**/*.{ts,tsx}`],
    rules: {
      "no-restricted-imports": ["error", { patterns: above.flatMap((a) => [`@/${a}`, `@/${a}/**`]) }],
    },
  })),
);
