import type { State } from "../format/case.js";
import type { Device } from "../format/wiring.js";
import { followPoint } from "../wiring/follow.js";
import { connectorOf, devicePins } from "../wiring/points.js";
import { isTwin } from "../wiring/safety.js";
import { clear, found, on, unclear, type RunContext, type RunStep, type Script, type StepAnswer } from "./script.js";
import { thingsBetween, type Section } from "./sections.js";

/**
 * A ground is good below this under its own current, and a section of a feed below this (common practice, no source),
 * volt.
 */
const GROUND_VOLT = 0.1;
const SECTION_VOLT = 0.1;
/** A load of its own for a ground: a small lamp, watt. */
const LAMP_WATT = 5;

/**
 * A ground proven three ways: its drop under the circuit's own current, what battery positive to it shows (which only
 * rules out an open), and its drop under a known load. No load on sensor grounds: that is a module line.
 */
export function* groundProof(ctx: RunContext): Script {
  const point = ctx.subject;
  const plus = ctx.batteryPlus();
  const line = ctx.nets.functionOf(point);
  const drop = yield ctx.volts(point, on());
  if (drop) ctx.mark(drop, Math.abs(drop.values[0]!) < GROUND_VOLT ? "good" : "bad");
  let open: StepAnswer | undefined;
  let loaded: StepAnswer | undefined;
  if (plus) {
    const s = ctx.volts(plus, on(), "open", point);
    open = yield s;
    if (open) ctx.mark(open, Math.abs(open.values[0]! - ctx.healthy(s)) < 0.5 ? "good" : "bad");
    if (line !== "sensorGround") {
      loaded = yield ctx.volts(point, on([], { loads: [{ from: plus, to: point, watt: LAMP_WATT }] }), "load");
      if (loaded) ctx.mark(loaded, Math.abs(loaded.values[0]!) < GROUND_VOLT ? "good" : "bad");
    }
  }
  if (!drop && !loaded) return unclear("ground-not-tried", { point });
  const worst = Math.max(...[drop, loaded].map((g) => (g ? Math.abs(g.values[0]!) : 0)));
  return worst < GROUND_VOLT
    ? clear("ground-good", { point, volt: worst })
    : found("ground-bad", [point], { point, volt: worst });
}

/**
 * The drop over each section between here and where the current comes from or goes, under the circuit's own current.
 */
export function* dropBySection(ctx: RunContext): Script {
  const sections = sectionsOf(ctx, ctx.subject);
  if (sections.length === 0) return unclear("no-way", { point: ctx.subject });
  let worst: { section: Section; volt: number } | undefined;
  let tried = 0;
  for (const section of sections) {
    const s = ctx.volts(section.to, on(), `${section.from} ${section.to}`, section.from);
    const got = yield s;
    if (!got) continue;
    tried++;
    const volt = Math.abs(got.values[0]!);
    const bad = volt > SECTION_VOLT + Math.abs(ctx.healthy(s));
    ctx.mark(got, bad ? "bad" : "good");
    if (bad && (!worst || volt > worst.volt)) worst = { section, volt };
  }
  if (worst)
    return found("section-drops", worst.section.things, {
      from: worst.section.from,
      to: worst.section.to,
      volt: worst.volt,
    });
  return tried
    ? clear("no-section-drops", { point: ctx.subject, sections: tried })
    : unclear("run-skipped", { point: ctx.subject });
}

/** Halves the run between a pin and its source: the voltage at the middle point says on which side it is lost. */
export function* halveRun(ctx: RunContext): Script {
  const sections = sectionsOf(ctx, ctx.subject);
  if (sections.length === 0) return unclear("no-way", { point: ctx.subject });
  // points from the pin to the source
  const points = [sections[0]!.from, ...sections.map((s) => s.to)];
  const isGood = (s: RunStep, g: StepAnswer) =>
    Math.abs(g.values[0]! - ctx.healthy(s)) < 0.06 * Math.abs(ctx.healthy(s)) + 0.1;
  const here = ctx.volts(points[0]!, on());
  const first = yield here;
  if (!first) return unclear("run-skipped", { point: ctx.subject });
  if (isGood(here, first)) {
    ctx.mark(first, "good");
    return clear("end-is-well", { point: ctx.subject, volt: first.values[0]! });
  }
  ctx.mark(first, "bad");
  const skipped = new Set<number>();
  let bad = 0;
  let good = points.length;
  for (;;) {
    const open = points.map((_, i) => i).filter((i) => i > bad && i < good && !skipped.has(i));
    if (open.length === 0) break;
    const middle = open[Math.floor((open.length - 1) / 2)]!;
    const s = ctx.volts(points[middle]!, on());
    const got = yield s;
    if (!got) {
      skipped.add(middle);
      continue;
    }
    if (isGood(s, got)) {
      ctx.mark(got, "good");
      good = middle;
    } else {
      ctx.mark(got, "bad");
      bad = middle;
    }
  }
  if (good >= points.length) return found("bad-at-source", [points.at(-1)!], { point: points.at(-1)! });
  return found("lost-between", thingsBetween(sections.slice(bad, good)), { from: points[bad]!, to: points[good]! });
}

