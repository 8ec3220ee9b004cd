import {
  findFault,
  formatQuantity,
  generateFaults,
  inspectCircuit,
  INSTRUMENTS,
  isPoint,
  meterPoints,
  middleSeverity,
  netlist,
  nodeVolt,
  predictCodes,
  readClamp,
  readContinuity,
  readLamp,
  readOhms,
  readScanTool,
  readScope,
  readVolts,
  residual,
  Rig,
  solutionOf,
  type FaultAt,
  type PredictedCode,
  type Instrument,
  type InstrumentReading,
  type State,
  type Wiring,
} from "../src/index.js";
import { issueText, keyText, Namer, repairText, severityText } from "../words/index.js";
import { EXIT, issueLines, jsonNumber, loadWiring, printJson, readState, Refusal, type Io } from "./io.js";

export interface Options {
  readonly fault?: string | undefined;
  readonly state?: string | undefined;
  readonly json?: boolean | undefined;
  readonly with?: string | undefined;
  readonly red?: string | undefined;
  readonly black?: string | undefined;
  readonly watt?: string | undefined;
}

/** `S22/spliceHighResistance@500`, several joined by commas. */
export function chooseFaults(wiring: Wiring, text: string | undefined): FaultAt[] {
  if (text === undefined) return [];
  const faults = generateFaults(wiring);
  return text.split(",").map((one) => {
    const found = findFault(faults, one);
    if (!found)
      throw new Refusal(EXIT.usage, [
        `--fault: "${one}" is not a fault of this wiring. List them with: radicula faults FILE`,
      ]);
    return { fault: found.fault, severity: found.ohm ?? middleSeverity(found.fault) };
  });
}

const unpluggedText = (state: State) => (state.unplugged.length ? `, unplugged ${state.unplugged.join(", ")}` : "");
const faultsText = (wiring: Wiring, faults: readonly FaultAt[]) => {
  const namer = new Namer(wiring);
  return (
    faults
      .map(
        (f) => `${namer.fault(f.fault)}${Number.isFinite(f.severity) ? `, ${severityText(f.fault, f.severity)}` : ""}`,
      )
      .join("; ") || "nothing wrong"
  );
};

export function predictCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const state = readState(options.state, wiring);
  const faults = chooseFaults(wiring, options.fault);
  const rig = new Rig(wiring, faults);
  const codes = predictCodes(rig, state.unplugged);
  const s = rig.settled(state);
  const { settled } = s.state.outcome;
  const worst = residual(s, rig.edit(state));
  const volts = meterPoints(wiring).flatMap((point) => {
    const node = rig.node(point, state);
    return node === undefined ? [] : [{ point, volt: nodeVolt(s, node) }];
  });
  const points = volts.map((p) => ({ ...p, meter: readVolts(rig, state, p.point).value }));
  if (options.json) {
    printJson(io, {
      wiring: wiring.name,
      state,
      fault: faults[0] ? { id: faults[0].fault.id, ohm: jsonNumber(faults[0].severity) } : null,
      faults: faults.map((f) => ({ id: f.fault.id, severity: jsonNumber(f.severity) })),
      settled,
      residualAmpere: worst,
      points: points.map((p) => ({ point: p.point, volt: jsonNumber(p.volt), meterVolt: jsonNumber(p.meter) })),
      codes,
    });
    return;
  }
  io.out(`${wiring.name}: ${keyText(state.key)}${unpluggedText(state)}; ${faultsText(wiring, faults)}\n\n`);
  if (!settled)
    io.out(
      `This circuit has no steady state here (${s.state.outcome.swinging.slice(0, 6).join(", ")}); the figures ` +
        "are the last ones tried.\n\n",
    );
  for (const p of points)
    io.out(
      `${p.point.padEnd(12)} ${formatQuantity(p.meter, "V").padStart(9)}` +
        `${Number.isNaN(p.volt) ? "   floats: a meter shows 0" : ""}\n`,
    );
  io.out(`\nCodes set: ${codes.length ? "" : "none"}\n`);
  for (const c of codes) io.out(`  ${c.module} ${c.code}${c.title ? `  ${c.title}` : ""}${codeNote(c)}\n`);
}

function codeNote(c: PredictedCode): string {
  const notes = [
    ...(c.key === "on" ? [] : [keyText(c.key)]),
    ...(c.follows ? [`follows from ${c.follows.id} without power`] : []),
    ...(c.clearsItself ? ["clears when that is cured"] : []),
    ...(c.broad ? ["set condition guessed from its title"] : []),
  ];
  return notes.length ? ` (${notes.join("; ")})` : "";
}

