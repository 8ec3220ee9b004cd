import type { KeyState } from "../format/wiring.js";
import { inLineEnds } from "../wiring/kinds.js";
import { devicePins } from "../wiring/points.js";
import { clear, connectorOf, found, off, on, unclear, type Got, type RunContext, type Script, type Step } from "./script.js";

/**
 * Unplug one at a time while a shared voltage is watched. What is unplugged stays so until the voltage is back in full;
 * then the others go back in one by one, and each that pulls it down again is a culprit too. Some only bring part of it
 * back: their own current, not the fault (common practice, no source).
 */
export function* unplugSeries(ctx: RunContext): Script {
  const point = ctx.subject, net = ctx.nets.netOf.get(point), own = connectorOf(point);
  const items = ctx.wiring.connectors
    .filter((c) => !ctx.barred.has(c.id) && !ctx.isModule(c.id) && ctx.sides(c).some((p) => ctx.nets.netOf.get(p) === net))
    .sort((a, b) => Number(a.inline) - Number(b.inline) || Number(a.id === own) - Number(b.id === own) || a.reachMinutes - b.reachMinutes || a.id.localeCompare(b.id))
    .filter((c) => !(c.inline && c.id === own)).map((c) => c.id);
  const step = (unplugged: readonly string[], label: string) => ctx.volts(point, on(unplugged), label);
  const first = step([], point), base = yield first;
  if (!base) return unclear("series-needs-start", { point });
  const gap = ctx.healthy(first) - base.values[0]!;
  if (isBack(base.values[0]!, ctx.healthy(first), Infinity)) return clear("shared-is-well", { point, volt: base.values[0]!, healthy: ctx.healthy(first) });
  const out: string[] = [];
  let parts = 0, last: string | undefined, before = base.values[0]!;
  for (const c of items) {
    const s = step([...out, c], c), got = yield s;
    if (!got) continue;
    out.push(c);
    const healthy = ctx.healthy(s), v = got.values[0]!;
    if (isBack(v, healthy, gap)) { ctx.mark(got, "full"); last = c; break; }
    const part = Math.abs(v - before) > 0.1 * Math.abs(gap);
    if (part) parts++;
    ctx.mark(got, part ? "part" : "none");
    before = v;
  }
  if (last === undefined) return out.length ? unclear("still-down", { point, unplugged: out }) : unclear("series-skipped", { point });
  // the others go back in: whatever pulls it down again is in it too
  const culprits = [last];
  for (const c of out.slice(0, -1).reverse()) {
    const rest = out.filter((x) => x !== c && (culprits.includes(x) || out.indexOf(x) < out.indexOf(c)));
    const s = step(rest, c), got = yield s;
    if (!got) continue;
    const back = isBack(got.values[0]!, ctx.healthy(s), gap);
    ctx.mark(got, back ? "good" : "bad");
    if (!back) culprits.push(c);
  }
  // where unplugging a sound part can be enough to bring a weak supply back, each part alone tells which one takes too much
  const weak = parts > 0 || culprits.length > 1 || Math.abs(gap) < WEAK_SHARE * Math.abs(ctx.healthy(first));
  const greedy = weak ? yield* partsAlone(ctx, net, items) : [];
  return found("culprit", greedy.length ? greedy : culprits, { point });
}
/** A short that pulls a supply down by less than this share is a weak one. */
const WEAK_SHARE = 0.4;

/** Ohms of each part alone between its feed and its ground, key off, all unplugged: those far below what they should show. */
function* partsAlone(ctx: RunContext, net: number | undefined, items: readonly string[]): Generator<Step, string[], Got | undefined> {
  const low: string[] = [];
  for (const c of items) {
    const part = ctx.deviceOn.get(c), pins = part && devicePins(part);
    const feed = pins?.find((p) => ctx.nets.netOf.get(p.at) === net)?.at, ground = pins?.find((p) => p.role === "ground")?.at;
    if (feed === undefined || ground === undefined) continue;
    const step: Step = { kind: "bench", instrument: "ohmmeter", points: [feed], black: ground, part: "removed", state: off(items), label: c }, got = yield step;
    if (!got) continue;
    const bad = got.values[0]! < LOW_SHARE * ctx.healthy(step);
    ctx.mark(got, bad ? "bad" : "good");
    if (bad) low.push(c);
  }
  return low;
}
/** Back: within what values and meter may differ, and most of the way. Volt; shares of the healthy value and of the gap. */
const BACK_SHARE = 0.025, BACK_VOLT = 0.04, BACK_GAP = 0.12;
function isBack(v: number, healthy: number, gap: number): boolean {
  const within = BACK_SHARE * Math.abs(healthy) + BACK_VOLT;
  return Math.abs(healthy - v) <= (Number.isFinite(gap) ? Math.min(within, Math.max(BACK_VOLT, BACK_GAP * Math.abs(gap) + BACK_VOLT)) : within);
}