/**
 * A wire carries current or it does not: isolated at both ends, fed from the battery at one and loaded with a lamp at
 * the other.
 */
export function* loadWire(ctx: RunContext): Script {
  const from = ctx.subject;
  const plus = ctx.batteryPlus();
  const way = followPoint(ctx.wiring, from);
  const to = way.end;
  if (!plus || to === undefined || !to.includes(":")) return unclear("no-way", { point: from });
  // whatever else hangs on the copper is unplugged too: battery voltage reaches none of it
  const plugs = [...new Set([...way.points, from, to].map(connectorOf))].filter(
    (c) => ctx.index.connectors.get(c)?.inline === false,
  );
  const others = [...way.points].filter(
    (p) =>
      !plugs.includes(connectorOf(p)) &&
      ctx.index.devices.get(connectorOf(p)) &&
      ctx.index.devices.get(connectorOf(p))!.kind !== "splice",
  );
  if (others.length) return unclear("cannot-isolate", { point: from, things: others.slice(0, 4) });
  const watched = yield ctx.volts(from, on(plugs), from);
  if (watched) {
    const alone = Math.abs(watched.values[0]!) < 0.3;
    ctx.mark(watched, alone ? "good" : "bad");
    if (!alone) return found("not-isolated", [from], { point: from, volt: watched.values[0]! });
  }
  const lit = yield {
    kind: "lamp",
    instrument: "lamp",
    points: [to],
    state: on(plugs, {
      jumpers: [{ from: plus, to: from, ohm: 0.01 }],
      loads: [{ from: to, to: "chassis", watt: LAMP_WATT }],
    }),
    label: to,
  };
  if (!lit) return unclear("run-skipped", { point: from });
  ctx.mark(lit, lit.values[0] === 1 ? "good" : "bad");
  return lit.values[0] === 1
    ? clear("wire-carries", { from, to })
    : found(
        "wire-weak",
        way.steps.map((s) => s.thing),
        { from, to },
      );
}

/**
 * The same signal at the sensor, at the module's pin and in the module's own eyes: where two differ, the way between is
 * at fault.
 */
export function* farEnd(ctx: RunContext): Script {
  const near = ctx.subject;
  const pin = ctx.nets.modulePinOf(near);
  if (pin === undefined) return unclear("no-module-pin", { point: near });
  const steps: RunStep[] = [ctx.volts(near, on()), ctx.volts(pin, on())];
  if (ctx.predictor.placeOf("scanTool", pin) !== undefined && ctx.nets.functionOf(pin) === "signal")
    steps.push({ kind: "scan", instrument: "scanTool", points: [pin], state: on(), label: "scan" });
  const got: { step: RunStep; got: StepAnswer }[] = [];
  for (const step of steps) {
    const g = yield step;
    if (g && Number.isFinite(g.values[0]!)) got.push({ step, got: g });
  }
  for (let i = 1; i < got.length; i++) {
    const a = got[i - 1]!;
    const b = got[i]!;
    const apart = Math.abs(a.got.values[0]! - b.got.values[0]!);
    const healthy = Math.abs(ctx.healthy(a.step) - ctx.healthy(b.step));
    const bad = apart > 0.08 + healthy + 0.01 * Math.abs(a.got.values[0]!);
    ctx.mark(b.got, bad ? "bad" : "good");
    if (bad)
      return b.step.instrument === "scanTool"
        ? found("module-differs", [pin], { point: near, pin, volt: apart })
        : found(
            "ends-differ",
            followPoint(ctx.wiring, near).steps.map((s) => s.thing),
            { point: near, pin, volt: apart },
          );
  }
  return got.length > 1 ? clear("ends-agree", { point: near, pin }) : unclear("run-skipped", { point: near });
}

