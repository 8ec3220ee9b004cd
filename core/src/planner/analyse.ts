import { DEFAULTS } from "../defaults.js";
import type { Entry } from "../format/case.js";
import { issue, type Issue } from "../issues/issue.js";
import type { Folded } from "../logbook/fold.js";
import type { Feed } from "../diagnosis/circumstances.js";
import { gather, type Evidence } from "../diagnosis/evidence.js";
import { groupSuspects, type Probe, type Suspect } from "../diagnosis/groups.js";
import { weigh, type Posterior } from "../diagnosis/posterior.js";
import type { Instrument, Predictor } from "../diagnosis/predictor.js";
import { stateName } from "../network/state.js";
import { expectation, reasonsFor, type Reason } from "../diagnosis/reasons.js";
import { deviceConnectors } from "../wiring/points.js";
import { candidates, type Candidate } from "./candidates.js";
import { confirmingCrowd, crowdOf, information, rivalCrowd, type Answer, type Crowd } from "./information.js";

export const ENGINE_VERSION = "0.1.0";

export interface SuspectView extends Suspect {
  /** present codes that this suspect would set, and all present codes that have a set condition */
  readonly explains: number;
  readonly outOf: number;
  readonly reasons: readonly Reason[];
}
export interface Recommendation {
  readonly candidate: Candidate;
  /** expected information about the suspects, bits, and its share of what is still open */
  readonly bits: number;
  readonly shareOfOpen: number;
  readonly answers: readonly (readonly Answer[])[];
}
export interface ReadingView {
  readonly number: number;
  readonly point: string;
  readonly value: number;
  readonly instrument: Instrument;
  /** what a machine without a fault would show; NaN when it proves nothing */
  readonly healthy: number;
  /** what the leading suspect predicts */
  readonly leading: number;
}
/** Where the job stands: waiting for codes, splitting suspects, one left to confirm, proven, or nothing reachable tells the rest apart. */
export type Stage = "waiting" | "splitting" | "confirming" | "proven" | "stuck";

export interface Analysis {
  readonly engine: string;
  readonly stage: Stage;
  readonly suspects: readonly SuspectView[];
  readonly next: readonly Recommendation[];
  readonly readings: readonly ReadingView[];
  /** suspicion on each thing: wires, cavities, splices, grounds, fuses, devices, module pins; by id */
  readonly suspicion: ReadonlyMap<string, number>;
  readonly remarks: readonly Issue[];
  readonly folded: Folded;
  /** what the intake did to the rates of faults */
  readonly feeds: readonly Feed[];
}

const LISTED_SUSPECTS = 12, LISTED_NEXT = 8;
/** Supporting evidence counts from three times likelier. */
const SUPPORTS = Math.log(3);
const WORTH_BITS = 0.005;
/** Suspects below this share are not planned for. */
const PLAN_LEAST = 0.002;
/** Suspects that codes alone left above this share must be told from the leader before it counts as proven. */
const CONFIRM_LEAST = 0.01;

/**
 * A case, weighed: wiring (inside the predictor) plus entries in, everything a screen shows out. Pure and repeatable;
 * the predictor only remembers predictions, which no evidence changes.
 */
export function analyse(predictor: Predictor, entries: readonly Entry[]): Analysis {
  const { evidence, remarks, folded, factors, feeds } = gather(predictor, entries);
  const posterior = weigh(predictor, evidence, factors);
  const waiting = evidence.length === 0;
  const open = waiting ? [] : candidates(predictor, folded, concerned(predictor, posterior)).filter((c) => !alreadyRead(c, folded));
  const suspects = groupSuspects(predictor, posterior, waiting ? [] : probesOf(open, evidence, predictor));
  const views = suspects.slice(0, LISTED_SUSPECTS).map((s) => view(predictor, posterior, evidence, s));
  const leader = views[0]!;
  const supporting = leader.reasons.filter((r) => r.kind !== "code" && r.weight >= SUPPORTS && r.fits).length;
  const enough = leader.type === "fault" && leader.share >= DEFAULTS.plan.enoughShare;
  const rivals = enough ? unrefuted(predictor, posterior, evidence, suspects) : [];
  const confirming = enough ? (rivals.length ? rivalCrowd(posterior, suspects[0]!, rivals) : supporting < 2 ? confirmingCrowd(posterior, suspects, CONFIRM_LEAST) : undefined) : undefined;
  const next = waiting ? [] : confirming ? recommendConfirming(predictor, confirming, open) : enough ? [] : recommend(predictor, crowdOf(posterior, suspects, PLAN_LEAST), open);
  // proven, too, when nothing within reach could still refute the leader
  const misfit = leader.reasons.some((r) => !r.fits);
  const proven = enough && !misfit && supporting >= 2 && (confirming === undefined || next.length === 0);
  const stage: Stage = waiting ? "waiting" : proven ? "proven" : next.length === 0 ? "stuck" : enough ? "confirming" : "splitting";
  return {
    engine: ENGINE_VERSION, stage, suspects: views, next, folded, feeds,
    readings: readingViews(predictor, posterior, evidence, leader), suspicion: suspicionOf(predictor, posterior),
    remarks: [...remarks, ...misfits(leader), ...(leader.type === "notHere" && !waiting ? [issue("remark.not-in-this-wiring")] : []), ...unsettledAmong(predictor, views)],
  };
}

