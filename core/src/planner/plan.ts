import { leftOver, without, type Belief } from "../diagnosis/belief.js";
import { groupWorlds, misplacedIn, type Grouped, type Suspect } from "../diagnosis/groups.js";
import type { Posterior } from "../diagnosis/posterior.js";
import type { Predictor } from "../diagnosis/predictor.js";
import { DEFAULTS } from "../defaults.js";
import { stateName } from "../network/state.js";
import { wireId, deviceConnectors } from "../wiring/points.js";
import type { Folded } from "../logbook/fold.js";
import { candidates, clueOf, type Candidate } from "./candidates.js";
import { Cost, standing, type Standing } from "./cost.js";
import { crowdOf, type Crowd } from "./crowd.js";
import { Informer, type Joint } from "./information.js";

/** Where the job stands: waiting for codes, splitting suspects, one left to confirm, proven, or nothing reachable tells the rest apart. */
export type Stage = "waiting" | "splitting" | "confirming" | "proven" | "stuck";

/** A candidate with what it would tell. */
export interface Weighed {
  readonly candidate: Candidate;
  /** expected information about the suspects, bits */
  readonly bits: number;
  readonly joints: readonly Joint[];
}

export interface Plan {
  readonly stage: Stage;
  readonly grouped: Grouped;
  readonly crowd: Crowd;
  /** what could be done next, the most information per minute first */
  readonly ranked: readonly Weighed[];
  /** everything on offer that has not been read yet */
  readonly open: readonly Candidate[];
  readonly standing: Standing;
  readonly cost: Cost;
  /** logbook entry that the verdict hangs on, when confirming */
  readonly hangsOn: number | undefined;
  /** the one reading that does not fit and is to be taken again before a cause is declared */
  readonly again?: number;
}

export interface PlanOptions {
  readonly stop?: () => boolean;
}

/** Readings with less information than this are not worth their time, bits. */
const WORTH_BITS = 0.01;
/** Suspects with less than this share are not planned for, nor compared with others; and how many are. */
const COMPARE_ABOVE = 0.004;
const COMPARE_MOST = 28;
/** Two suspects whose answers to every test on offer are this much alike are one suspect (total variation distance). */
const ALIKE = 0.3;
/** With its weightiest reading left out, a proven cause must still hold this share. */
const STILL = 0.6;

/** From belief to what could be done next. Pure; schools then choose among `ranked` and `open`. */
export function makePlan(predictor: Predictor, belief: Belief, options: PlanOptions = {}): Plan {
  const { gathered, posterior } = belief;
  const { folded } = gathered;
  const cost = new Cost(predictor.wiring);
  const from = standing(folded);
  const raw = groupWorlds(predictor, posterior);
  const base = { cost, standing: from, hangsOn: undefined };
  if (gathered.evidence.length === 0)
    return { ...base, stage: "waiting", grouped: raw, crowd: crowdOf(predictor, posterior, raw), ranked: [], open: [] };
  const offered = candidates(predictor, folded, concerned(predictor, posterior));
  const open = offered.filter((c) => !alreadyDone(c, folded));
  const crowd = crowdOf(predictor, posterior, raw);
  const informer = new Informer(predictor, crowd);
  const weighed = open.map((candidate) => ({ candidate, joints: informer.joints(candidate) }));
  const merged = mergeAlike(raw, weighed);
  const grouped = merged.size ? groupWorlds(predictor, posterior, merged) : raw;
  const to = renumber(raw, grouped, merged);
  const joined: Weighed[] = weighed.map(({ candidate, joints }) => {
    const list = joints.map((j) => j.merged(to, grouped.suspects.length));
    return { candidate, joints: list, bits: Informer.bits(list) };
  });
  const ranked = rank(joined);
  const found = {
    ...base,
    grouped,
    crowd: {
      ...crowd,
      suspects: grouped.suspects.length,
      atoms: crowd.atoms.map((a) => ({ ...a, suspect: to[a.suspect]! })),
      notHere: { ...crowd.notHere, suspect: grouped.notHere },
    },
    open,
  };
  const leader = grouped.suspects[0]!;
  if (!(isCause(leader) && leader.share >= DEFAULTS.plan.enoughShare) || doubted(posterior))
    return { ...found, ranked, stage: ranked.length ? "splitting" : "stuck" };
  const against = unexplained(predictor, belief, grouped);
  const once =
    against.codes.length === 0 && against.readings.length === 1
      ? again(belief, against.readings[0]!, offered)
      : undefined;
  if (against.codes.length > 0 || against.readings.length > 1)
    return { ...found, ranked, stage: ranked.length ? "splitting" : "stuck" };
  if (once)
    return {
      ...found,
      ...confirming(predictor, belief, grouped, merged, [once.candidate], once.number)!,
      again: once.number,
      stage: "confirming",
    };
  const confirm = confirming(predictor, belief, grouped, merged, open);
  if (!confirm || options.stop?.()) return { ...found, ranked: [], stage: confirm ? "confirming" : "proven" };
  return {
    ...found,
    ranked: confirm.ranked,
    hangsOn: confirm.hangsOn,
    stage: confirm.ranked.length ? "confirming" : "proven",
  };
}

