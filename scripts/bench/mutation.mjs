// npm run bench:mutation [-- --seed 28 --count 60]: do the tests notice a small mistake?
// Random mutations, one at a time: of the core's diagnosis, planner and logbook in its compiled tests, of the server in
// its source (built anew and tried in the browser tests). The core's tests run once with all places marked, to learn
// which test file comes by which place; a mutation then faces those files only, the quick ones first. It is killed when
// a test fails or does not end in time. Run it in a clone of its own: it changes files and puts them back.
import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import ts from "typescript";
import { marked, mutated, pickMutations } from "./mutations.mjs";

const { values: options } = parseArgs({
  options: {
    seed: { type: "string", default: "1" },
    count: { type: "string", default: "60" },
    workers: { type: "string", default: "2" },
    report: { type: "string", default: "core/dist-test/mutations.json" },
  },
});
const CORE = ["core/src/diagnosis", "core/src/planner", "core/src/logbook"];
const SERVER = "web/src/server";
const TESTS = resolve("core/dist-test/test");
const HITS = resolve("core/dist-test/hits");
const JEST = ["--no-install", "jest", "--selectProjects", "core", "--silent", "--maxWorkers", options.workers];

const compiled = (file) => file.replace("core/src/", "core/dist-test/src/").replace(/\.ts$/, ".js");
const toScript = (text) =>
  ts.transpileModule(text, {
    compilerOptions: { target: ts.ScriptTarget.ES2023, module: ts.ModuleKind.ESNext, verbatimModuleSyntax: true },
  }).outputText;

/** Runs something with files changed, then puts them back. */
async function withFiles(changed, run) {
  const kept = [...changed.keys()].map((file) => [file, readFileSync(file)]);
  for (const [file, text] of changed) writeFileSync(file, text);
  try {
    return await run();
  } finally {
    for (const [file, text] of kept) writeFileSync(file, text);
  }
}

/** @returns for every test file its seconds and the numbers of the places it came by */
async function learnWhoComesBy(mutations) {
  const hit = join(HITS, "hit.mjs");
  rmSync(HITS, { recursive: true, force: true });
  mkdirSync(HITS, { recursive: true });
  writeFileSync(
    hit,
    `import { writeFileSync } from "node:fs";\nconst seen = new Set();\nexport const hit = (n) => {\n` +
      `  if (seen.has(n)) return;\n  seen.add(n);\n  writeFileSync(process.env.HITS + "/" + n, "");\n};\n`,
  );
  const files = new Map();
  for (const file of new Set(mutations.map((m) => m.file)))
    files.set(compiled(file), `import { hit as hit_ } from "${hit}";\n${toScript(marked(file, mutations, "hit_"))}`);
  const waiting = readdirSync(TESTS, { recursive: true }).filter((f) => f.endsWith(".test.js"));
  const learnt = [];
  const learn = async () => {
    for (let test = waiting.pop(); test; test = waiting.pop()) {
      const dir = join(HITS, test.replaceAll("/", "-"));
      mkdirSync(dir);
      const began = Date.now();
      const status = await new Promise((done) =>
        spawn("npx", [...JEST, "--runTestsByPath", join(TESTS, test)], {
          stdio: "ignore",
          env: { ...process.env, HITS: dir },
        }).on("exit", done),
      );
      if (status !== 0) throw new Error(`${test} fails before anything is changed`);
      const places = new Set(readdirSync(dir).map(Number));
      learnt.push({ path: join(TESTS, test), seconds: (Date.now() - began) / 1000, places });
    }
  };
  await withFiles(files, () => Promise.all(Array.from({ length: Number(options.workers) }, learn)));
  return learnt.sort((a, b) => a.seconds - b.seconds);
}

/** @returns the name of what failed; undefined where all passed */
function failureOf(tests) {
  if (tests.length === 0) return undefined;
  const report = "core/dist-test/mutation.json";
  rmSync(report, { force: true });
  const seconds = tests.reduce((sum, t) => sum + t.seconds, 0);
  const run = spawnSync(
    "npx",
    [...JEST, "--bail", "--json", "--outputFile", report, "--runTestsByPath", ...tests.map((t) => t.path)],
    // a mutation may loop for ever
    { stdio: "ignore", timeout: Math.round(60_000 + 4000 * seconds), killSignal: "SIGKILL" },
  );
  if (run.status === 0) return undefined;
  if (run.status === null) return "did not end in time";
  try {
    const failed = JSON.parse(readFileSync(report, "utf8")).testResults.find((f) => f.status === "failed");
    return failed?.assertionResults.find((a) => a.status === "failed")?.fullName ?? failed?.name ?? "a suite failed";
  } catch {
    return "a test failed"; // --bail ends the run before its report is written
  }
}

function tryCore(mutation, tests) {
  const changed = new Map([[compiled(mutation.file), toScript(mutated(mutation))]]);
  return withFiles(changed, () => {
    let quick = 0;
    while (quick < tests.length && tests[quick].seconds < 6) quick++;
    return failureOf(tests.slice(0, quick)) ?? failureOf(tests.slice(quick));
  });
}

/** @param mutation undefined for the server as it is: its tests must pass before anything is changed */
function tryServer(mutation) {
  const script = `. scripts/lib.sh; trap drop_scratch EXIT
    need_build && scratch_database || exit 9
    export RADICULA_ROOT=$ROOT
    npx --no-install jest --selectProjects web --silent --bail &&
      npx --no-install playwright test -x --project journeys`;
  return withFiles(new Map(mutation ? [[mutation.file, mutated(mutation)]] : []), () => {
    const run = spawnSync("bash", ["-c", script], { encoding: "utf8", timeout: 1_200_000, killSignal: "SIGKILL" });
    if (run.status === 9) return "does not build";
    if (run.status === null) return "did not end in time";
    return run.status === 0 ? undefined : (/\d+\) \[journeys\] › (.*)/.exec(run.stdout)?.[1] ?? "a test failed");
  });
}

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

const all = pickMutations([...CORE, SERVER], Number(options.count), Number(options.seed));
const ofCore = all.filter((m) => !m.file.startsWith(SERVER)).map((m, number) => ({ ...m, number }));
const tests = await learnWhoComesBy(ofCore);
console.log(`${tests.length} test files of the core; ${ofCore.length} mutations of it`);
for (const m of ofCore) {
  const comeBy = tests.filter((t) => t.places.has(m.number));
  note(m, await tryCore(m, comeBy));
}
const ofServer = all.filter((m) => m.file.startsWith(SERVER));
const broken = ofServer.length > 0 ? await tryServer(undefined) : undefined;
if (broken) throw new Error(`the server's tests fail before anything is changed: ${broken}`);
for (const m of ofServer) note(m, await tryServer(m));
const killed = results.filter((r) => r.killedBy !== null).length;
console.log(`killed ${killed} of ${results.length}, ${Math.round((100 * killed) / results.length)} %`);
