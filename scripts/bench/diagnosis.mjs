// npm run bench:diagnosis: plays every single fault of the demo wiring that sets a code against a simulated machine of its own,
// always taking the program's first choice of reading, and prints how it went. Run `npm start` or `npm ci` once before.
import { readFileSync } from "node:fs";
import { analyse, parseWiring, Predictor, SimulatedMachine } from "@radicula/core";

const MOST_READINGS = 8;
const read = parseWiring(readFileSync(new URL("../../demo/tug-4.wiring.json", import.meta.url), "utf8"));
if (!read.ok) throw new Error(JSON.stringify(read.issues));
const wiring = read.value;
const predictor = new Predictor(wiring);
const at = "2026-11-24T10:00:00Z";
const times = [];
const result = { played: 0, silent: 0, found: 0, readings: 0, wrong: [], missed: [] };

/** a severity off the grid, spread over it from fault to fault */
const severity = (fault, i) => 1.3 * fault.severities[Math.floor((((i * 7919) % 97) / 97) * fault.severities.length)];

predictor.faults.forEach((fault, i) => {
  const machine = new SimulatedMachine(wiring, fault, severity(fault, i), 500 + i);
  const entries = machine.codes().map((c) => ({ type: "code", at, module: c.module, code: c.code, status: "active" }));
  if (entries.length === 0) { result.silent++; return; }
  result.played++;
  for (let readings = 0, misled = false; ; readings++) {
    const start = performance.now();
    const a = analyse(predictor, entries);
    if (readings > 0) times.push(performance.now() - start);
    const top = a.suspects[0];
    const right = top.members.some((m) => m.fault.place.id === fault.place.id);
    if (top.type === "fault" && top.share >= 0.95 && !right && !misled) { misled = true; result.wrong.push(`${fault.id}: ${top.id} at ${top.share.toFixed(3)} after ${readings} readings`); }
    const next = a.next[0]?.candidate;
    if (a.stage === "proven" || !next || readings === MOST_READINGS) {
      if (right && top.share >= 0.95) { result.found++; result.readings += readings; } else result.missed.push(`${fault.id}: ${top.id} at ${top.share.toFixed(2)}, ${a.stage}`);
      return;
    }
    const values = next.points.map((p) => machine.read(p, next.state, next.instrument)).map((v) => (v === Infinity ? "OL" : v));
    // a live wire: the ohmmeter proves nothing, so the next best is taken
    if (values.some(Number.isNaN)) { entries.push({ type: "setAside", at, candidate: next.id, reason: "other" }); continue; }
    entries.push({ type: "reading", at, instrument: next.instrument, points: [...next.points], values, state: next.state });
  }
});

times.sort((x, y) => x - y);
const quantile = (q) => times[Math.floor(q * (times.length - 1))].toFixed(0);
console.log(`${predictor.faults.length} single faults; ${result.silent} set no code with the key on or cranking; ${result.played} played`);
console.log(`found at 95 % within ${MOST_READINGS} readings: ${result.found} of ${result.played}, ${(result.readings / result.found).toFixed(1)} readings on average`);
console.log(`a wrong cause stood at 95 % at some step: ${result.wrong.length}`);
for (const line of result.wrong) console.log(`  ${line}`);
console.log(`not found: ${result.missed.length}`);
for (const line of result.missed) console.log(`  ${line}`);
console.log(`one update, in Node, without thinking ahead: median ${quantile(0.5)} ms, 90 % under ${quantile(0.9)} ms`);
