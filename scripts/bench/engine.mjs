// npm run bench: made-up harnesses of 100, 500, 2 000 and 5 000 nodes; every single fault at its middle severity,
// in three key states, with meter loading. Beside it, in the same run: a dense LU per fault (ml-matrix) and ngspice in
// one
// process with altered devices. Prints a table and, with --write, keeps it in docs/benchmarks.md.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { cpus, tmpdir } from "node:os";
import { join } from "node:path";
import { LuDecomposition, Matrix } from "ml-matrix";
import {
  batteryVolt,
  compile,
  compileState,
  conditionsOf,
  createSolver,
  generateFaults,
  generateHarness,
  measureOhms,
  middleSeverity,
  netlist,
  nodeVolt,
  prepare,
  settle,
  solutionOf,
  sweep,
} from "@radicula/core";

/** How long ngspice is waited for, ms. */
const PATIENCE = 40_000;
const KEYS = ["off", "on", "running"];
const SIZES = [100, 500, 2000, 5000];
const now = () => performance.now();
const fixed = (x, digits = 1) =>
  x >= 1000 ? Math.round(x).toLocaleString("en").replaceAll(",", "\u202f") : x.toFixed(digits);
const median = (list) => list.toSorted((a, b) => a - b)[list.length >> 1];

/**
 * The dense nodal matrix of the circuit as it stands, from the same weights the engine uses: what a general-purpose
 * solver is given.
 */
function dense(s) {
  const { circuit } = s.conditions;
  const n = circuit.nodes.length - 1;
  const w = s.weights;
  const A = Matrix.zeros(n, n);
  const b = Matrix.zeros(n, 1);
  const lean = (row, column, g) => {
    if (row && g) {
      A.set(row - 1, row - 1, A.get(row - 1, row - 1) + g);
      if (column) A.set(row - 1, column - 1, A.get(row - 1, column - 1) - g);
    }
  };
  circuit.elements.forEach((e, i) => {
    if (e.a === e.b) return;
    lean(e.a, e.b, w[6 * i]);
    lean(e.b, e.a, w[6 * i + 1]);
    if (e.type === "follower" && e.a !== e.low) {
      lean(e.a, e.low, w[6 * i + 2]);
      lean(e.low, e.a, w[6 * i + 3]);
    }
    if (e.a) b.set(e.a - 1, 0, b.get(e.a - 1, 0) + w[6 * i + 4]);
    if (e.b) b.set(e.b - 1, 0, b.get(e.b - 1, 0) + w[6 * i + 5]);
  });
  // a part that floats would make it singular: tied to chassis
  for (let i = 0; i < n; i++) if (Number.isNaN(nodeVolt(s, i + 1))) A.set(i, i, A.get(i, i) + 1e-6);
  return { A, b };
}

/**
 * One dense LU and solve, with every device state already right: less work than the engine does.
 * @returns ms and the largest difference, volt
 */
function denseOnce(s) {
  const { A, b } = dense(s);
  const t = now();
  const x = new LuDecomposition(A).solve(b);
  const ms = now() - t;
  let worst = 0;
  for (let i = 1; i < s.conditions.circuit.nodes.length; i++) {
    const v = nodeVolt(s, i);
    if (!Number.isNaN(v)) worst = Math.max(worst, Math.abs(x.get(i - 1, 0) - v));
  }
  return { ms, worst };
}

/**
 * ngspice in one process: the circuit is read once, then for each fault one resistor is altered and an operating point
 * found, started from the last one and a nodeset at the healthy solution. Only faults that change one resistor are
 * given to it (series resistance in a wire or contact), so that nothing has to be read again. Output is kept to one
 * node.
 */
