import { DEFAULTS } from "../defaults.js";
import { benchValues } from "../instruments/benchValues.js";
import { deviceConnectors, devicePins } from "../wiring/points.js";
import { tellApart } from "../wiring/tellApart.js";
import {
  clear,
  found,
  off,
  on,
  unclear,
  type RunContext,
  type RunStep,
  type Script,
  type StepAnswer,
} from "./script.js";

const NEAR_ZERO_VOLT = 0.35;
const FULL_SHARE = 0.75;

interface SensorPins {
  readonly connector: string;
  readonly signal: string;
  readonly supply: string | undefined;
  readonly ground: string | undefined;
  readonly pin: string;
}
function sensorPins(ctx: RunContext): SensorPins | undefined {
  const part = ctx.index.devices.get(ctx.subject);
  if (!part || part.kind === "module") return undefined;
  const pins = devicePins(part);
  const at = (role: string) => pins.find((p) => p.role === role)?.at;
  const signal = at("signal");
  const pin = signal === undefined ? undefined : ctx.nets.modulePinOf(signal);
  if (signal === undefined || pin === undefined) return undefined;
  return { connector: deviceConnectors(part)[0]!, signal, supply: at("supply"), ground: at("ground"), pin };
}

/**
 * Jumper the signal low, then high, with the sensor unplugged and the pins measured first, watching the module's own
 * value go to one end and to the other: then wiring and module input are proven, and the sensor or its terminals are
 * left.
 * High only towards a reference, and only through 1 kΩ; never towards a battery feed.
 */
export function* jumpers(ctx: RunContext): Script {
  const p = sensorPins(ctx);
  if (!p) return unclear("no-signal-pin", { part: ctx.subject });
  const out = [p.connector];
  const bad: string[] = [];
  const measured: (readonly [string, RunStep, StepAnswer])[] = [];
  for (const at of [p.supply, p.ground, p.signal]) {
    if (at === undefined) continue;
    const step = ctx.volts(at, on(out));
    const got = yield step;
    if (!got) continue;
    measured.push([at, step, got]);
    const fine = Math.abs(got.values[0]! - ctx.healthy(step)) < 0.1 + 0.06 * Math.abs(ctx.healthy(step));
    ctx.mark(got, fine ? "good" : "bad");
    if (!fine) bad.push(at);
  }
  if (measured.length === 0) return unclear("measure-first", { part: ctx.subject });
  if (bad.length) return found("pin-not-right", bad, { part: ctx.subject });
  const watch = (from: string, to: string, ohm: number, label: string): RunStep => ({
    kind: "jumper",
    instrument: "scanTool",
    points: [p.pin],
    state: on(out, { jumpers: [{ from, to, ohm }] }),
    label,
  });
  let lowGood: boolean | undefined;
  let highGood: boolean | undefined;
  if (p.ground !== undefined) {
    const low = yield watch(p.signal, p.ground, 0.01, "low");
    if (low) {
      lowGood = low.values[0]! < NEAR_ZERO_VOLT;
      ctx.mark(low, lowGood ? "good" : "bad");
    }
  }
  if (p.supply !== undefined && ctx.nets.functionOf(p.supply) === "reference") {
    const step = watch(p.signal, p.supply, DEFAULTS.jumperOhm, "high");
    const high = yield step;
    if (high) {
      highGood = high.values[0]! > FULL_SHARE * ctx.healthy(step);
      ctx.mark(high, highGood ? "good" : "bad");
    }
  }
  if (lowGood === undefined && highGood === undefined) return unclear("run-skipped", { point: ctx.subject });
  if (lowGood === false || highGood === false)
    return found("does-not-follow", [p.signal, p.pin], {
      part: ctx.subject,
      ends: [...(lowGood === false ? ["low"] : []), ...(highGood === false ? ["high"] : [])],
    });
  return found("wiring-proven", [ctx.subject], {
    part: ctx.subject,
    ends: [...(lowGood ? ["low"] : []), ...(highGood ? ["high"] : [])],
  });
}

