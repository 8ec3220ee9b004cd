/** Two projects: the core on its compiled files, the web's view-models and parts in jsdom. */
export default {
  maxWorkers: "100%", // one less than the cores is one of two
  testTimeout: 120_000, // machines differ; nothing here is judged by the clock
  projects: ["<rootDir>/core", "<rootDir>/web"],
};
