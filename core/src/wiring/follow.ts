import type { Wiring } from "../format/wiring.js";
import { inLineEnds } from "./kinds.js";
import { devicePins, indexWiring, resolvePlace, wireId } from "./points.js";

/** One step along copper: over a wire, or through a splice, in-line contact, fuse or switch. */
export interface PathStep {
  readonly from: string;
  readonly to: string;
  readonly over: "wire" | "contact" | "part";
  readonly thing: string;
}
/** A cavity followed to its end: the way there, and everything else that hangs on it. */
export interface Follow {
  readonly start: string;
  readonly steps: readonly PathStep[];
  /** module pin, ground point, battery terminal, or another part's pin; undefined where the copper just ends */
  readonly end: string | undefined;
  /** every point on the same copper, the way included */
  readonly points: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
  /** parts with a pin on it, other than the one it starts at */
  readonly others: readonly string[];
}

/**
 * Follows a cavity along copper, through in-line contacts, fuses and switches, to where its current comes from or goes:
 * a module pin, a ground, the battery. The way is the shortest; the reach is everything else on the same copper.
 */
export function followPoint(wiring: Wiring, start: string): Follow {
  const { index, next, pins } = copperOf(wiring);
  const before = new Map<string, PathStep>();
  const points = new Set([start]);
  const wires = new Set<string>();
  let end: string | undefined;
  const isEnd = (p: string) => {
    if (p === start) return false;
    if (pins.get(p)?.kind === "module") return true;
    const place = resolvePlace(index, p);
    return (
      place.ok &&
      place.value.type !== "cavity" &&
      (place.value.device.kind === "ground" ||
        place.value.device.kind === "battery" ||
        place.value.device.kind === "alternator")
    );
  };
  for (let front = [start]; front.length;) {
    const ahead: string[] = [];
    for (const p of front) {
      if (isEnd(p)) {
        end ??= p;
        continue;
      } // current comes from here: no further
      for (const step of next.get(p) ?? []) {
        if (step.over === "wire") wires.add(step.thing);
        if (points.has(step.to)) continue;
        points.add(step.to);
        before.set(step.to, step);
        ahead.push(step.to);
      }
    }
    front = ahead;
  }
  const startDevice = pins.get(start)?.id;
  end ??= [...points].find((p) => p !== start && pins.has(p) && pins.get(p)!.id !== startDevice);
  const steps: PathStep[] = [];
  for (let at = end; at !== undefined && at !== start;) {
    const step = before.get(at);
    if (!step) break;
    steps.unshift(step);
    at = step.from;
  }
  const others = [
    ...new Set(
      [...points].flatMap((p) => {
        const d = pins.get(p);
        return d && d.id !== startDevice ? [d.id] : [];
      }),
    ),
  ];
  return { start, steps, end, points, wires, others };
}

/** What is joined to what, made once a wiring. */
function makeCopper(wiring: Wiring) {
  const next = new Map<string, PathStep[]>();
  const add = (from: string, step: PathStep) => {
    const list = next.get(from);
    if (list) list.push(step);
    else next.set(from, [step]);
  };
  const link = (a: string, b: string, over: PathStep["over"], thing: string) => {
    add(a, { from: a, to: b, over, thing });
    add(b, { from: b, to: a, over, thing });
  };
  for (const w of wiring.wires) link(w.from, w.to, "wire", wireId(w));
  for (const c of wiring.connectors)
    if (c.inline) for (const cavity of c.cavities) link(`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`, "contact", c.id);
  for (const d of wiring.devices) {
    const ends = inLineEnds(d);
    if (ends) link(...ends, "part", d.id);
  }
  return {
    index: indexWiring(wiring),
    next,
    pins: new Map(wiring.devices.flatMap((d) => devicePins(d).map((p) => [p.at, d] as const))),
  };
}
const made = new WeakMap<Wiring, ReturnType<typeof makeCopper>>();
/** What is joined to what by copper, in-line contacts, fuses and switches: steps by the point they start at. */
export function copperOf(wiring: Wiring): ReturnType<typeof makeCopper> {
  const known = made.get(wiring) ?? makeCopper(wiring);
  made.set(wiring, known);
  return known;
}
