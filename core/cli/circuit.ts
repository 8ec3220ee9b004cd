import {
  batteryOf, batteryVolt, bindMonitors, compile, createSolver, faultPairs, findFault, formatQuantity, generateFaults, isSet, lacksActivity, measureOhms, meterPoints,
  middleSeverity, moduleSideVolt, netlist, nodeVolt, NO_EDIT, openedBy, residual, settle, voltmeter, type Conditions, type Fault, type KeyState, type Solver, type Wiring,
} from "../src/index.js";
import { keyText, Namer } from "../words/index.js";
import { EXIT, jsonNumber, loadWiring, printJson, readState, Refusal, type Io } from "./io.js";

interface Options { readonly fault?: string | undefined; readonly state?: string | undefined; readonly json?: boolean | undefined }

interface Chosen { readonly fault: Fault; readonly ohm: number }

/** One circuit with one fault, ready to settle in any key state. */
class Bench {
  readonly solver: Solver;
  private readonly faults;
  readonly chosen: Chosen | undefined;
  constructor(readonly wiring: Wiring, faultText: string | undefined) {
    this.faults = generateFaults(wiring);
    this.chosen = faultText === undefined ? undefined : choose(this.faults, faultText);
    const circuit = compile(wiring, "on");
    this.solver = createSolver(circuit, faultPairs(this.faults, circuit));
  }
  conditions(key: KeyState, unplugged: readonly string[], steel?: boolean): Conditions {
    const circuit = compile(this.wiring, key);
    const edit = this.chosen?.fault.edit(this.chosen.ohm, circuit, batteryVolt(this.wiring, key, batteryOf(this.wiring))) ?? NO_EDIT;
    return { circuit, edit, open: openedBy(circuit, unplugged), keyOn: key !== "off", steel };
  }
  /** Codes set with this fault, each judged in the key state its monitor runs in. */
  codes(unplugged: readonly string[]): { module: string; code: string; title: string | undefined; key: KeyState }[] {
    return bindMonitors(this.wiring, compile(this.wiring, "on")).filter((m) => {
      const at = (steel?: boolean) => settle(this.solver, this.conditions(m.key, unplugged, steel));
      at(m.monitor.type === "noActivity" ? true : undefined);
      if (m.monitor.type !== "noActivity") return isSet(this.solver, m);
      const withSteel = moduleSideVolt(this.solver, m);
      at(false);
      return lacksActivity(withSteel, moduleSideVolt(this.solver, m), this.solver.awake[m.gate] === 1);
    }).map((m) => ({ module: m.code.module, code: m.code.id, title: m.code.title, key: m.key }));
  }
}

function choose(faults: readonly Fault[], text: string): Chosen {
  const found = findFault(faults, text);
  if (!found) throw new Refusal(EXIT.usage, [`--fault: "${text}" is not a fault of this wiring. List them with: radicula faults FILE`]);
  return { fault: found.fault, ohm: found.ohm ?? middleSeverity(found.fault) };
}

export function predictCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const state = readState(options.state, wiring);
  const bench = new Bench(wiring, options.fault);
  const codes = bench.codes(state.unplugged);
  const conditions = bench.conditions(state.key, state.unplugged);
  const { settled } = settle(bench.solver, conditions);
  measureOhms(bench.solver);
  const { circuit } = conditions;
  const points = meterPoints(wiring).flatMap((point) => {
    const node = circuit.nodeOf.get(point);
    return node === undefined ? [] : [{ point, volt: nodeVolt(bench.solver, node), meter: voltmeter(bench.solver, node) }];
  });
  const worst = residual(bench.solver, conditions);
  const { chosen } = bench;
  if (options.json) {
    printJson(io, {
      wiring: wiring.name, state, fault: chosen ? { id: chosen.fault.id, ohm: jsonNumber(chosen.ohm) } : null, settled,
      residualAmpere: worst, points: points.map((p) => ({ point: p.point, volt: jsonNumber(p.volt), meterVolt: jsonNumber(p.meter) })), codes,
    });
    return;
  }
  const namer = new Namer(wiring);
  io.out(`${wiring.name}: ${keyText(state.key)}${state.unplugged.length ? `, unplugged ${state.unplugged.join(", ")}` : ""}; ${chosen ? `${namer.fault(chosen.fault)}${Number.isFinite(chosen.ohm) ? `, ${formatQuantity(chosen.ohm, "Ω")}` : ""}` : "nothing wrong"}\n\n`);
  if (!settled) io.out("This circuit has no steady state here; the figures are the last ones tried.\n\n");
  for (const p of points) io.out(`${p.point.padEnd(12)} ${formatQuantity(p.meter, "V").padStart(9)}${Number.isNaN(p.volt) ? "   floats: a meter shows 0" : ""}\n`);
  io.out(`\nCodes set: ${codes.length ? "" : "none"}\n`);
  for (const c of codes) io.out(`  ${c.module} ${c.code}${c.title ? `  ${c.title}` : ""}${c.key === "on" ? "" : ` (${keyText(c.key)})`}\n`);
}

export function faultsCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const faults = generateFaults(wiring);
  if (options.json) {
    printJson(io, faults.map((f) => ({ id: f.id, mode: f.mode, place: f.place, at: f.at ?? null, prior: f.prior, severitiesOhm: f.severities.filter(Number.isFinite) })));
    return;
  }
  const namer = new Namer(wiring);
  for (const f of faults) io.out(`${f.id.padEnd(36)} ${namer.fault(f)}\n`);
}

export function netlistCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const state = readState(options.state, wiring);
  const bench = new Bench(wiring, options.fault);
  const conditions = bench.conditions(state.key, state.unplugged);
  settle(bench.solver, conditions);
  io.out(netlist(`${wiring.name}, ${keyText(state.key)}`, conditions, bench.solver));
}