/** The known-good side beside the bad side: each pin of a part and of its twin, in the same state. */
export function* compareTwin(ctx: RunContext): Script {
  const part = ctx.index.devices.get(ctx.subject);
  // a true twin first; else any part of the same kind and pins will do for feed and ground
  const twin =
    part &&
    (ctx.wiring.devices.find((d) => d.id !== part.id && isTwin(part, d)) ??
      ctx.wiring.devices.find(
        (d) => d.id !== part.id && d.kind === part.kind && devicePins(d).length === devicePins(part).length,
      ));
  if (!part || !twin) return unclear("no-twin", { part: ctx.subject });
  const differ: string[] = [];
  let pairs = 0;
  for (const { role, at } of devicePins(part)) {
    const there = devicePins(twin).find((p) => p.role === role)?.at;
    // two sensors need not stand at the same value
    if (there === undefined || ctx.nets.functionOf(at) === "signal") continue;
    const a = yield ctx.volts(at, on());
    const b = yield ctx.volts(there, on());
    if (!a || !b) continue;
    pairs++;
    const bad = Math.abs(a.values[0]! - b.values[0]!) > 0.1 + 0.03 * Math.abs(b.values[0]!);
    ctx.mark(a, bad ? "bad" : "good");
    if (bad) differ.push(at);
  }
  const driven = yield* compareDriven(ctx, part, twin);
  if (driven === "differs") differ.push(part.id);
  if (differ.length) return found("twin-differs", differ, { part: part.id, twin: twin.id });
  if (pairs === 0) return unclear("run-skipped", { point: part.id });
  return clear(driven === "untried" ? "twin-agrees-undriven" : "twin-agrees", { part: part.id, twin: twin.id });
}

/**
 * A part that a module drives has all it needs only where the driver works, too: volts across it and across its twin
 * while both are driven.
 */
function* compareDriven(
  ctx: RunContext,
  part: Device,
  twin: Device,
): Generator<RunStep, "agrees" | "differs" | "untried" | "none", StepAnswer | undefined> {
  const ends = (d: Device) => {
    const at = (...roles: string[]) => devicePins(d).find((p) => roles.includes(p.role))?.at;
    return { red: at("feed"), black: at("ground") };
  };
  const key = drivenIn(ctx, part);
  const [a, b] = [ends(part), ends(twin)];
  if (!key || !a.red || !a.black || !b.red || !b.black) return "none";
  const state: State = { key, unplugged: [] };
  const own = yield ctx.volts(a.red, state, part.id, a.black);
  const there = yield ctx.volts(b.red, state, twin.id, b.black);
  if (!own || !there) return "untried";
  const bad = Math.abs(own.values[0]! - there.values[0]!) > 0.2 + 0.1 * Math.abs(there.values[0]!);
  ctx.mark(own, bad ? "bad" : "good");
  return bad ? "differs" : "agrees";
}
/** The key state in which a module drives a part; undefined where none does. */
function drivenIn(ctx: RunContext, part: Device): State["key"] | undefined {
  const nets = new Set(devicePins(part).map((p) => ctx.nets.netOf.get(p.at)));
  for (const d of ctx.wiring.devices)
    if (d.kind === "module")
      for (const p of d.pins)
        if ((p.role === "lowSide" || p.role === "highSide") && nets.has(ctx.nets.netOf.get(p.at)))
          return (p.activeIn ?? ["running"])[0];
  return undefined;
}

function sectionsOf(ctx: RunContext, point: string): Section[] {
  const { steps } = followPoint(ctx.wiring, point);
  // leads reach cavities of connectors that can be back-probed, splices, grounds, fuses and terminals
  const reachable = (p: string) => {
    const c = ctx.index.connectors.get(connectorOf(p));
    return !c || (c.backProbe && !ctx.barred.has(c.id));
  };
  const sections: Section[] = [];
  let from = point;
  let things: string[] = [];
  for (const s of steps) {
    things.push(s.over === "contact" ? connectorOf(s.from) : s.thing);
    if (!reachable(s.to)) continue;
    sections.push({ from, to: s.to, things });
    from = s.to;
    things = [];
  }
  return sections;
}
