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

/** View-models and parts in jsdom. */
export default {
  displayName: "web",
  testEnvironment: "jsdom",
  testTimeout: 120_000, // machines differ; nothing here is judged by the clock
  testMatch: ["<rootDir>/test/**/*.test.{ts,tsx}"],
  transform: { "^.+\\.tsx?$": swc },
  setupFilesAfterEnv: ["<rootDir>/test/setup.ts"],
  transformIgnorePatterns: ["/node_modules/(?!(@radicula|pure-rand|comlink)/)"],
  moduleNameMapper: {
    "^@radicula/core$": "<rootDir>/../core/src/index.ts",
    "^@radicula/core/words$": "<rootDir>/../core/words/index.ts",
    "^@/(.*)$": "<rootDir>/src/$1",
    "\\.module\\.css$": "<rootDir>/test/styles.ts",
    "^(@ant-design|@rc-component)/([^/]+)/es/(.*)$": "$1/$2/lib/$3",
    "^(\\.{1,2}/.*)\\.js$": "$1",
  },
};
