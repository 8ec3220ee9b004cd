import { readFileSync } from "node:fs";
import { join } from "node:path";
import { parseCase, parseWiring, readWiring, type Case, type Wiring, type Entry } from "../src/index.js";

/** The root of the project, seen from where the compiled tests run: core/dist-test/test. */
export const ROOT = join(import.meta.dirname, "..", "..", "..");
const DEMO = join(ROOT, "demo");
export const demoText = (file: string) => readFileSync(join(DEMO, file), "utf8");

export function demoCase(file: string): Case {
  const read = parseCase(demoText(file));
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
}

export function tug(): Wiring {
  const read = parseWiring(demoText("tug-4.wiring.json"));
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
}

/** A wiring from loose parts; throws where it does not read. */
export function wiring(parts: Record<string, unknown>): Wiring {
  const read = readWiring({ format: "radicula/wiring", version: 1, name: "test", nominalVolt: 12, ...parts });
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
}

export const code = (id: string, status = "active") => ({
  type: "code" as const,
  at: "2026-11-24T09:00:00Z",
  module: "A1",
  code: id,
  status: status as "active",
});
export const plugged = (key: "on" | "off" = "on") => ({ key, unplugged: [] as string[] });

/** mulberry-like generator for tests, apart from the one the core uses */
export function random(seed: number): () => number {
  let s = seed >>> 0;
  return () => {
    s = (Math.imul(s ^ (s >>> 15), 0x2c1b3c6d) + 0x9e3779b9) >>> 0;
    const t = Math.imul(s ^ (s >>> 12), 0x297a2d39);
    return ((t ^ (t >>> 15)) >>> 0) / 4294967296;
  };
}

/** Everything that module A1 gave, as one scan after a drive: what it did not give counts as not set. */
export const scanned = (codes: readonly string[], status: "active" | "stored" = "active"): Entry => ({
  type: "scan",
  at: "2026-01-01T08:00:00Z",
  when: "afterDrive",
  modules: ["A1"],
  codes: codes.map((code) => ({ module: "A1", code, status })),
  disturbed: [],
  wiped: false,
});
