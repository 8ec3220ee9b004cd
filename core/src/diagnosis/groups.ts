import { DEFAULTS } from "../defaults.js";
import type { Fault, FaultPlace } from "../faults/fault.js";
import type { Posterior } from "./posterior.js";
import { sigmaLnOhm, sigmaVolt } from "./likelihood.js";
import type { Instrument, Predictor } from "./predictor.js";
import type { State } from "../format/case.js";

/** One suspect: what a repair would touch. Several places only where no reading on offer can tell them apart. */
export interface Suspect {
  /** place id of the strongest member, "nothing" or "not-here" */
  readonly id: string;
  readonly type: "fault" | "nothing" | "notHere";
  readonly share: number;
  readonly places: readonly FaultPlace[];
  /** strongest first */
  readonly members: readonly { readonly hypothesis: number; readonly fault: FaultView; readonly share: number; readonly ohm: number }[];
}

/** A fault without its edit: plain data that can cross to another thread. */
export type FaultView = Pick<Fault, "id" | "mode" | "place" | "at">;

/** Hypotheses below this share keep to their own place and are not compared with others. */
const COMPARE_ABOVE = 0.002;
const COMPARE_MOST = 48;
/** Two faults closer than this everywhere, in standard deviations, cannot be told apart. */
const APART = 1.5;

export interface Probe { readonly state: State; readonly instrument: Instrument; readonly points: readonly string[] }

/** Groups hypotheses by place, and merges places whose live faults no probe on offer can separate. Strongest first. */
export function groupSuspects(predictor: Predictor, posterior: Posterior, probes: readonly Probe[]): Suspect[] {
  const live = predictor.faults.map((_, i) => i + 1).filter((h) => posterior.share[h]! >= DEFAULTS.plan.keepShare).sort((a, b) => posterior.share[b]! - posterior.share[a]!);
  const parent = new Map(live.map((h) => [h, h]));
  const find = (h: number): number => { let r = h; while (parent.get(r) !== r) r = parent.get(r)!; return r; };
  const byPlace = new Map<string, number>();
  for (const h of live) {
    const { place } = predictor.hypotheses[h]!.fault!;
    const key = `${place.type} ${place.id}`;
    const first = byPlace.get(key);
    if (first === undefined) byPlace.set(key, h);
    else parent.set(find(h), find(first));
  }
  const close = live.filter((h) => posterior.share[h]! >= COMPARE_ABOVE).slice(0, COMPARE_MOST);
  for (let i = 0; i < close.length; i++) {
    for (let j = i + 1; j < close.length; j++) {
      if (find(close[i]!) !== find(close[j]!) && alike(predictor, posterior, close[i]!, close[j]!, probes)) parent.set(find(close[j]!), find(close[i]!));
    }
  }
  const groups = new Map<number, number[]>();
  for (const h of live) groups.set(find(h), [...(groups.get(find(h)) ?? []), h]);
  const suspects = [...groups.values()].map((members) => toSuspect(predictor, posterior, members));
  suspects.push({ id: "nothing", type: "nothing", share: posterior.share[0]!, places: [], members: [] });
  suspects.push({ id: "not-here", type: "notHere", share: posterior.notHere, places: [], members: [] });
  return suspects.sort((a, b) => b.share - a.share);
}

function toSuspect(predictor: Predictor, posterior: Posterior, members: readonly number[]): Suspect {
  const list = members.map((hypothesis) => ({ hypothesis, fault: plain(predictor.hypotheses[hypothesis]!.fault!), share: posterior.share[hypothesis]!, ohm: likelyOhm(predictor, posterior, hypothesis) }));
  const places = new Map<string, { place: FaultPlace; share: number }>();
  for (const m of list) {
    const key = `${m.fault.place.type} ${m.fault.place.id}`;
    places.set(key, { place: m.fault.place, share: (places.get(key)?.share ?? 0) + m.share });
  }
  const ranked = [...places.values()].sort((a, b) => b.share - a.share).map((p) => p.place);
  return { id: ranked[0]!.id, type: "fault", share: list.reduce((s, m) => s + m.share, 0), places: ranked, members: list };
}

const plain = ({ id, mode, place, at }: Fault): FaultView => ({ id, mode, place, ...(at === undefined ? {} : { at }) });

/** The severity that carries most weight, ohm; NaN where the mode has none. */
function likelyOhm(predictor: Predictor, posterior: Posterior, h: number): number {
  const w = posterior.samples.get(h);
  let best = 0;
  const bySeverity = predictor.hypotheses[h]!.fault!.severities.map((_, s) => w?.slice(s * predictor.draws, (s + 1) * predictor.draws).reduce((a, b) => a + b, 0) ?? 0);
  bySeverity.forEach((x, s) => { if (x > bySeverity[best]!) best = s; });
  return predictor.hypotheses[h]!.fault!.severities[best] ?? NaN;
}

/** Whether two faults predict the same, severity by severity, wherever a meter can be put. */
function alike(predictor: Predictor, posterior: Posterior, a: number, b: number, probes: readonly Probe[]): boolean {
  const fa = predictor.hypotheses[a]!.fault!, fb = predictor.hypotheses[b]!.fault!;
  if (fa.severities.length !== fb.severities.length) return false;
  const w = posterior.samples.get(a)!, wb = posterior.samples.get(b)!;
  const samples = [...w.keys()].filter((s) => w[s]! > 0.02 || wb[s]! > 0.02);
  if (samples.length === 0 || probes.length === 0) return false; // nothing was compared
  const wanted = new Uint8Array(w.length);
  for (const s of samples) wanted[s] = 1;
  const stride = predictor.points.length;
  for (const probe of probes) {
    const va = predictor.predict(a, probe.state, probe.instrument, wanted), vb = predictor.predict(b, probe.state, probe.instrument, wanted);
    for (const name of probe.points) {
      const p = predictor.pointIndex.get(name)!;
      for (const s of samples) if (distance(va[s * stride + p]!, vb[s * stride + p]!, probe.instrument) > APART) return false;
    }
  }
  return true;
}

/** How far apart two predictions are, in standard deviations of the instrument. */
export function distance(x: number, y: number, instrument: Instrument): number {
  if (instrument === "voltmeter") return Math.abs(x - y) / sigmaVolt((x + y) / 2, 0);
  if (Number.isNaN(x) || Number.isNaN(y) || x === y) return 0;
  if (!Number.isFinite(x) || !Number.isFinite(y)) return Math.min(x, y) > 2e6 ? 1 : Infinity;
  return Math.abs(Math.log(x + 0.5) - Math.log(y + 0.5)) / sigmaLnOhm((x + y) / 2, 0);
}
