/** @jest-environment ./test/environments/node.mjs */
import { isDatabaseGone, isDiskFull } from "@/server/db/gone";
import { becomeReady, databaseId, readiness } from "@/server/readiness";
import { SchemaTooNew } from "@/server/setup";

beforeEach(() => {
  jest.useFakeTimers();
  jest.spyOn(console, "error").mockImplementation(() => undefined);
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
});
const refused = Object.assign(new Error("connect ECONNREFUSED"), { code: "ECONNREFUSED" });

test("a server started before its database is ready as soon as it is there, and says why until then", async () => {
  const answers: (() => Promise<string>)[] = [
    () => Promise.reject(refused),
    () => Promise.reject(refused),
    () => Promise.reject(new SchemaTooNew("of a newer version")),
    () => Promise.reject(new Error("syntax error in a migration")),
    () => Promise.resolve("which"),
  ];
  const said: string[] = [];
  await becomeReady(() => answers.shift()!());
  for (let i = 0; i < 4; i++) {
    const now = readiness();
    said.push(now.isReady ? "ready" : now.why);
    await jest.advanceTimersByTimeAsync(1000);
  }
  expect(said).toEqual(["database-gone", "database-gone", "schema-newer", "failed"]);
  expect(readiness()).toEqual({ isReady: true });
  expect(databaseId()).toBe("which");
  // each reason once in the log, not once a second
  expect(console.error).toHaveBeenCalledTimes(3);
  await jest.advanceTimersByTimeAsync(5000);
  expect(answers).toEqual([]);
});

test("a database that is out of reach is told from a failure of the program, wherever it is said", () => {
  expect(isDatabaseGone(new Error("query failed", { cause: refused }))).toBe(true);
  expect(isDatabaseGone(new AggregateError([new Error("x"), refused]))).toBe(true);
  expect(isDatabaseGone(Object.assign(new Error("terminating connection"), { code: "57P01" }))).toBe(true);
  expect(isDatabaseGone(new Error("column does not exist"))).toBe(false);
  expect(isDatabaseGone("gone")).toBe(false);
});

test("a full disk is told from other failures", () => {
  // 53100: disk_full, PostgreSQL's list of error codes (value from memory)
  const full = Object.assign(new Error("could not extend file"), { code: "53100" });
  expect(isDiskFull(new Error("query failed", { cause: full }))).toBe(true);
  expect(isDiskFull(Object.assign(new Error("write"), { code: "ENOSPC" }))).toBe(true);
  expect(isDiskFull(Object.assign(new Error("duplicate key"), { code: "23505" }))).toBe(false);
  expect(isDiskFull("No space left on device")).toBe(false);
});
