import { createRequire } from "node:module";

const require = createRequire(import.meta.url);

// The core is loaded built and outside Jest's sandbox, whose walls around every global access make its loops three
// times slower; tests of the web reach it through `core.cjs` and `words.cjs` beside this file. So is the layout of
// maps.
export async function addCore(global) {
  global.radiculaCore = await import("@radicula/core");
  global.radiculaWords = await import("@radicula/core/words");
  global.radiculaGerman = await import("@radicula/core/words/german");
  // only where it is asked for
  Object.defineProperty(global, "radiculaLayout", { get: layoutOutside });
}

/** Outside the sandbox an array made inside it is not known for one: what is laid out is copied. */
function layoutOutside() {
  const Elk = require("elkjs/lib/elk.bundled.js");
  return class extends Elk {
    layout(graph, options) {
      return super.layout(JSON.parse(JSON.stringify(graph)), options);
    }
  };
}