export const isCause = (s: Suspect) => s.type === "fault" || s.type === "several";

function rank(list: readonly Weighed[]): Weighed[] {
  return list
    .filter((w) => w.bits >= WORTH_BITS)
    .sort((a, b) => b.bits / b.candidate.minutes - a.bits / a.candidate.minutes);
}

/** Suspects that no test on offer can tell apart are one suspect: key → key that stands for it. */
function mergeAlike(
  raw: Grouped,
  weighed: readonly { readonly joints: readonly Joint[] }[],
): ReadonlyMap<string, string> {
  const close = raw.suspects
    .map((s, i) => ({ s, i }))
    .filter(({ s, i }) => raw.keys[i] !== "" && s.share >= COMPARE_ABOVE)
    .slice(0, COMPARE_MOST);
  let pairs: (readonly [number, number])[] = [];
  for (let i = 0; i < close.length; i++)
    for (let j = i + 1; j < close.length; j++) pairs.push([close[i]!.i, close[j]!.i]);
  for (const { joints } of weighed) {
    if (pairs.length === 0) break;
    for (const j of joints) if (!j.isLive) pairs = pairs.filter(([a, b]) => j.apart(a, b) < ALIKE);
  }
  const merged = new Map<string, string>();
  const stands = (k: string): string => {
    let r = k;
    while (merged.has(r)) r = merged.get(r)!;
    return r;
  };
  for (const [a, b] of pairs) {
    const x = stands(raw.keys[a]!);
    const y = stands(raw.keys[b]!);
    if (x !== y) merged.set(y, x);
  }
  return new Map([...merged.keys()].map((k) => [k, stands(k)]));
}
function renumber(raw: Grouped, grouped: Grouped, merged: ReadonlyMap<string, string>): Int32Array {
  const byId = new Map(grouped.keys.map((k, i) => [k || grouped.suspects[i]!.id, i]));
  return Int32Array.from(raw.suspects, (s, i) => {
    const key = raw.keys[i]!;
    return byId.get(key === "" ? s.id : (merged.get(key) ?? key))!;
  });
}

/** A cause is not declared while it is likely that readings were taken at the wrong connector. */
const doubted = (posterior: Posterior) => misplacedIn(posterior).reduce((sum, m) => sum + m.share, 0) > 0.2;

/** What stands against the leader: a cause is not declared while a present code stays unexplained by it, or two readings do not fit. */
function unexplained(
  predictor: Predictor,
  belief: Belief,
  grouped: Grouped,
): { readonly codes: readonly number[]; readonly readings: readonly number[] } {
  const world = belief.posterior.worlds.find((_, i) => grouped.of[i] === 0);
  return world ? leftOver(predictor, world, belief.gathered.evidence) : { codes: [], readings: [] };
}

/** A single reading that does not fit may be a slip of the hand: it is taken again before a cause is declared against it. @returns undefined where it has been, or cannot be */
function again(
  belief: Belief,
  at: number,
  offered: readonly Candidate[],
): { readonly candidate: Candidate; readonly number: number } | undefined {
  const { evidence, folded } = belief.gathered;
  const e = evidence[at]!;
  const entry = e.kind === "reading" ? folded.readings.find((r) => r.number === e.number)?.entry : undefined;
  if (!entry || folded.readings.filter((r) => sameReading(r.entry, entry)).length > 1) return undefined;
  const candidate = offered.find(
    (c) =>
      c.instrument !== "none" && sameReading({ instrument: c.instrument, points: c.points, state: c.state }, entry),
  );
  return candidate && { candidate, number: e.number };
}
type Taken = {
  readonly instrument: Candidate["instrument"];
  readonly points: readonly string[];
  readonly state: Candidate["state"];
  readonly black?: string | undefined;
};
const sameReading = (a: Taken, b: Taken) =>
  a.instrument === b.instrument &&
  a.black === b.black &&
  stateName(a.state) === stateName(b.state) &&
  a.points.join(" ") === b.points.join(" ");

/**
 * Whether a verdict hangs on one reading, and what would then confirm it: the belief without that reading is planned
 * for as any other, with the leader on one side and everybody else on the other.
 * @param only the one reading that is to be confirmed, whatever hangs on it; all on offer is then ranked
 * @returns undefined where it hangs on no single reading
 */
