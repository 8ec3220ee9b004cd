/**
 * The direction of the data flow: no file leads back to itself, imports of types included. Which layer may import which
 * stands in eslint.config.mjs.
 */
module.exports = {
  forbidden: [
    {
      name: "no-circular",
      severity: "error",
      comment: "Two files that need each other are one thing, or need a third between them.",
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules|dist" },
    exclude: { path: "(^|/)(node_modules|dist|dist-test|\\.next)/" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default"],
      extensions: [".ts", ".tsx", ".js", ".mjs", ".json"],
    },
  },
};
