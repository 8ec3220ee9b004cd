import type { Device } from "../format/wiring.js";
import type { Nets } from "../wiring/nets.js";
import { deviceConnectors, devicePins } from "../wiring/points.js";
import { clear, found, off, on, unclear, type RunContext, type RunStep, type Script } from "./script.js";

/** A switched line moves at least this much between steel and none, volt (common practice, no source). */
const SWITCHES_VOLT = 1;

/**
 * A Hall sensor on the machine: steel held at its tip and taken away, key on. One that answers is good, with its
 * supply, ground and line; then the target or the gap is to be looked at. Of one that does not, supply and ground are
 * read.
 */
export function* steelTest(ctx: RunContext): Script {
  const part = ctx.index.devices.get(ctx.subject);
  if (!part || part.kind !== "hall") return unclear("no-hall", { part: ctx.subject });
  const { signal, supply, ground } = part.pins;
  const at = (steel: 0 | 1) => on([], { stimulus: { [part.id]: steel } });
  const near = yield ctx.volts(signal, at(1), "steel");
  const away = yield ctx.volts(signal, at(0), "no steel");
  if (!near || !away) return unclear("run-skipped", { point: signal });
  const switches = Math.abs(near.values[0]! - away.values[0]!) >= SWITCHES_VOLT;
  ctx.mark(near, switches ? "good" : "bad");
  ctx.mark(away, switches ? "good" : "bad");
  if (switches) return clear("hall-answers", { part: part.id });
  for (const pin of [supply, ground]) {
    const step = ctx.volts(pin, on());
    const got = yield step;
    if (!got) continue;
    const bad = Math.abs(got.values[0]! - ctx.healthy(step)) > 0.1 + 0.06 * Math.abs(ctx.healthy(step));
    ctx.mark(got, bad ? "bad" : "good");
    if (bad) return found("hall-not-fed", [pin], { part: part.id, pin });
  }
  return found("hall-silent", [part.id, ...devicePins(part).map((p) => p.at)], { part: part.id });
}

/** What pulls the open output up on the bench, ohm (common practice, no source). */
export const BENCH_PULL_OHM = 1000;

/**
 * Whether a Hall sensor may be fed from the battery: one that lives on a module's reference takes 5 V and would be
 * destroyed (common practice, no source).
 */
export const isHallForBench = (d: Device, nets: Nets): boolean =>
  d.kind === "hall" && nets.functionOf(d.pins.supply) !== "reference";

/**
 * A Hall sensor by itself: fed from the battery, its output pulled up through a resistor, steel held at its tip and
 * taken away. Its own pins, so that neither harness nor module has a part in it. Ohms would tell nothing.
 */
export function* hallBench(ctx: RunContext): Script {
  const part = ctx.index.devices.get(ctx.subject);
  const battery = ctx.batteryPosts();
  if (!part || part.kind !== "hall" || !battery) return unclear("no-hall", { part: ctx.subject });
  if (!isHallForBench(part, ctx.nets)) return unclear("hall-takes-reference", { part: part.id });
  const { signal, supply, ground } = part.pins;
  const jumpers = [
    { from: battery.plus, to: supply, ohm: 0.01 },
    { from: battery.minus, to: ground, ohm: 0.01 },
    { from: battery.plus, to: signal, ohm: BENCH_PULL_OHM },
  ];
  const step = (steel: 0 | 1): RunStep => ({
    kind: "bench",
    instrument: "voltmeter",
    points: [signal],
    part: "removed",
    state: off(deviceConnectors(part), { jumpers, stimulus: { [part.id]: steel } }),
    label: steel ? "steel" : "no steel",
  });
  const near = yield step(1);
  const away = yield step(0);
  if (!near || !away) return unclear("run-skipped", { point: part.id });
  const switches = Math.abs(near.values[0]! - away.values[0]!) >= SWITCHES_VOLT;
  ctx.mark(near, switches ? "good" : "bad");
  ctx.mark(away, switches ? "good" : "bad");
  return switches
    ? clear("hall-good-alone", { part: part.id })
    : found("hall-dead-alone", [part.id], { part: part.id });
}
