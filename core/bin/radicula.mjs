#!/usr/bin/env node
import { existsSync } from "node:fs";

const main = new URL("../dist/cli/bin.js", import.meta.url);
if (!existsSync(main)) {
  console.error("radicula: the program is not built yet. Run `npm start` once, or `npm ci`, in the project folder.");
  process.exit(70);
}
await import(main.href);
