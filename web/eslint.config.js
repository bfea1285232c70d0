import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import { readFileSync } from "node:fs";
import ts from "typescript-eslint";

const rooms = JSON.parse(readFileSync(new URL("../tools/rooms.json", import.meta.url), "utf8"))["web/src"];
const isFeature = (room) => room.startsWith("features/");

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
    rules: hooks.configs.recommended.rules,
  },
  {
    // Type has one scale, in styles.css.
    files: ["src/**/*.tsx"],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...["Literal[value=/\\btext-\\[\\d/]", "TemplateElement[value.raw=/\\btext-\\[\\d/]"].map(
          (selector) => ({
            selector,
            message:
              "Take a size of the scale in styles.css: text-mark, -note, -aside, -head, -title, -page.",
          }),
        ),
      ],
    },
  },
  ...rooms.map((room, place) => ({
    files: [`src/${room}/**/*.{ts,tsx}`],
    ignores: ["**/*.test.{ts,tsx}"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            // Rooms in order: each knows those below it, and no feature another one.
            ...rooms
              .filter((other, at) => at > place || (other !== room && isFeature(room) && isFeature(other)))
              .flatMap((other) => [`@/${other}`, `@/${other}/**`]),
            // These have one door each: their index.
            ...["player", "ride", "timeline", "features/*"]
              .filter((door) => door !== room)
              .map((door) => `@/${door}/*`),
          ],
        },
      ],
    },
  })),
);
