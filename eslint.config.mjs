import { createRequire } from "node:module";
import ts from "typescript-eslint";

const require = createRequire(import.meta.url);
const next = require("eslint-config-next");

/** Folders of the core in the order they may build on each other: each imports only those before it. */
const LAYERS = [
  "issues",
  "units",
  "format",
  "wiring",
  "chart",
  "network",
  "calculators",
  "faults",
  "codes",
  "instruments",
  "logbook",
  "prediction",
  "diagnosis",
  "proof",
  "notebook",
  "planner",
  "procedures",
  "simulation",
];
const layerRules = LAYERS.map((layer, i) => ({
  files: [`core/src/${layer}/**/*.ts`],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          ...(LAYERS.slice(i + 1).length
            ? [
                {
                  group: LAYERS.slice(i + 1).map((later) => `../${later}/*`),
                  message: `core/src/${layer} may not build on a folder that comes after it`,
                },
              ]
            : []),
          {
            group: ["node:*", "react", "next", "next/*", "postgres", "drizzle-orm*", "../../words/*", "../../cli/*"],
            message: "the core is pure: no I/O, no interface",
          },
        ],
      },
    ],
    "no-restricted-globals": ["error", "process", "window", "document", "fetch", "setTimeout"],
    "no-restricted-properties": ["error", { object: "Math", property: "random" }, { object: "Date", property: "now" }],
    "no-restricted-syntax": [
      "error",
      { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: "the core has no clock" },
    ],
  },
}));

/** attributes that people read or hear */
const SPOKEN = "title|label|placeholder|alt|hint|legend|says|aria-label";

export default [
  {
    ignores: [
      "**/node_modules/",
      "**/dist/",
      "**/dist-test/",
      "**/.next/",
      "web/next-env.d.ts",
      "web/oneTimeCode.d.mts",
      ".radicula/",
      "test-results/",
      "web/public/",
    ],
  },
  ...ts.configs.recommended,
  ...next.map((c) => ({
    ...c,
    files: (c.files ?? ["**/*.{js,mjs,ts,tsx}"]).map((f) => `web/${f.replace(/^\*\*\//, "**/")}`),
  })),
  { settings: { next: { rootDir: "web" }, react: { version: "19" } } },
  {
    files: ["**/*.{ts,tsx}"],
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-non-null-assertion": "off", // indexes of typed arrays, checked by construction
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-unused-expressions": ["error", { allowTernary: true, allowShortCircuit: true }],
    },
  },
  {
    files: ["**/*.{ts,tsx,mjs}"],
    rules: {
      eqeqeq: "error",
      "no-console": ["error", { allow: ["error"] }],
      "one-var": ["error", "never"],
      "max-len": ["error", { code: 120, ignoreUrls: true }],
      "max-lines-per-function": ["error", { max: 120, skipComments: true, IIFEs: true }],
    },
  },
  // a message is one line, however long its sentence
  { files: ["**/messages/{en,de}/*.ts"], rules: { "max-len": "off" } },
  {
    files: ["web/src/**/*.tsx"],
    rules: {
      "no-restricted-syntax": [
        "error",
        { selector: "JSXText[value=/[A-Za-z]{2,}/]", message: "words stand in the catalogue: t()" },
        {
          selector: `JSXAttribute[name.name=/^(${SPOKEN})$/] > Literal[value=/[A-Za-z]{2,}/]`,
          message: "words stand in the catalogue: t()",
        },
      ],
    },
  },
  ...layerRules,
  {
    files: ["core/cli/**/*.ts", "core/words/**/*.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ group: ["../src/*/**"], message: "use the core's public door, core/src/index" }] },
      ],
    },
  },
  {
    files: ["web/src/features/**/*.{ts,tsx}", "web/src/ui/**/*.{ts,tsx}"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ group: ["@/app/*"], message: "features do not know routes" }] },
      ],
      "no-restricted-properties": ["error", { object: "process", property: "env", message: "read src/env.ts" }],
    },
  },
  {
    files: ["scripts/**", "**/*.test.ts", "web/e2e/**", "core/bin/**", "core/examples/**"],
    rules: { "no-console": "off" },
  },
];