/**
 * Fills in beforehand what the next readings will need, most likely ones first, and yields after each small step so
 * that a caller can stop. Run it while the technician puts the leads on: the reading that follows only looks things up.
 */
export function* thinkAhead(predictor: Predictor, entries: readonly Entry[], analysis: Analysis): Generator<void> {
  const { evidence, folded, factors } = gather(predictor, entries);
  if (evidence.length === 0) return;
  const posterior = weigh(predictor, evidence, factors);
  const live = [...posterior.wantedByCodes].filter(([h]) => posterior.shareByCodes[h]! >= DEFAULTS.plan.keepShare).sort(([a], [b]) => posterior.share[b]! - posterior.share[a]!);
  const states = new Map<string, Candidate>();
  for (const c of [...analysis.next.map((n) => n.candidate), ...candidates(predictor, folded, concerned(predictor, posterior))]) {
    const name = `${c.instrument} ${stateName(c.state)}`;
    if (!states.has(name)) states.set(name, c);
  }
  for (const c of states.values()) {
    for (const [h, wanted] of live) {
      predictor.predict(h, c.state, c.instrument, wanted);
      yield;
    }
  }
}

function view(predictor: Predictor, posterior: Posterior, evidence: readonly Evidence[], s: Suspect): SuspectView {
  const reasons = reasonsFor(predictor, posterior, evidence, s);
  const present = reasons.filter((r) => r.kind === "code" && r.got === 1);
  return { ...s, reasons, outOf: present.length, explains: present.filter((r) => r.expected >= 0.5).length };
}

/** Readings on offer and readings taken: the ways two suspects could be told apart. */
function probesOf(open: readonly Candidate[], evidence: readonly Evidence[], predictor: Predictor): Probe[] {
  const probes = new Map<string, Probe & { points: string[] }>();
  const add = (state: Probe["state"], instrument: Instrument, points: readonly string[]) => {
    const name = `${instrument} ${stateName(state)}`;
    const probe = probes.get(name) ?? { state, instrument, points: [] };
    probe.points.push(...points);
    probes.set(name, probe);
  };
  for (const c of open) add(c.state, c.instrument, c.points);
  for (const e of evidence) if (e.kind === "reading") add(e.state, e.instrument, [predictor.points[e.point]!]);
  return [...probes.values()];
}

function alreadyRead(c: Candidate, folded: Folded): boolean {
  return folded.readings.some(({ entry }) => entry.instrument === c.instrument && stateName(entry.state) === stateName(c.state) && c.points.every((p) => entry.points.includes(p)));
}

/** Connectors and fuses that a live suspect touches. */
function concerned(predictor: Predictor, posterior: Posterior): ReadonlySet<string> {
  const ids = new Set<string>();
  const devices = new Map(predictor.wiring.devices.map((d) => [d.id, d]));
  const addPoint = (p: string) => ids.add(p.includes(":") ? p.slice(0, p.indexOf(":")) : p);
  predictor.faults.forEach((f, i) => {
    if (posterior.share[i + 1]! < PLAN_LEAST) return;
    if (f.place.type === "cavity") addPoint(f.place.id);
    for (const w of predictor.wiring.wires) {
      const id = w.id ?? `${w.from}~${w.to}`;
      if (id === f.place.id || w.from === f.place.id || w.to === f.place.id) { addPoint(w.from); addPoint(w.to); }
    }
    const d = devices.get(f.place.id);
    if (d) deviceConnectors(d).forEach((c) => ids.add(c));
  });
  return ids;
}