function spiceAltering(s, faults, most) {
  const { circuit } = s.conditions;
  const picked = faults
    .filter(
      (f) =>
        (f.mode === "contactHighResistance" || f.mode === "highResistance") &&
        (f.place.type === "wire" || f.place.type === "cavity"),
    )
    .slice(0, most);
  settle(s, {});
  const base = netlist("bench", s.conditions, {}, solutionOf(s));
  const names = new Map([...base.matchAll(/^R(\d+) /gm)].map((m) => [Number(m[1]), `R${m[1]}`]));
  const cases = picked.flatMap((f) => {
    const edit = f.edit(middleSeverity(f), circuit, 12.4);
    const { element, ohm } = edit.series[0];
    return names.has(element)
      ? [{ edit, element, ohm: circuit.elements[element].ohm + ohm, old: circuit.elements[element].ohm }]
      : [];
  });
  const folder = mkdtempSync(join(tmpdir(), "bench-"));
  try {
    const node = 1 + ((circuit.nodes.length / 2) | 0);
    const run = (list) => {
      const body = list
        .map(
          (c) =>
            `alter ${names.get(c.element)} = ${c.ohm}\nop\nprint v(n${node})\nalter ${names.get(c.element)} = ` +
            `${c.old}\ndestroy all`,
        )
        .join("\n");
      const file = join(folder, "c.cir");
      writeFileSync(file, base.replace(".op\n", `.control\nset numdgt=15\nop\n${body}\nquit\n.endc\n`));
      const t = now();
      let out = "";
      try {
        out = execFileSync("ngspice", ["-b", file], {
          encoding: "utf8",
          stdio: ["ignore", "pipe", "pipe"],
          maxBuffer: 1 << 28,
          timeout: PATIENCE,
          killSignal: "SIGKILL",
        });
      } catch (error) {
        if (error.code === "ETIMEDOUT") return undefined;
        out = String(error.stdout ?? "");
      }
      return { ms: now() - t, volts: [...out.matchAll(/^v\(n\d+\) = ([-+.\deE]+)/gm)].map((m) => Number(m[1])) };
    };
    const few = run(cases.slice(0, 1));
    const many = few && run(cases); // the difference leaves out start and reading
    if (!many) return { ms: NaN, worst: NaN };
    let worst = 0;
    cases.forEach((c, i) => {
      if (settle(s, c.edit).settled && many.volts[i] !== undefined) {
        const v = nodeVolt(s, node);
        if (!Number.isNaN(v)) worst = Math.max(worst, Math.abs(v - many.volts[i]));
      }
    });
    return { ms: (many.ms - few.ms) / (cases.length - 1), worst, cases: many.volts.length };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const rows = [];
for (const size of SIZES) {
  const wiring = generateHarness({ nodes: size, seed: 1 });
  const faults = generateFaults(wiring);
  const nodes = compile(wiring, "on").nodes.length - 1;
  const severities = faults.reduce((sum, f) => sum + f.severities.length, 0);
  const middle = { severities: (f) => [middleSeverity(f)] };
  const states = KEYS.map((key) => ({ key, unplugged: [] }));
  const repeats = size > 2500 ? 1 : size > 1000 ? 3 : 9;
  const perState = KEYS.map(() => []);
  const whole = [];
  let moved = 0;
  let unsettled = 0;
  for (let i = 0; i < repeats; i++) {
    states.forEach((state, k) => {
      const t = now();
      const [r] = sweep(wiring, faults, [state], middle);
      perState[k].push(now() - t);
      if (i === 0) {
        moved += r.node.length;
        unsettled += r.unsettled.length;
      }
    });
    const t = now();
    sweep(wiring, faults, states, middle);
    whole.push(now() - t);
  }
  const best = Math.min(...whole);
  const each = (best * 1000) / (faults.length * KEYS.length);
  const state = { key: "on", unplugged: [] };
  const circuit = compileState(wiring, state);
  const s = createSolver(circuit);
  prepare(s, conditionsOf(circuit, state));
  const memory = process.memoryUsage.rss() / 1e6;
  const some = size > 2500 ? 0 : size > 1000 ? 2 : 8; // a dense LU of 5 000 nodes takes minutes and gigabytes
  const sample = faults.filter((f) => f.mode === "contactHighResistance").slice(0, some);
  const lu = sample.map((f) => {
    settle(s, f.edit(middleSeverity(f), circuit, batteryVolt(wiring, "on")));
    return denseOnce(s);
  });
  const luMs = some === 0 ? NaN : median(lu.map((x) => x.ms));
  const spice = spiceAltering(s, faults, size > 1000 ? 12 : 60);
  // exact solving of the same one-resistor faults, for a like-for-like figure with ngspice
  const single = faults
    .filter((f) => f.mode === "contactHighResistance")
    .map((f) => f.edit(middleSeverity(f), circuit, 12.4));
  const alike = [];
  for (let i = 0; i < 5; i++) {
    const t = now();
    for (const e of single) {
      settle(s, e);
      measureOhms(s);
    }
    alike.push(((now() - t) * 1000) / single.length);
  }
  rows.push({
    nodes,
    faults: faults.length,
    severities,
    whole: best,
    each,
    states: perState.map((l) => (Math.min(...l) * 1000) / faults.length),
    moved: moved / (faults.length * KEYS.length),
    unsettled,
    luMs,
    luWorst: Math.max(0, ...lu.map((x) => x.worst)),
    spice,
    exact: Math.min(...alike),
    memory,
  });
  console.error(
    `${nodes} nodes: ${Math.round(each * 10) / 10} µs a fault and state; ${Math.round(now() / 1000)} s so far`,
  );
}

const table = (head, body) =>
  [
    `| ${head.join(" | ")} |`,
    `| ${head.map(() => "---:").join(" | ")} |`,
    ...body.map((r) => `| ${r.join(" | ")} |`),
  ].join("\n");
const text = `${table(
  [
    "nodes",
    "single faults",
    "with severities",
    "whole sweep, 3 key states, ms",
    "µs per fault and state",
    "off / on / running, µs",
    "pins moved",
    "no steady state",
    "memory, MB",
  ],
  rows.map((r) => [
    r.nodes,
    r.faults,
    r.severities,
    fixed(r.whole, 0),
    fixed(r.each),
    r.states.map((x) => fixed(x)).join(" / "),
    fixed(r.moved),
    r.unsettled,
    fixed(r.memory, 0),
  ]),
)}

${table(
  [
    "nodes",
    "dense LU (ml-matrix), ms a fault",
    "times slower",
    "ngspice altering, ms a fault",
    "times slower",
    "engine, exactly, µs a fault",
    "largest difference from LU, V",
    "from ngspice, V",
  ],
  rows.map((r) => [
    r.nodes,
    Number.isNaN(r.luMs) ? "–" : fixed(r.luMs),
    Number.isNaN(r.luMs) ? "–" : fixed((r.luMs * 1000) / r.each, 0),
    ...(Number.isNaN(r.spice.ms)
      ? ["none found", "–"]
      : [fixed(r.spice.ms, 2), fixed((r.spice.ms * 1000) / r.each, 0)]),
    fixed(r.exact),
    Number.isNaN(r.luMs) ? "–" : r.luWorst.toExponential(0),
    Number.isNaN(r.spice.ms) ? "–" : r.spice.worst.toExponential(0),
  ]),
)}

Measured ${new Date().toISOString().slice(0, 10)} with Node ${process.versions.node} on ${cpus().length} ×
${cpus()[0].model.trim()}, one core used, by \`npm run bench\`.`;
console.log(text);
if (process.argv.includes("--write")) {
  const file = new URL("../../docs/benchmarks.md", import.meta.url);
  const page = readFileSync(file, "utf8");
  writeFileSync(
    file,
    page.replace(/<!-- engine -->[\s\S]*<!-- \/engine -->/, `<!-- engine -->\n${text}\n<!-- /engine -->`),
  );
}
