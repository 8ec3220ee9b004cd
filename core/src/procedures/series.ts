import type { KeyState, Wiring } from "../format/wiring.js";
import { copperOf } from "../wiring/follow.js";
import { connectorOf, connectorPoints, devicePins } from "../wiring/points.js";
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

/**
 * Unplug one at a time while a shared voltage is watched. What is unplugged stays so until the voltage is back in full;
 * then the others go back in one by one, and each that pulls it down again is a culprit too. Some only bring part of it
 * back: their own current, not the fault (common practice, no source).
 */
export function* unplugSeries(ctx: RunContext): Script {
  const point = ctx.subject;
  const net = ctx.nets.netOf.get(point);
  const own = connectorOf(point);
  const items = ctx.wiring.connectors
    .filter(
      (c) =>
        !ctx.barred.has(c.id) && !ctx.isModule(c.id) && connectorPoints(c).some((p) => ctx.nets.netOf.get(p) === net),
    )
    .sort(
      (a, b) =>
        Number(a.inline) - Number(b.inline) ||
        Number(a.id === own) - Number(b.id === own) ||
        a.reachMinutes - b.reachMinutes ||
        a.id.localeCompare(b.id),
    )
    .filter((c) => !(c.inline && c.id === own))
    .map((c) => c.id);
  const step = (unplugged: readonly string[], label: string) => ctx.volts(point, on(unplugged), label);
  const first = step([], point);
  const base = yield first;
  if (!base) return unclear("series-needs-start", { point });
  const gap = ctx.healthy(first) - base.values[0]!;
  if (isBack(base.values[0]!, ctx.healthy(first), Infinity))
    return clear("shared-is-well", { point, volt: base.values[0]!, healthy: ctx.healthy(first) });
  const out: string[] = [];
  let parts = 0;
  let last: string | undefined;
  let before = base.values[0]!;
  for (const c of items) {
    const s = step([...out, c], c);
    const got = yield s;
    if (!got) continue;
    out.push(c);
    const healthy = ctx.healthy(s);
    const v = got.values[0]!;
    if (isBack(v, healthy, gap)) {
      ctx.mark(got, "full");
      last = c;
      break;
    }
    const part = Math.abs(v - before) > 0.1 * Math.abs(gap);
    if (part) parts++;
    ctx.mark(got, part ? "part" : "none");
    before = v;
  }
  if (last === undefined)
    return out.length ? unclear("still-down", { point, unplugged: out }) : unclear("series-skipped", { point });
  // the others go back in: whatever pulls it down again is in it too
  const culprits = [last];
  for (const c of out.slice(0, -1).reverse()) {
    const rest = out.filter((x) => x !== c && (culprits.includes(x) || out.indexOf(x) < out.indexOf(c)));
    const s = step(rest, c);
    const got = yield s;
    if (!got) continue;
    const back = isBack(got.values[0]!, ctx.healthy(s), gap);
    ctx.mark(got, back ? "good" : "bad");
    if (!back) culprits.push(c);
  }
  // where unplugging a sound part can be enough to bring a weak supply back, each part alone tells which one takes too
  // much
  const weak = parts > 0 || culprits.length > 1 || Math.abs(gap) < WEAK_SHARE * Math.abs(ctx.healthy(first));
  const greedy = weak ? yield* partsAlone(ctx, net, items) : [];
  return found("culprit", greedy.length ? greedy : culprits, { point });
}
/** A short that pulls a supply down by less than this share is a weak one. */
const WEAK_SHARE = 0.4;

/**
 * Ohms of each part alone between its feed and its ground, key off, all unplugged: those far below what they should
 * show.
 */
function* partsAlone(
  ctx: RunContext,
  net: number | undefined,
  items: readonly string[],
): Generator<RunStep, string[], StepAnswer | undefined> {
  const low: string[] = [];
  for (const c of items) {
    const part = ctx.deviceOn.get(c);
    const pins = part && devicePins(part);
    const feed = pins?.find((p) => ctx.nets.netOf.get(p.at) === net)?.at;
    const ground = pins?.find((p) => p.role === "ground")?.at;
    if (feed === undefined || ground === undefined) continue;
    const step: RunStep = {
      kind: "bench",
      instrument: "ohmmeter",
      points: [feed],
      black: ground,
      part: "removed",
      state: off(items),
      label: c,
    };
    const got = yield step;
    if (!got) continue;
    const bad = got.values[0]! < LOW_SHARE * ctx.healthy(step);
    ctx.mark(got, bad ? "bad" : "good");
    if (bad) low.push(c);
  }
  return low;
}
/**
 * Back: within what values and meter may differ, and most of the way. Volt; shares of the healthy value and of the gap.
 */
const BACK_SHARE = 0.025;
const BACK_VOLT = 0.04;
const BACK_GAP = 0.12;
function isBack(v: number, healthy: number, gap: number): boolean {
  const within = BACK_SHARE * Math.abs(healthy) + BACK_VOLT;
  return (
    Math.abs(healthy - v) <=
    (Number.isFinite(gap) ? Math.min(within, Math.max(BACK_VOLT, BACK_GAP * Math.abs(gap) + BACK_VOLT)) : within)
  );
}

