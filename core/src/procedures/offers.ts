import { isCause, type FaultView } from "../diagnosis/groups.js";
import { entropyBits } from "../diagnosis/maths.js";
import { DEFAULTS } from "../defaults.js";
import type { RunName } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { OpenPlan } from "../planner/analyse.js";
import { Cost, positionOf } from "../planner/cost.js";
import { repairsOf } from "../planner/outcome.js";
import type { MacroTest } from "../planner/lookAhead.js";
import type { Predictor } from "../prediction/predictor.js";
import { followPoint } from "../wiring/follow.js";
import { findNets } from "../wiring/nets.js";
import { connectorOf, deviceConnectors, devicePins, wireId } from "../wiring/points.js";
import { barredConnectors, isNeverProbed, isTwin } from "../wiring/safety.js";
import { benchValues } from "../instruments/benchValues.js";
import { isHallForBench } from "./steel.js";
import { fedBy } from "./series.js";

/** A guided run that makes sense now: where, how long, and how much of what is open it would settle. */
export interface RunOffer {
  readonly run: RunName;
  readonly on: string;
  readonly minutes: number;
  /** expected drop of entropy over the suspects, bits, and its share of what is open */ readonly bits: number;
  readonly shareOfOpen: number;
}

/** Suspects weaker than this are not planned for. */
const KEEP = 0.005;
const WORTH_BITS = 0.05;
const MOST = 6;
/** Making the three connections of a Hall sensor on the bench takes as long as so many readings. Judgement. */
const HALL_BENCH_STEPS = 3;
const EACH = 2;

/** What is still to be told apart: repairs one by one, also those that no single test tells apart. */
function liveRepairs({ suspects }: OpenPlan) {
  const others = suspects.filter((s) => !isCause(s)).map(({ share }) => ({ share, faults: [] as FaultView[] }));
  return [...suspects.filter(isCause).flatMap(repairsOf), ...others]
    .filter((r) => r.share >= KEEP)
    .sort((a, b) => b.share - a.share)
    .map((r) => ({ share: r.share, ...causeOf(r.faults) }));
}

/** What a run sees of a cause. */
interface Cause {
  readonly places: readonly string[];
  /** what is measured, where the machine itself is off */
  readonly machine: readonly string[];
  readonly shorts: boolean;
}
const causeOf = (faults: readonly FaultView[]): Cause => ({
  places: faults.map((f) => f.place.id),
  machine: faults.flatMap((f) => (f.place.type === "machine" ? [f.place.id] : [])),
  shorts: faults.some((f) => f.mode.startsWith("short")),
});

/** A run on offer, and which of its outcomes a cause would bring. */
interface Option extends RunOffer {
  readonly outcome: (cause: Cause) => string;
}

/** The runs worth their time as tests that the look-ahead can weigh against single ones. */
export function runTests(predictor: Predictor, open: OpenPlan): MacroTest[] {
  return options(predictor, open).map(({ run, on, minutes, outcome }) => ({
    run,
    on,
    minutes,
    outcomeOf: (faults) => outcome(causeOf(faults)),
  }));
}

/**
 * The runs worth their time, the most information per minute first. A run is worth what it tells apart: suspects are
 * sorted by the outcome each would bring, and the entropy of that sorting is what is expected to be learnt.
 */
export function runOffers(predictor: Predictor, open: OpenPlan): RunOffer[] {
  return options(predictor, open).map(({ run, on, minutes, bits, shareOfOpen }) => ({
    run,
    on,
    minutes,
    bits,
    shareOfOpen,
  }));
}