function confirming(
  predictor: Predictor,
  belief: Belief,
  grouped: Grouped,
  merged: ReadonlyMap<string, string>,
  open: readonly Candidate[],
  only?: number,
): { readonly hangsOn: number; readonly ranked: readonly Weighed[] } | undefined {
  const key = grouped.keys[0]!;
  const numbers =
    only !== undefined
      ? [only]
      : [...new Set(belief.gathered.evidence.flatMap((e) => (e.kind === "reading" ? [e.number] : [])))];
  let worst: { share: number; number: number; posterior: Posterior; grouped: Grouped } | undefined;
  for (const number of numbers.length ? numbers : [0]) {
    const posterior = number === 0 ? belief.posterior : without(predictor, belief, number);
    const other = groupWorlds(predictor, posterior, merged);
    const at = other.keys.indexOf(key);
    const share = at < 0 ? 0 : other.suspects[at]!.share;
    if (!worst || share < worst.share) worst = { share, number, posterior, grouped: other };
  }
  if (!worst || (only === undefined && worst.share >= STILL && numbers.length > 0)) return undefined;
  const at = worst.grouped.keys.indexOf(key);
  const leader = at < 0 ? 0 : worst.share;
  // the leader on one side with half the weight, everybody else on the other
  const rest = 1 - leader;
  const crowd = crowdOf(
    predictor,
    worst.posterior,
    worst.grouped,
    (w, suspect) => (w.share * 0.5) / Math.max(1e-9, suspect === at ? leader : rest),
    (worst.posterior.notHere * 0.5) / Math.max(1e-9, rest),
  );
  const sides: Crowd = {
    suspects: 2,
    atoms: crowd.atoms.map((a) => ({ ...a, suspect: a.suspect === at ? 0 : 1 })),
    notHere: { suspect: 1, weight: crowd.notHere.weight },
  };
  const informer = new Informer(predictor, sides, CONFIRM_BLUR_VOLT);
  const all = open.map((candidate): Weighed => {
    const joints = informer.joints(candidate);
    return { candidate, joints, bits: Informer.bits(joints) };
  });
  const ranked = only !== undefined ? all : rank(all).filter((r) => r.bits >= CONFIRM_BITS);
  return { hangsOn: worst.number, ranked };
}
/** A confirmation must not hang on a tenth of a volt, and must be able to refute. */
const CONFIRM_BLUR_VOLT = 0.15;
const CONFIRM_BITS = 0.1;

export function alreadyDone(c: Candidate, folded: Folded): boolean {
  if (c.instrument !== "none")
    return folded.readings.some(
      ({ entry }) =>
        entry.instrument === c.instrument &&
        stateName(entry.state) === stateName(c.state) &&
        c.points.every((p) => entry.points.includes(p)),
    );
  const clue = clueOf(c, true);
  if (clue.type === "identity")
    return folded.clues.some(({ entry }) => entry.type === "identity" && entry.connector === clue.connector);
  if (clue.type === "partNumber")
    return folded.seen.some(({ entry }) => entry.partNumber !== undefined && entry.connector === c.at);
  return folded.clues.some(
    ({ entry }) =>
      entry.type === clue.type &&
      ("thing" in entry
        ? "thing" in clue && entry.thing === clue.thing
        : "parts" in entry &&
          "parts" in clue &&
          entry.parts.every((p) => (clue.parts as readonly string[]).includes(p))),
  );
}

/** Connectors, fuses and other things that a live suspect touches. */
export function concerned(predictor: Predictor, posterior: Posterior): ReadonlySet<string> {
  const ids = new Set<string>();
  const devices = new Map(predictor.wiring.devices.map((d) => [d.id, d]));
  const addPoint = (p: string) => ids.add(p.includes(":") ? p.slice(0, p.indexOf(":")) : p);
  const places = new Set<string>();
  for (const w of posterior.worlds) {
    if (w.share < CONCERNED) continue;
    for (const f of predictor.hypotheses[w.hypothesis]!.faults) {
      places.add(f.place.id);
      if (f.at !== undefined) places.add(f.at);
    }
    if (w.misplaced) {
      ids.add(w.misplaced.from);
      ids.add(w.misplaced.to);
    }
  }
  for (const p of places) {
    addPoint(p);
    const d = devices.get(p);
    if (d) deviceConnectors(d).forEach((c) => ids.add(c));
  }
  for (const w of predictor.wiring.wires)
    if (places.has(wireId(w)) || places.has(w.from) || places.has(w.to)) {
      addPoint(w.from);
      addPoint(w.to);
    }
  return ids;
}
const CONCERNED = 0.002;