/** The opposite fault made on purpose, through 1 kΩ: the other code setting shows that the monitor is awake. */
export function* opposite(ctx: RunContext): Script {
  const p = sensorPins(ctx);
  if (!p) return unclear("no-signal-pin", { part: ctx.subject });
  const watching = ctx.wiring.codes.filter(
    (c) =>
      c.monitor &&
      "at" in c.monitor &&
      c.monitor.at === p.pin &&
      (c.monitor.type === "below" || c.monitor.type === "above"),
  );
  if (watching.length === 0) return unclear("no-monitor", { part: ctx.subject });
  let awake = 0;
  let tried = 0;
  const silent: string[] = [];
  for (const code of watching) {
    const towards =
      code.monitor!.type === "below"
        ? p.ground
        : p.supply !== undefined && ctx.nets.functionOf(p.supply) === "reference"
          ? p.supply
          : undefined;
    if (towards === undefined) continue;
    const got = yield {
      kind: "codeSets",
      instrument: "none",
      points: [code.module, code.id],
      state: on([p.connector], { jumpers: [{ from: p.signal, to: towards, ohm: DEFAULTS.jumperOhm }] }),
      label: code.id,
    };
    if (!got) continue;
    tried++;
    ctx.mark(got, got.values[0] === 1 ? "good" : "bad");
    if (got.values[0] === 1) awake++;
    else silent.push(code.id);
  }
  if (silent.length) return found("monitor-silent", [p.pin], { part: ctx.subject, codes: silent });
  return tried
    ? clear("monitor-awake", { part: ctx.subject, codes: awake })
    : unclear("run-skipped", { point: ctx.subject });
}

/** Two like parts change places: their values before, and whether what was wrong went with the part. */
export function* swapTwins(ctx: RunContext): Script {
  const [a, b] = ctx.subject.split(" ");
  if (a === undefined || b === undefined) return unclear("no-twin", { part: ctx.subject });
  const got = yield { kind: "swap", instrument: "none", points: [a, b], state: on(), label: ctx.subject };
  if (!got) return unclear("run-skipped", { point: ctx.subject });
  ctx.mark(got, got.values[0] === 1 ? "bad" : "good");
  return got.values[0] === 1
    ? found("went-with-part", [a, b], { part: a, twin: b })
    : clear("stayed-with-wiring", { part: a, twin: b });
}

/**
 * Which cavity is which, by voltage: the connector unplugged, each cavity against battery negative and against battery
 * positive.
 */
export function* whichIsWhich(ctx: RunContext): Script {
  const connector = ctx.index.connectors.get(ctx.subject);
  const plus = ctx.batteryPlus();
  if (!connector || connector.inline || !plus) return unclear("no-way", { point: ctx.subject });
  const battery = yield ctx.volts(plus, on([connector.id]), "battery");
  const volts: { cavity: string; toNegative: number; toPositive?: number }[] = [];
  for (const cavity of connector.cavities.slice(0, 12)) {
    const at = `${connector.id}:${cavity}`;
    const got = yield ctx.volts(at, on([connector.id]), cavity);
    if (!got) continue;
    const entry = { cavity, toNegative: got.values[0]! };
    if (Math.abs(entry.toNegative) < 0.2) {
      const up = yield ctx.volts(plus, on([connector.id]), cavity, at);
      if (up) {
        volts.push({ ...entry, toPositive: up.values[0]! });
        continue;
      }
    }
    volts.push(entry);
  }
  if (volts.length === 0) return unclear("run-skipped", { point: ctx.subject });
  const told = tellApart(volts, battery?.values[0] ?? ctx.wiring.nominalVolt);
  return clear("told-apart", {
    connector: connector.id,
    cavities: told.map((t) => `${t.cavity} ${t.function}${t.sure ? "" : "?"}`),
  });
}

/** The part by itself: taken out, its own pins measured against what its kind should show. */
export const benchTest = (ctx: RunContext): Script => bench(ctx, "removed");
/** The new part, measured before it goes in: a copy can be wrong out of the box. */
export const newPart = (ctx: RunContext): Script => bench(ctx, "new");
function* bench(ctx: RunContext, part: "removed" | "new"): Script {
  const device = ctx.index.devices.get(ctx.subject);
  const values = device ? benchValues(device, ctx.wiring.nominalVolt) : [];
  if (!device || values.length === 0) return unclear("ohms-prove-nothing", { part: ctx.subject });
  const bad: string[] = [];
  let tried = 0;
  for (const v of values) {
    const got = yield {
      kind: "bench",
      instrument: "ohmmeter",
      points: [v.red],
      black: v.black,
      part,
      state: off(deviceConnectors(device)),
      label: `${v.red} ${v.black}`,
    };
    if (!got) continue;
    tried++;
    const fine = got.values[0]! >= v.low && got.values[0]! <= v.high;
    ctx.mark(got, fine ? "good" : "bad");
    if (!fine) bad.push(v.red);
  }
  if (bad.length) return found(part === "new" ? "new-part-bad" : "part-bad", [device.id], { part: device.id });
  return tried
    ? clear(part === "new" ? "new-part-good" : "part-good", { part: device.id })
    : unclear("run-skipped", { point: device.id });
}
