// Mutations of the web's server. All stand in one build, each behind a number in the environment, so that the
// application is built once; the browser suite's tests of routes and library are run against each.
import { execFileSync, spawnSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";

const SPECS = ["api.spec.ts", "library.spec.ts", "intake.spec.ts"];

/** @param mutations see pickMutations @param note takes each mutation and what killed it */
export function mutateServer(mutations, note) {
  if (execFileSync("git", ["status", "--porcelain", "web/src"], { encoding: "utf8" }).trim())
    throw new Error("web/src has changes that are not committed: the mutations are written there and taken out by git");
  const usable = mutations.filter((m, i) => !mutations.slice(0, i).some((o) => overlap(o, m)));
  const byFile = Map.groupBy(
    usable.map((m, number) => ({ ...m, number })),
    (m) => m.file,
  );
  try {
    for (const [file, list] of byFile) writeFileSync(file, switched(readFileSync(file, "utf8"), list));
    execFileSync("npm", ["run", "--silent", "build", "-w", "web"], {
      stdio: "inherit",
      env: { ...process.env, RADICULA_UNTYPED: "1" },
    });
    usable.forEach((m, number) => note(m, failureOf(number)));
  } finally {
    execFileSync("git", ["checkout", "-q", "--", "web/src"]);
  }
}

const overlap = (a, b) => a.file === b.file && a.start < b.end && b.start < a.end;

/** Every mutation of one file, each chosen by its number; from the end, so that places stay what they are. */
function switched(text, list) {
  return [...list]
    .sort((a, b) => b.start - a.start)
    .reduce((made, m) => {
      const on = `(process.env["MUTANT"] === "${m.number}")`;
      const original = made.slice(m.start, m.end);
      const either = m.kind === "removed" ? `if (!${on}) { ${original} }` : `(${on} ? (${m.full}) : (${original}))`;
      return made.slice(0, m.start) + either + made.slice(m.end);
    }, text);
}

function failureOf(number) {
  const run = spawnSync("npx", ["--no-install", "playwright", "test", ...SPECS, "--project", "journeys", "-x"], {
    encoding: "utf8",
    env: { ...process.env, MUTANT: String(number) },
    timeout: 600_000,
    killSignal: "SIGKILL",
  });
  return run.status === 0 ? undefined : (/\d+\) \[journeys\] › (.*)/.exec(run.stdout ?? "")?.[1] ?? "a test failed");
}
