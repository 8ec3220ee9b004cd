/** Two projects: the core on its compiled files, the web's view-models and parts in jsdom. */
export default {
  maxWorkers: "100%", // one less than the cores is one of two
  projects: ["<rootDir>/core", "<rootDir>/web"],
};