function options(predictor: Predictor, analysis: OpenPlan): Option[] {
  if (analysis.stage === "waiting" || (analysis.stage === "proven" && analysis.outcome?.isOneRepair !== false))
    return [];
  const { wiring } = predictor;
  const cost = new Cost(wiring);
  const from = positionOf(analysis.folded);
  const nets = findNets(wiring);
  const barred = barredConnectors(wiring);
  const live = liveRepairs(analysis);
  const total = live.reduce((sum, s) => sum + s.share, 0);
  const open = entropyBits(live.map((s) => s.share / total));
  const deviceOn = new Map(wiring.devices.flatMap((d) => deviceConnectors(d).map((c) => [c, d] as const)));
  const offers: Option[] = [];
  const offer = (run: RunName, on: string, places: readonly string[], steps: number, outcome: (s: Cause) => string) => {
    const sums = new Map<string, number>();
    for (const s of live) sums.set(outcome(s), (sums.get(outcome(s)) ?? 0) + s.share / total);
    const bits = entropyBits(sums.values());
    if (bits < WORTH_BITS) return;
    const minutes =
      places.reduce((sum, p) => sum + cost.reach(p, from), 0) +
      steps * DEFAULTS.plan.minutes.take.watch +
      places.length * DEFAULTS.plan.minutes.unplug;
    offers.push({ run, on, minutes, outcome, bits, shareOfOpen: open > 0 ? Math.min(1, bits / open) : 0 });
  };
  const touches = (s: Cause, ids: ReadonlySet<string>) => s.places.find((p) => ids.has(p) || ids.has(connectorOf(p)));
  for (const d of wiring.devices) {
    if (d.kind === "module")
      for (const pin of d.pins) {
        if (pin.role !== "reference" && pin.role !== "highSide") continue;
        const net = nets.netOf.get(pin.at);
        const plugs = wiring.connectors
          .filter(
            (c) =>
              !c.inline &&
              !barred.has(c.id) &&
              deviceOn.get(c.id)?.kind !== "module" &&
              c.cavities.some((x) => nets.netOf.get(`${c.id}:${x}`) === net),
          )
          .map((c) => c.id);
        const parts = new Map(plugs.map((c) => [deviceOn.get(c)?.id ?? c, c]));
        if (plugs.length >= 2)
          offer("unplugSeries", pin.at, plugs, plugs.length + 1, (s) =>
            s.shorts ? (s.places.map((p) => parts.get(p)).find(Boolean) ?? "rest") : "rest",
          );
      }
    if (d.kind === "fuse" || d.kind === "breaker") {
      const { inline, parts, guarded } = fedBy(wiring, barred, d.id);
      const by = new Map(parts.map((c) => [deviceOn.get(c)?.id ?? c, c]));
      const copper = new Set([...followPoint(wiring, `${d.id}:out`).wires]);
      const known = live.some((s) => s.shorts && (s.places.some((p) => by.has(p)) || touches(s, copper)));
      if (known && !guarded)
        offer("fuseRun", d.id, [d.id, ...inline, ...parts], inline.length + parts.length + 2, (s) =>
          s.shorts
            ? (s.places.map((p) => by.get(p)).find(Boolean) ?? (touches(s, copper) ? "wiring" : "rest"))
            : "rest",
        );
    }
    if (d.kind === "ground") offer("groundProof", d.id, [d.id], 3, (s) => (s.places.includes(d.id) ? "bad" : "good"));
    const signal = devicePins(d).find((p) => p.role === "signal")?.at;
    const pin = signal === undefined ? undefined : nets.modulePinOf(signal);
    if (
      d.kind !== "module" &&
      signal !== undefined &&
      pin !== undefined &&
      !barred.has(connectorOf(signal)) &&
      live.some((s) => s.places.includes(d.id))
    ) {
      const way = new Set<string>([...followPoint(wiring, signal).wires, signal, pin]);
      offer("jumpers", d.id, [connectorOf(signal)], 5, (s) =>
        s.places.includes(d.id) ? "part" : touches(s, way) ? "way" : "rest",
      );
    }
    if (d.kind === "hall" && !barred.has(connectorOf(d.pins.signal)))
      offer("steelTest", d.id, deviceConnectors(d).slice(0, 1), 2, (s) =>
        s.machine.includes(d.id)
          ? "target"
          : s.places.includes(d.id) || touches(s, new Set(deviceConnectors(d)))
            ? "part"
            : "rest",
      );
    if (isHallForBench(d, nets) && live.some((s) => s.places.includes(d.id)))
      offer("hallBench", d.id, deviceConnectors(d).slice(0, 1), 2 + HALL_BENCH_STEPS, (s) =>
        s.places.includes(d.id) && !s.machine.includes(d.id) ? "part" : "rest",
      );
    if (live.some((s) => s.places.includes(d.id)) && benchValues(d, wiring.nominalVolt).length)
      offer("benchTest", d.id, deviceConnectors(d).slice(0, 1), 2, (s) => (s.places.includes(d.id) ? "part" : "rest"));
  }
  for (const s of live.slice(0, 4))
    for (const place of s.places.slice(0, 2)) {
      const wire = wiring.wires.find((w) => wireId(w) === place);
      const at =
        wire &&
        [wire.from, wire.to].find(
          (p) => p.includes(":") && wiring.connectors.some((c) => c.id === connectorOf(p) && !barred.has(c.id)),
        );
      if (at !== undefined && s.places.length > 0 && !offers.some((o) => o.run === "dropBySection" && o.on === at)) {
        const way = followPoint(wiring, at);
        const things = new Set([...way.steps.map((x) => x.thing), ...way.points]);
        offer("dropBySection", at, [connectorOf(at)], way.steps.length, (x) =>
          x.shorts ? "rest" : (touches(x, things) ?? "rest"),
        );
      }
    }
  const sorted = offers.sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
  return sorted.filter((o, i) => sorted.slice(0, i).filter((x) => x.run === o.run).length < EACH).slice(0, MOST);
}

/**
 * The value to watch while places are moved: the point where what leads differs most from a healthy machine, all
 * plugged,
 * key on. Suspects count by their shares; the module's own value where it shows as much, since nothing need be probed.
 */
