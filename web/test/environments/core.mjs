// The core is loaded built and outside Jest's sandbox, whose walls around every global access make its loops three
// times slower; tests of the web reach it through `core.cjs` and `words.cjs` beside this file.
export async function addCore(global) {
  global.radiculaCore = await import("@radicula/core");
  global.radiculaWords = await import("@radicula/core/words");
  global.radiculaGerman = await import("@radicula/core/words/german");
}
