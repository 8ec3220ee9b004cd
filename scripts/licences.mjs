// npm run licences: under which licences the packages stand that this program needs, from the lock file; ends with 1
// where one is not among those that let it be passed on under its own (MIT).
import { readFileSync } from "node:fs";
import { join } from "node:path";

const ALLOWED = new Set([
  ...["MIT", "MIT-0", "ISC", "0BSD", "BSD-2-Clause", "BSD-3-Clause", "Apache-2.0", "BlueOak-1.0.0", "Unlicense"],
  ...["CC0-1.0", "CC-BY-4.0", "OFL-1.1", "Python-2.0", "MPL-2.0"],
  // used as they come: anybody may put another version in their place and build again
  ...["LGPL-3.0", "LGPL-3.0-or-later", "EPL-2.0 OR GPL-3.0-or-later"],
]);
/** Each part of "A AND B" has to be allowed; of "A OR B" one. */
const isAllowed = (licence) =>
  ALLOWED.has(licence) ||
  licence
    .replace(/[()]/g, "")
    .split(" AND ")
    .every((all) => all.split(" OR ").some((one) => ALLOWED.has(one.trim())));

/** What a package's own file says, where the lock file does not. */
function inFile(path) {
  try {
    const text = readFileSync(join(import.meta.dirname, "..", path, "LICENSE"), "utf8");
    return /^\s*(?:The )?MIT License/i.test(text) ? "MIT" : "none";
  } catch {
    return "none";
  }
}

const lock = JSON.parse(readFileSync(join(import.meta.dirname, "../package-lock.json"), "utf8"));
const byLicence = new Map();
for (const [path, { license: said, link, dev }] of Object.entries(lock.packages)) {
  const name = path.split("node_modules/").at(-1);
  if (!path.includes("node_modules/") || link) continue;
  const license = said ?? inFile(path);
  const list = byLicence.get(license) ?? [];
  byLicence.set(license, [...list, dev ? `${name} (only to develop)` : name]);
}
for (const [licence, names] of [...byLicence].sort((a, b) => b[1].length - a[1].length))
  console.log(`${licence}: ${names.length}${names.length <= 12 ? `, ${[...new Set(names)].sort().join(", ")}` : ""}`);
const wrong = [...byLicence].filter(([licence]) => !isAllowed(licence));
for (const [licence, names] of wrong) console.error(`not allowed, ${licence}: ${names.join(", ")}`);
if (wrong.length) process.exitCode = 1;
