// Adds up what the steps of `npm test` left behind, names what failed, and ends with one plain line.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

const folder = process.argv[2];
let passed = 0;
let failed = 0;
const names = [];
const read = (name) =>
  existsSync(join(folder, name)) ? JSON.parse(readFileSync(join(folder, name), "utf8")) : undefined;

const jest = read("jest.json");
const browser = read("playwright.json");
// a step that ended badly counts at least once, even when the tests it got to all passed
for (const name of readdirSync(folder).filter((f) => f.endsWith(".step"))) {
  const good = readFileSync(join(folder, name), "utf8").trim() === "pass";
  const counted =
    name === "unit.step" && jest
      ? jest.numFailedTests + jest.numRuntimeErrorTestSuites
      : name === "browser.step" && browser
        ? browser.stats.unexpected + browser.errors.length
        : undefined;
  if (!good && !counted) {
    failed++;
    names.push(name.replace(".step", ""));
  } else if (good && counted === undefined) passed++;
}
if (jest) {
  passed += jest.numPassedTests;
  failed += jest.numFailedTests + jest.numRuntimeErrorTestSuites;
  for (const file of jest.testResults) {
    const tests = file.assertionResults.filter((t) => t.status === "failed").map((t) => t.fullName);
    names.push(...tests, ...(file.status === "failed" && !tests.length ? [file.name] : []));
  }
}
if (browser) {
  passed += browser.stats.expected + browser.stats.flaky;
  failed += browser.stats.unexpected + browser.errors.length;
}
const inSuite = (suite) => [
  ...suite.specs.filter((s) => !s.ok).map((s) => `${s.file}: ${s.title}`),
  ...(suite.suites ?? []).flatMap(inSuite),
];
names.push(...(browser?.suites ?? []).flatMap(inSuite));
const again = browser?.stats.flaky ?? 0;
for (const name of names) console.log(`failed: ${name}`);
console.log(`\n${passed} passed${again ? ` (${again} of them at the second try)` : ""}, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);