export function watchPoint(
  predictor: Predictor,
  analysis: OpenPlan,
): { readonly instrument: "voltmeter" | "scanTool"; readonly point: string } | undefined {
  const state = { key: "on" as const, unplugged: [] };
  const live = analysis.suspects
    .flatMap((s) =>
      s.type === "fault"
        ? s.members.slice(0, 2).map((m) => ({ h: m.hypothesis, share: s.share / Math.min(2, s.members.length) }))
        : [],
    )
    .slice(0, 12);
  if (analysis.stage === "waiting" || live.length === 0) return undefined;
  const barred = barredConnectors(predictor.wiring);
  const backProbed = new Set(
    predictor.wiring.connectors.filter((c) => c.backProbe && !barred.has(c.id)).map((c) => c.id),
  );
  let best: { instrument: "voltmeter" | "scanTool"; point: string; worth: number } | undefined;
  for (const instrument of ["voltmeter", "scanTool"] as const) {
    const healthy = predictor.predict(0, state, instrument);
    const faulty = live.map(({ h, share }) => ({
      rows: predictor.predict(h, state, instrument),
      share,
      samples: predictor.hypotheses[h]!.samples,
    }));
    const points =
      instrument === "scanTool"
        ? predictor.wiring.devices.flatMap((d) =>
            d.kind === "module" ? d.pins.filter((p) => p.role === "input").map((p) => p.at) : [],
          )
        : predictor.wiring.connectors.flatMap((c) =>
            backProbed.has(c.id)
              ? c.cavities.flatMap((x) => (c.inline ? [`${c.id}:${x}.a`, `${c.id}:${x}.b`] : [`${c.id}:${x}`]))
              : [],
          );
    for (const point of points) {
      const at = predictor.placeOf(instrument, point);
      if (at === undefined) continue;
      const still = healthy[0]![at]!;
      const worth =
        faulty.reduce((sum, { rows, share, samples }) => {
          const v = rows[Math.floor(samples / 2)]?.[at] ?? NaN;
          return sum + (Number.isNaN(v) || Number.isNaN(still) ? 0 : share * Math.min(1, Math.abs(v - still)));
        }, 0) * (instrument === "scanTool" ? SCAN_EASE : 1);
      if (!best || worth > best.worth) best = { instrument, point, worth };
    }
  }
  return best && best.worth > 0.01 ? { instrument: best.instrument, point: best.point } : undefined;
}
/** A value in the scan tool needs no hand at the harness. */
const SCAN_EASE = 1.15;

/** The places a run can be begun at, by hand. */
export function runPlaces(wiring: Wiring, run: RunName): string[] {
  const nets = findNets(wiring);
  const barred = barredConnectors(wiring);
  const cavities = wiring.connectors
    .filter((c) => !barred.has(c.id) && !c.inline)
    .flatMap((c) => c.cavities.map((x) => `${c.id}:${x}`))
    .filter((p) => nets.functionOf(p) !== "unknown");
  const parts = wiring.devices.filter(
    (d) => d.kind !== "module" && !isNeverProbed(d) && !deviceConnectors(d).some((c) => barred.has(c)),
  );
  const withSignal = parts.filter((d) => {
    const s = devicePins(d).find((p) => p.role === "signal");
    return s !== undefined && nets.modulePinOf(s.at) !== undefined;
  });
  switch (run) {
    case "unplugSeries":
      return cavities.filter((p) => nets.functionOf(p) === "reference" || nets.functionOf(p) === "feed");
    case "fuseRun":
      return wiring.devices.filter((d) => d.kind === "fuse").map((d) => d.id);
    case "jumpers":
    case "opposite":
      return withSignal.map((d) => d.id);
    case "groundProof":
      return [
        ...wiring.devices.filter((d) => d.kind === "ground").map((d) => d.id),
        ...cavities.filter((p) => nets.functionOf(p) === "ground" || nets.functionOf(p) === "sensorGround"),
      ];
    case "dropBySection":
    case "halveRun":
    case "loadWire":
      return cavities;
    case "farEnd":
      return cavities.filter(
        (p) => nets.functionOf(p) === "signal" && nets.modulePinOf(p) !== undefined && nets.modulePinOf(p) !== p,
      );
    case "compareTwin":
      return parts
        .filter((d) => devicePins(d).length > 1 && parts.some((x) => x.id !== d.id && x.kind === d.kind))
        .map((d) => d.id);
    case "benchTest":
    case "newPart":
      return parts.filter((d) => benchValues(d, wiring.nominalVolt).length > 0).map((d) => d.id);
    case "swapTwins":
      return parts.flatMap((a, i) =>
        parts
          .slice(i + 1)
          .filter((b) => devicePins(a).length > 1 && isTwin(a, b))
          .map((b) => `${a.id} ${b.id}`),
      );
    case "whichIsWhich":
      return wiring.connectors.filter((c) => !c.inline && !barred.has(c.id)).map((c) => c.id);
    case "steelTest":
      return parts.filter((d) => d.kind === "hall").map((d) => d.id);
    case "hallBench":
      return parts.filter((d) => isHallForBench(d, nets)).map((d) => d.id);
    case "wiggle":
      return cavities.filter((p) => nets.functionOf(p) !== "ground");
  }
}
