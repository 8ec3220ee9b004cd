import { readFileSync } from "node:fs";
import { join } from "node:path";
import { analyse, parseCase, Predictor, type Analysis, type Case, type Entry } from "@radicula/core";

const DEMO = join(__dirname, "..", "..", "demo");

export function demoCase(file = "tug-4-reference.case.json"): Case {
  const read = parseCase(readFileSync(join(DEMO, file), "utf8"));
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
}
const predictors = new Map<string, Predictor>();
export function analysed(job: Case, more: readonly Entry[] = []): Analysis {
  const known = predictors.get(job.wiring.name) ?? new Predictor(job.wiring);
  predictors.set(job.wiring.name, known);
  return analyse(known, [...job.entries, ...more]);
}