export function faultsCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const faults = generateFaults(wiring);
  const namer = new Namer(wiring);
  if (options.json) {
    printJson(
      io,
      faults.map((f) => ({
        id: f.id,
        mode: f.mode,
        place: f.place,
        at: f.at ?? null,
        prior: f.prior,
        unit: f.unit,
        severities: f.severities.filter(Number.isFinite),
        severitiesOhm: f.unit === "ohm" ? f.severities.filter(Number.isFinite) : [],
        description: namer.fault(f),
        where: namer.where(f.place),
        repair: repairText(f),
      })),
    );
    return;
  }
  for (const f of faults) io.out(`${f.id.padEnd(36)} ${namer.fault(f)}\n`);
}

export function netlistCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const state = readState(options.state, wiring);
  const rig = new Rig(wiring, chooseFaults(wiring, options.fault));
  const s = rig.settled(state);
  io.out(netlist(`${wiring.name}, ${keyText(state.key)}`, s.conditions, rig.edit(state), solutionOf(s)));
}

/**
 * What the document itself says once it is solved: contradictions, sleeping modules, codes a healthy machine would set.
 */
export function checkCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const found = inspectCircuit(wiring);
  if (options.json) {
    printJson(io, found);
    return;
  }
  io.out(
    found.length
      ? `${issueLines(file, found).join("\n")}\n`
      : `${file}: solved in every key position; nothing contradicts itself.\n`,
  );
}

/** Shorter names of instruments that earlier versions took. */
const EARLIER_NAMES: Readonly<Record<string, Instrument>> = {
  volts: "voltmeter",
  ohms: "ohmmeter",
  scan: "scanTool",
};

/** One reading of one instrument, with what it is worth. */
export function readCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const state = readState(options.state, wiring);
  const rig = new Rig(wiring, chooseFaults(wiring, options.fault));
  const asked = options.with ?? "voltmeter";
  const kind = INSTRUMENTS.find((i) => i === (EARLIER_NAMES[asked] ?? asked));
  if (!kind) throw new Refusal(EXIT.usage, [`--with: known instruments are ${INSTRUMENTS.join(", ")}.`]);
  const red = options.red;
  const black = options.black ?? "chassis";
  if (red === undefined)
    throw new Refusal(EXIT.usage, [
      "--red: say where the red lead goes (for a clamp the wire, for the scan tool the module's cavity).",
    ]);
  for (const p of kind === "clamp" || kind === "scanTool" ? [] : [red, black])
    if (!isPoint(wiring, p)) throw new Refusal(EXIT.usage, [`"${p}" is not a point of this wiring.`]);
  const watt = Number(options.watt ?? 5);
  if (!(watt > 0 && watt <= 500))
    throw new Refusal(EXIT.usage, [`--watt: "${options.watt}" is not the rating of a lamp.`]);
  const reading = take(kind, rig, state, red, black, watt);
  if (options.json) {
    printJson(io, { instrument: kind, state, red, black, ...reading, value: plain(reading.value) });
    return;
  }
  io.out(`${sentence(kind, reading)}\n`);
  for (const r of reading.remarks) io.out(`${reading.proves ? "" : "Proves nothing. "}${issueText(r)}\n`);
}

function take(
  kind: Instrument,
  rig: Rig,
  state: State,
  red: string,
  black: string,
  watt: number,
): InstrumentReading<unknown> {
  try {
    switch (kind) {
      case "voltmeter":
        return readVolts(rig, state, red, black);
      case "ohmmeter":
        return readOhms(rig, state, red, black);
      case "continuity":
        return readContinuity(rig, state, red, black);
      case "lamp":
        return readLamp(rig, state, watt, red, black);
      case "clamp":
        return readClamp(rig, state, red);
      case "scope":
        return readScope(rig, state, red, black);
      case "scopeLow":
      case "scopeHigh": {
        const shown = readScope(rig, state, red, black);
        return { ...shown, value: kind === "scopeLow" ? shown.value.least : shown.value.most };
      }
      case "scanTool":
        return readScanTool(rig, state, red);
    }
  } catch (error) {
    if (error instanceof RangeError) throw new Refusal(EXIT.usage, [error.message]);
    throw error;
  }
}

const plain = (value: unknown): unknown => (typeof value === "number" ? jsonNumber(value) : value);
const figures = (value: unknown): string =>
  typeof value === "object" && value !== null
    ? Object.entries(value)
        .map(([k, v]) => `${k} ${typeof v === "number" ? Number(v.toPrecision(4)) : String(v)}`)
        .join(", ")
    : String(value);
function sentence(kind: Instrument, { value }: InstrumentReading<unknown>): string {
  if (typeof value === "number")
    return Number.isNaN(value)
      ? "no value"
      : kind === "ohmmeter"
        ? value === Infinity
          ? "OL"
          : formatQuantity(value, "Ω")
        : kind === "clamp"
          ? `${Number(value.toPrecision(4))} A`
          : formatQuantity(value, "V");
  return typeof value === "boolean" ? (value ? "beeps" : "silent") : figures(value);
}