/** A confirmation must not hang on a tenth of a volt. */
const CONFIRM_BLUR_VOLT = 0.25;

/** As `recommend`, with everything but the leader taken together as suspect −1. */
function recommendConfirming(predictor: Predictor, crowd: Crowd, open: readonly Candidate[]): Recommendation[] {
  return recommend(predictor, crowd, open, CONFIRM_BLUR_VOLT).map((r) => ({
    ...r, answers: r.answers.map((list) => list.map((a) => ({ ...a, suspects: a.suspects.map((s) => (s.suspect === 0 ? s : { ...s, suspect: -1 })) }))),
  }));
}

function recommend(predictor: Predictor, crowd: Crowd, open: readonly Candidate[], blurVolt = 0): Recommendation[] {
  const entropy = crowd.suspects.reduce((sum, s) => (s.share > 0 ? sum - s.share * Math.log2(s.share) : sum), 0);
  return open
    .map((candidate) => ({ candidate, ...information(predictor, crowd, candidate, blurVolt) }))
    .filter((r) => r.bits >= WORTH_BITS)
    .sort((a, b) => b.bits / b.candidate.minutes - a.bits / a.candidate.minutes)
    .slice(0, LISTED_NEXT)
    .map((r) => ({ candidate: r.candidate, bits: r.bits, answers: r.answers(), shareOfOpen: entropy > 0 ? Math.min(1, r.bits / entropy) : 0 }));
}

/** The alarm on the leader's own misfit: codes it does not explain, readings only a slip of the hand would explain. */
function misfits(leader: SuspectView): Issue[] {
  if (leader.type !== "fault" || leader.share < 0.5) return [];
  const codes = leader.reasons.filter((r) => r.kind === "code" && r.got === 1 && r.expected < 0.3).map((r) => r.about);
  const readings = leader.reasons.filter((r) => !r.fits);
  return [
    ...(codes.length ? [issue("remark.leader-leaves-codes", [], { codes })] : []),
    ...(readings.length ? [issue("remark.leader-misfits", [], { entries: readings.map((r) => String(r.number)) })] : []),
  ];
}

/** Rivals of the leader that no reading has put three standard deviations off yet. */
function unrefuted(predictor: Predictor, posterior: Posterior, evidence: readonly Evidence[], suspects: readonly Suspect[]): Suspect[] {
  return suspects.slice(1).filter((s) => s.type !== "notHere" && s.share >= RIVAL_LEAST && !reasonsFor(predictor, posterior, evidence, s).some((r) => r.sigmas >= REFUTED_SIGMAS));
}
const RIVAL_LEAST = 0.004, REFUTED_SIGMAS = 3;

function unsettledAmong(predictor: Predictor, views: readonly SuspectView[]): Issue[] {
  const ids = views.flatMap((s) => s.members).filter((m) => m.share >= 0.05 && predictor.unsettled.has(m.hypothesis)).map((m) => m.fault.id);
  return ids.length ? [issue("remark.unsettled", [], { faults: ids })] : [];
}

function readingViews(predictor: Predictor, posterior: Posterior, evidence: readonly Evidence[], leader: Suspect): ReadingView[] {
  const lead = leader.members[0]?.hypothesis;
  return evidence.flatMap((e) => (e.kind !== "reading" ? [] : [{
    number: e.number, point: predictor.points[e.point]!, value: e.value, instrument: e.instrument,
    healthy: predictor.predict(0, e.state, e.instrument)[e.point]!, // sample 0 is the nominal draw
    leading: lead === undefined ? NaN : expectation(predictor, posterior, lead, e),
  }]));
}

function suspicionOf(predictor: Predictor, posterior: Posterior): ReadonlyMap<string, number> {
  const on = new Map<string, number>();
  const add = (id: string, share: number) => on.set(id, (on.get(id) ?? 0) + share);
  predictor.faults.forEach((f, i) => {
    const share = posterior.share[i + 1]!;
    if (share < 1e-6) return;
    add(f.place.id, share);
    if (f.at !== undefined && f.at !== f.place.id) add(f.at, share);
  });
  return on;
}
