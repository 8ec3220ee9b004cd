/** @jest-environment node */
import { spawnSync } from "node:child_process";
import { chmodSync, cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** A project folder of its own, where only the scripts are. */
let project: string;
beforeEach(() => {
  project = mkdtempSync(join(tmpdir(), "project-"));
  chmodSync(project, 0o755); // the database's own user goes through it
  cpSync(join(__dirname, "../../scripts"), join(project, "scripts"), { recursive: true });
});
afterEach(() => rmSync(project, { recursive: true, force: true }));

test("a folder that is not a database is left as it is, and the program stops and says what is there", () => {
  const data = join(project, ".radicula", "postgres");
  mkdirSync(data, { recursive: true });
  writeFileSync(join(data, "base.tar"), "the only copy");
  const { status, stderr } = spawnSync("bash", ["-c", ". scripts/lib.sh; start_database"], {
    cwd: project,
    encoding: "utf8",
  });
  expect(status).not.toBe(0);
  expect(stderr).toContain(data);
  expect(stderr).toContain("base.tar");
  expect(readFileSync(join(data, "base.tar"), "utf8")).toBe("the only copy");
});
