// One exported name means one thing: lists every name that two files of the product export, and fails if there is one.
// Left out: what the framework asks for by name (pages, routes), files that only pass on what others export, and the
// catalogues of messages, which have the same names in each language.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";

const files = ["core/src", "core/words", "core/cli", "web/src"]
  .flatMap((folder) => readdirSync(folder, { recursive: true, encoding: "utf8" }).map((f) => join(folder, f)))
  .filter(
    (f) => /\.tsx?$/.test(f) && !f.startsWith("web/src/app/") && !f.includes("/messages/") && !f.endsWith(".d.ts"),
  );
const exported = (node) => ts.getCombinedModifierFlags(node) & ts.ModifierFlags.Export;
const names = (s) => {
  if (ts.isVariableStatement(s)) return s.declarationList.declarations.map((d) => d.name.getText());
  return s.name ? [s.name.getText()] : [];
};

const owners = new Map();
for (const file of files) {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  for (const s of source.statements) {
    const first = ts.isVariableStatement(s) ? s.declarationList.declarations[0] : s;
    if (!first || !exported(first)) continue;
    for (const n of names(s)) owners.set(n, (owners.get(n) ?? new Set()).add(file));
  }
}
const twice = [...owners].filter(([, at]) => at.size > 1);
for (const [name, at] of twice) console.error(`${name} is exported by ${[...at].join(" and ")}`);
console.log(`${owners.size} exported names in ${files.length} files, ${twice.length} of them in more than one file`);
process.exit(twice.length ? 1 : 0);