/** Everything a fuse feeds that can be unplugged: connectors in line first, nearest the fuse, then parts and modules. */
export function fedBy(ctx: Pick<RunContext, "wiring" | "deviceOn" | "barred">, fuse: string): { readonly inline: readonly string[]; readonly parts: readonly string[] } {
  const next = new Map<string, string[]>();
  const link = (a: string, b: string) => { for (const [x, y] of [[a, b], [b, a]] as const) { const l = next.get(x); if (l) l.push(y); else next.set(x, [y]); } };
  for (const w of ctx.wiring.wires) link(w.from, w.to);
  for (const c of ctx.wiring.connectors) if (c.inline) for (const cavity of c.cavities) link(`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`);
  for (const d of ctx.wiring.devices) {
    const ends = inLineEnds(d);
    if (ends && d.id !== fuse) link(...ends);
    if (d.kind === "relay") for (const contact of [d.pins.working, d.pins.resting]) if (contact) link(d.pins.common, contact);
  }
  // a ground, or the battery itself, is nobody's load
  const stops = new Set(ctx.wiring.devices.filter((d) => d.kind === "ground" || d.kind === "battery" || d.kind === "alternator").map((d) => d.id));
  const pins = new Map(ctx.wiring.devices.flatMap((d) => devicePins(d).map((p) => [p.at, p.role] as const)));
  const order: string[] = [], seen = new Set([`${fuse}:out`]);
  for (let front = [`${fuse}:out`]; front.length;) {
    const ahead: string[] = [];
    for (const p of front) {
      order.push(p);
      if (stops.has(connectorOf(p))) continue;
      for (const q of next.get(p) ?? []) if (!seen.has(q)) { seen.add(q); ahead.push(q); }
    }
    front = ahead;
  }
  const inline: string[] = [], parts: string[] = [];
  for (const p of order) {
    const c = connectorOf(p), connector = ctx.wiring.connectors.find((x) => x.id === c);
    if (!connector || ctx.barred.has(c)) continue;
    if (connector.inline) { if (!inline.includes(c)) inline.push(c); } else if (pins.has(p) && !parts.includes(c)) parts.push(c);
  }
  return { inline, parts };
}

/**
 * A fuse that blows. Ohms at the dead output first: nothing heats. Then a resetting breaker no higher than the fuse in
 * its place, all unplugged, and back in one by one; what trips it stays out. If all hold, the wiring is sound at rest:
 * then the harness is moved (common practice, no source).
 */
export function* fuseRun(ctx: RunContext): Script {
  const fuse = ctx.subject, { inline, parts } = fedBy(ctx, fuse);
  const ohms: Step = { kind: "ohms", instrument: "ohmmeter", points: [`${fuse}:out`], state: off([], { pulled: [fuse] }), label: fuse };
  const dead = yield ohms;
  if (dead) ctx.mark(dead, dead.values[0]! < LOW_SHARE * Math.min(ctx.healthy(ohms), 1000) ? "bad" : "good");
  const items = [...inline, ...parts];
  const tried = (unplugged: readonly string[], label: string, key: KeyState = "on"): Step => ({ kind: "breaker", instrument: "none", points: [fuse], state: { ...on(unplugged), key, breakers: [fuse] }, label });
  const rest = yield tried(items, fuse);
  if (!rest) return unclear("fuse-needs-breaker", { fuse });
  ctx.mark(rest, isYes(rest) ? "good" : "bad");
  if (!isYes(rest)) return found("fuse-wiring", [fuse], { fuse, before: items[0] ?? fuse });
  const out = new Set(items), culprits: string[] = [];
  for (const c of items) {
    if (behind(ctx, c, culprits)) continue;
    const got = yield tried([...out].filter((x) => x !== c), c);
    if (!got) continue;
    ctx.mark(got, isYes(got) ? "good" : "bad");
    if (isYes(got)) out.delete(c); else culprits.push(c);
  }
  if (culprits.length) return found("fuse-culprit", culprits, { fuse });
  for (const c of inline.length ? inline : parts.slice(0, 3)) {
    const moved = yield { kind: "wiggle", instrument: "none", points: [c], state: on([], { breakers: [fuse] }), label: c };
    if (!moved) continue;
    ctx.mark(moved, isYes(moved) ? "bad" : "good");
    if (isYes(moved)) return found("fuse-moved", [c], { fuse });
  }
  return clear("fuse-holds", { fuse });
}
const LOW_SHARE = 0.3;
const isYes = (g: Got) => g.values[0] === 1;
/** What hangs on the far side of a connector that stays unplugged need not be tried. */
function behind(ctx: RunContext, c: string, culprits: readonly string[]): boolean {
  return culprits.some((x) => { const connector = ctx.index.connectors.get(x); return connector?.inline === true && fedBeyond(ctx, x).has(c); });
}
function fedBeyond(ctx: RunContext, inline: string): ReadonlySet<string> {
  const connector = ctx.index.connectors.get(inline)!;
  const without = { ...ctx.wiring, connectors: ctx.wiring.connectors.map((c) => (c.id === inline ? { ...c, inline: false } : c)) };
  const all = fedBy(ctx, ctx.subject), cut = fedBy({ wiring: without, deviceOn: ctx.deviceOn, barred: ctx.barred }, ctx.subject);
  const kept = new Set([...cut.inline, ...cut.parts]);
  return new Set([...all.inline, ...all.parts].filter((c) => c !== connector.id && !kept.has(c)));
}
