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

/** Two projects: the core in plain Node, the web's view-models and parts in jsdom. */
export default {
  maxWorkers: "100%", // one less than the cores is one of two
  testTimeout: 120_000, // machines differ; nothing here is judged by the clock
  projects: [
    {
      displayName: "core",
      rootDir: "core",
      testEnvironment: "node",
      testMatch: ["<rootDir>/test/**/*.test.ts"],
      extensionsToTreatAsEsm: [".ts"],
      transform: { "^.+\\.ts$": swc },
      transformIgnorePatterns: ["/node_modules/(?!(pure-rand)/)"],
      moduleNameMapper: { "^(\\.{1,2}/.*)\\.js$": "$1" },
    },
    {
      displayName: "web",
      rootDir: "web",
      testEnvironment: "jsdom",
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
    },
  ],
};
