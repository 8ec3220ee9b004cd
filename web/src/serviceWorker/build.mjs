// Bundles the service worker with the list of this build's own files, after the pages were built.
import { readdirSync } from "node:fs";
import { dirname, join, relative, sep } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const here = dirname(fileURLToPath(import.meta.url));
const web = join(here, "..", "..");
const built = join(web, ".next", "static");
const files = readdirSync(built, { recursive: true, withFileTypes: true })
  .filter((f) => f.isFile() && /\.(?:js|css|woff2)$/.test(f.name))
  .map((f) => relative(built, join(f.parentPath, f.name)).split(sep).join("/"))
  .sort();
await build({
  entryPoints: [join(here, "sw.ts")],
  outfile: join(web, "public", "sw.js"),
  bundle: true,
  minify: true,
  format: "iife",
  target: "es2022",
  define: {
    BUILT_FILES: JSON.stringify([...files.map((f) => `/_next/static/${f}`), "/elk-worker.min.js", "/icon.svg"]),
    "process.env.NODE_ENV": '"production"',
  },
});
