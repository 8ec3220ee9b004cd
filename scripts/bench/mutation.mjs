// npm run bench:mutation [-- --seed 1 --count 48]: do the core's tests notice a small mistake?
// Random mutations of diagnosis, planner and logbook, one at a time, written into the compiled tests only
// (`npm run compile:core-tests` first). A mutation is killed when a test fails or does not end in time. The folder that
// mirrors the source is tried first, the folders built on it only where that one passes, and at last whole jobs played
// on the simulated machine.
import { spawnSync } from "node:child_process";
import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { parseArgs } from "node:util";
import ts from "typescript";
import { mutated, pickMutations } from "./mutations.mjs";

const { values: options } = parseArgs({
  options: {
    seed: { type: "string", default: "1" },
    count: { type: "string", default: "48" },
    report: { type: "string", default: "core/dist-test/mutations.json" },
  },
});
const FOLDERS = ["diagnosis", "planner", "logbook"];
/** A mutation may make a loop that never ends; all core tests take a third of this on two busy cores. */
const TIMEOUT_MS = 1_800_000;

/** @returns the name of the first thing that failed; undefined where all passed */
function failureOf(pattern, ignore) {
  const report = join("core/dist-test", "mutation.json");
  rmSync(report, { force: true });
  const args = ["jest", "--selectProjects", "core", "--bail", "--silent", "--json", "--outputFile", report];
  const run = spawnSync(
    "npx",
    ["--no-install", ...args, "--testPathPatterns", pattern, ...(ignore ? ["--testPathIgnorePatterns", ignore] : [])],
    { stdio: "ignore", timeout: TIMEOUT_MS, killSignal: "SIGKILL" },
  );
  if (run.status === 0) return undefined;
  if (run.status === null) return "did not end in time";
  try {
    const result = JSON.parse(readFileSync(report, "utf8"));
    const failed = result.testResults.find((f) => f.status === "failed");
    return failed?.assertionResults.find((a) => a.status === "failed")?.fullName ?? failed?.name ?? "a suite failed";
  } catch {
    return "a test failed"; // --bail ends the run before its report is written
  }
}

function tryCore(mutation) {
  const out = mutation.file.replace("core/src/", "core/dist-test/src/").replace(/\.ts$/, ".js");
  const kept = readFileSync(out);
  const { outputText } = ts.transpileModule(mutated(mutation), {
    compilerOptions: { target: ts.ScriptTarget.ES2023, module: ts.ModuleKind.ESNext, verbatimModuleSyntax: true },
  });
  writeFileSync(out, outputText);
  try {
    const own = `dist-test/test/${mutation.file.split("/")[2]}/`;
    return (
      failureOf(own) ??
      failureOf("dist-test/test/", `${own}|test/simulation/|test/network/|test/faults/`) ??
      failureOf("dist-test/test/simulation/(demo|technician)")
    );
  } finally {
    writeFileSync(out, kept);
  }
}

const seed = Number(options.seed);
const count = Number(options.count);
const results = [];
const note = (mutation, killedBy) => {
  results.push({ ...mutation, killedBy: killedBy ?? null });
  const killed = results.filter((r) => r.killedBy !== null).length;
  const what = `${mutation.file}:${mutation.line} ${mutation.kind}: ${mutation.before} -> ${mutation.after}`;
  console.log(
    `${killedBy ? "killed  " : "SURVIVED"} ${killed}/${results.length} ${what}${killedBy ? `  [${killedBy}]` : ""}`,
  );
  writeFileSync(options.report, JSON.stringify(results, null, 1));
};

const broken = failureOf(`dist-test/test/(${FOLDERS.join("|")})/`);
if (broken) throw new Error(`the tests fail before anything is changed: ${broken}`);
for (const m of pickMutations(
  FOLDERS.map((f) => `core/src/${f}`),
  count,
  seed,
))
  note(m, tryCore(m));
const killed = results.filter((r) => r.killedBy !== null).length;
console.log(`killed ${killed} of ${results.length}, ${Math.round((100 * killed) / results.length)} %`);