/** What hangs on a fuse. `guarded`: something that must not be unplugged or fed by us is among it. */
export interface Fed {
  readonly inline: readonly string[];
  readonly parts: readonly string[];
  readonly guarded: boolean;
}
/**
 * Everything a fuse feeds that can be unplugged: connectors in line first, nearest the fuse, then parts and modules.
 * @param apart an in-line connector taken apart
 */
export function fedBy(wiring: Wiring, barred: ReadonlySet<string>, fuse: string, apart?: string): Fed {
  const { next, pins, index } = copperOf(wiring);
  const contacts = relayContacts(wiring);
  const stops = (p: string) => {
    const kind = index.devices.get(connectorOf(p))?.kind;
    return kind === "ground" || kind === "battery" || kind === "alternator";
  }; // nobody's load
  const onwards = (p: string) => [
    ...(next.get(p) ?? [])
      .filter((s) => !(s.over === "part" && s.thing === fuse) && !(s.over === "contact" && s.thing === apart))
      .map((s) => s.to),
    ...(contacts.get(p) ?? []),
  ];
  const order = new Set([`${fuse}:out`]);
  // a set grows while it is walked: breadth first
  for (const p of order) if (!stops(p)) for (const q of onwards(p)) order.add(q);
  const plugs = [...order].flatMap((p) => {
    const c = index.connectors.get(connectorOf(p));
    return c && (c.inline || pins.has(p)) ? [c] : [];
  });
  const ids = (inline: boolean) => [
    ...new Set(plugs.filter((c) => c.inline === inline && !barred.has(c.id)).map((c) => c.id)),
  ];
  return { inline: ids(true), parts: ids(false), guarded: plugs.some((c) => barred.has(c.id)) };
}
function relayContacts(wiring: Wiring): ReadonlyMap<string, readonly string[]> {
  const joined = new Map<string, string[]>();
  for (const d of wiring.devices)
    if (d.kind === "relay")
      for (const contact of [d.pins.working, d.pins.resting])
        if (contact) {
          joined.set(d.pins.common, [...(joined.get(d.pins.common) ?? []), contact]);
          joined.set(contact, [d.pins.common]);
        }
  return joined;
}

/**
 * A fuse that blows. Ohms at the dead output first: nothing heats. Then a resetting breaker no higher than the fuse in
 * its place, all unplugged, and back in one by one; what trips it stays out. If all hold, the wiring is sound at rest:
 * then the harness is moved (common practice, no source).
 */
export function* fuseRun(ctx: RunContext): Script {
  const fuse = ctx.subject;
  const { inline, parts, guarded } = fedBy(ctx.wiring, ctx.barred, fuse);
  if (guarded) return unclear("guarded", { point: fuse });
  const ohms: RunStep = {
    kind: "ohms",
    instrument: "ohmmeter",
    points: [`${fuse}:out`],
    state: off([], { pulled: [fuse] }),
    label: fuse,
  };
  const dead = yield ohms;
  if (dead) ctx.mark(dead, dead.values[0]! < LOW_SHARE * Math.min(ctx.healthy(ohms), 1000) ? "bad" : "good");
  const items = [...inline, ...parts];
  const tried = (unplugged: readonly string[], label: string, key: KeyState = "on"): RunStep => ({
    kind: "breaker",
    instrument: "none",
    points: [fuse],
    state: { ...on(unplugged), key, breakers: [fuse] },
    label,
  });
  const rest = yield tried(items, fuse);
  if (!rest) return unclear("fuse-needs-breaker", { fuse });
  ctx.mark(rest, isYes(rest) ? "good" : "bad");
  if (!isYes(rest)) return found("fuse-wiring", [fuse], { fuse, before: items[0] ?? fuse });
  const out = new Set(items);
  const culprits: string[] = [];
  for (const c of items) {
    if (behind(ctx, c, culprits)) continue;
    const got = yield tried(
      [...out].filter((x) => x !== c),
      c,
    );
    if (!got) continue;
    ctx.mark(got, isYes(got) ? "good" : "bad");
    if (isYes(got)) out.delete(c);
    else culprits.push(c);
  }
  if (culprits.length) return found("fuse-culprit", culprits, { fuse });
  for (const c of inline.length ? inline : parts.slice(0, 3)) {
    const moved = yield {
      kind: "wiggle",
      instrument: "none",
      points: [c],
      state: on([], { breakers: [fuse] }),
      label: c,
    };
    if (!moved) continue;
    ctx.mark(moved, isYes(moved) ? "bad" : "good");
    if (isYes(moved)) return found("fuse-moved", [c], { fuse });
  }
  return clear("fuse-holds", { fuse });
}
/** A value below this share of the healthy one is bad. Judgement: far below what tolerances explain. */
const LOW_SHARE = 0.3;
const isYes = (g: StepAnswer) => g.values[0] === 1;
/** What hangs on the far side of a connector that stays unplugged need not be tried. */
function behind(ctx: RunContext, c: string, culprits: readonly string[]): boolean {
  return culprits.some((x) => {
    if (ctx.index.connectors.get(x)?.inline !== true) return false;
    const left = fedBy(ctx.wiring, ctx.barred, ctx.subject, x);
    return c !== x && !left.inline.includes(c) && !left.parts.includes(c);
  });
}
