import { DEFAULTS } from "../defaults.js";
import type { Fault, FaultPlace } from "../faults/fault.js";
import type { Predictor } from "../prediction/predictor.js";
import type { MixtureComponent, Posterior } from "./posterior.js";

/** One suspect: what a repair would touch. Several places in one only where no test on offer can tell them apart. */
export interface Suspect {
  /** place id of the strongest member (several faults: joined by " + "), "nothing" or "not-here" */
  readonly id: string;
  readonly type: "fault" | "several" | "nothing" | "notHere";
  readonly share: number;
  /** places of a repair: any one of them (fault), all of them (several) */
  readonly places: readonly FaultPlace[];
  /** strongest first */
  readonly members: readonly Member[];
}
/** Whether a suspect is something to be repaired. */
export const isCause = (s: Pick<Suspect, "type">): boolean => s.type === "fault" || s.type === "several";
export interface Member {
  readonly hypothesis: number;
  /** the first of `faults` */
  readonly fault: FaultView;
  readonly faults: readonly FaultView[];
  readonly share: number;
  /** likeliest severity of the first fault; NaN where its mode has none */
  readonly ohm: number;
  /** share of it that comes and goes */
  readonly intermittent: number;
}

/** A fault without its edit: plain data that can cross to another thread. */
export type FaultView = Pick<Fault, "id" | "mode" | "place" | "at">;

/** Components put together by what a repair would touch, before any are merged; strongest first. */
export interface Grouped {
  readonly suspects: readonly Suspect[];
  /** what stands for each suspect when groups are merged; empty for those that never are */
  readonly keys: readonly string[];
  /** suspect of each component, by place in `posterior.components`; −1 where it is too weak to count */
  readonly of: Int32Array;
  readonly notHere: number;
}

/** A repair touches one terminal, splice leg, wire or device. */
export function placeKey(f: Pick<Fault, "place" | "at" | "mode">): string {
  return f.place.type === "splice" && f.at !== undefined
    ? `splice ${f.place.id} ${f.at}`
    : `${f.place.type} ${f.place.id}`;
}
export function keyOf(predictor: Predictor, w: MixtureComponent): string {
  const { faults } = predictor.hypotheses[w.hypothesis]!;
  return faults.length === 0 ? "" : [...new Set(faults.map(placeKey))].sort().join(" + ");
}

/** @param merged groups to be taken as one, by key: key → key that stands for it */
export function groupComponents(
  predictor: Predictor,
  posterior: Posterior,
  merged: ReadonlyMap<string, string> = NOTHING_MERGED,
): Grouped {
  const byKey = new Map<string, { component: MixtureComponent; index: number }[]>();
  posterior.components.forEach((component, index) => {
    if (component.share < DEFAULTS.plan.keepShare / 10 && component.hypothesis !== 0) return;
    const own = keyOf(predictor, component);
    const key = merged.get(own) ?? own;
    const list = byKey.get(key);
    if (list) list.push({ component, index });
    else byKey.set(key, [{ component, index }]);
  });
  if (!byKey.has("")) byKey.set("", []);
  const list: { suspect: Suspect; indices: number[]; key: string }[] = [...byKey].map(([key, members]) => ({
    key,
    suspect: toSuspect(
      predictor,
      key,
      members.map((m) => m.component),
    ),
    indices: members.map((m) => m.index),
  }));
  list.push({
    key: "?",
    suspect: { id: "not-here", type: "notHere", share: posterior.notHere, places: [], members: [] },
    indices: [],
  });
  list.sort((a, b) => b.suspect.share - a.suspect.share);
  const of = new Int32Array(posterior.components.length).fill(-1);
  list.forEach((g, i) =>
    g.indices.forEach((w) => {
      of[w] = i;
    }),
  );
  return {
    suspects: list.map((l) => l.suspect),
    keys: list.map((l) => (l.suspect.type === "fault" || l.suspect.type === "several" ? l.key : "")),
    of,
    notHere: list.findIndex((l) => l.key === "?"),
  };
}
const NOTHING_MERGED: ReadonlyMap<string, string> = new Map();
function toSuspect(predictor: Predictor, key: string, components: readonly MixtureComponent[]): Suspect {
  const share = components.reduce((sum, w) => sum + w.share, 0);
  if (key === "") return { id: "nothing", type: "nothing", share, places: [], members: [] };
  const members = membersOf(predictor, components);
  const several = members[0]!.faults.length > 1;
  const places = new Map<string, { place: FaultPlace; share: number }>();
  for (const m of several ? members.slice(0, 1) : members)
    for (const f of m.faults) {
      const k = placeKey(f);
      places.set(k, { place: f.place, share: (places.get(k)?.share ?? 0) + m.share });
    }
  const ranked = [...places.values()].sort((a, b) => b.share - a.share).map((p) => p.place);
  const unique = ranked.filter((p, i) => ranked.findIndex((q) => q.type === p.type && q.id === p.id) === i);
  return {
    id: several ? unique.map((p) => p.id).join(" + ") : ranked[0]!.id,
    type: several ? "several" : "fault",
    share,
    places: unique,
    members,
  };
}

function membersOf(predictor: Predictor, components: readonly MixtureComponent[]): Member[] {
  const byHypothesis = new Map<number, MixtureComponent[]>();
  for (const w of components) byHypothesis.set(w.hypothesis, [...(byHypothesis.get(w.hypothesis) ?? []), w]);
  return [...byHypothesis]
    .map(([hypothesis, list]) => {
      const faults = predictor.hypotheses[hypothesis]!.faults.map(plain);
      const share = list.reduce((sum, w) => sum + w.share, 0);
      return {
        hypothesis,
        fault: faults[0] ?? NO_FAULT,
        faults,
        share,
        ohm: likelySeverity(predictor, hypothesis, list[0]!.weights),
        intermittent: list.reduce((sum, w) => sum + (w.presence < 1 ? w.share : 0), 0),
      };
    })
    .sort((a, b) => b.share - a.share);
}
const NO_FAULT: FaultView = { id: "nothing", mode: "open", place: { type: "machine", id: "nothing" } };

const plain = ({ id, mode, place, at }: Fault): FaultView => ({ id, mode, place, ...(at === undefined ? {} : { at }) });

/** The severity that carries most weight; NaN where the mode has none. */
function likelySeverity(predictor: Predictor, h: number, weights: Float64Array): number {
  const { severities } = predictor.hypotheses[h]!;
  let best = 0;
  let most = -1;
  severities.forEach((_, k) => {
    let sum = 0;
    for (let d = 0; d < predictor.draws; d++) sum += weights[k * predictor.draws + d]!;
    if (sum > most) {
      most = sum;
      best = k;
    }
  });
  return severities[best]?.[0] ?? NaN;
}

/** How likely it is that readings logged at one connector were taken at another, over all causes; likeliest first. */
export interface Misplaced {
  readonly from: string;
  readonly to: string;
  readonly share: number;
}
export function misplacedIn(posterior: Posterior): Misplaced[] {
  const by = new Map<string, Misplaced>();
  for (const { misplaced: m, share } of posterior.components)
    if (m) {
      const name = `${m.from}>${m.to}`;
      by.set(name, { from: m.from, to: m.to, share: share + (by.get(name)?.share ?? 0) });
    }
  return [...by.values()].filter((m) => m.share >= 0.01).sort((a, b) => b.share - a.share);
}
