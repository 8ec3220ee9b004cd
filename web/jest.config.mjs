const swc = [
  "@swc/jest",
  {
    jsc: {
      parser: { syntax: "typescript", tsx: true },
      transform: { react: { runtime: "automatic" } },
      target: "es2022",
    },
  },
];

/** modules that come as ESM only */
const ESM = "intl-messageformat|@formatjs|text-readability|syllable|flatqueue";

/** View-models and parts in jsdom. */
const config = {
  displayName: "web",
  testEnvironment: "<rootDir>/test/environments/jsdom.mjs",
  testMatch: ["<rootDir>/test/**/*.test.{ts,tsx}"],
  transform: {
    "^.+\\.tsx?$": swc,
    "react-hotkeys-hook/.+\\.js$": swc,
    "(oneTimeCode|language|workOut)\\.mjs$": swc,
    [`(${ESM})/.+\\.js$`]: swc,
  },
  setupFilesAfterEnv: ["<rootDir>/test/setup.ts"],
  transformIgnorePatterns: [`/node_modules/(?!(@radicula|pure-rand|comlink|react-hotkeys-hook|${ESM})/)`],
  moduleNameMapper: {
    "^@radicula/core$": "<rootDir>/test/environments/core.cjs",
    "^@radicula/core/words/german$": "<rootDir>/test/environments/german.cjs",
    "^@radicula/core/words$": "<rootDir>/test/environments/words.cjs",
    "^elkjs/lib/elk\\.bundled\\.js$": "<rootDir>/test/environments/layout.cjs",
    "\\.module\\.css$": "<rootDir>/test/styles.ts",
    "^@/(.*)$": "<rootDir>/src/$1",
    "^(@ant-design|@rc-component)/([^/]+)/es/(.*)$": "$1/$2/lib/$3",
    "^(\\.{1,2}/.*)\\.js$": "$1",
  },
};

export default config;
