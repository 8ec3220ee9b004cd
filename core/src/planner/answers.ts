import type { JointDistribution } from "./jointDistribution.js";

/** One range of answers and what it would mean. */
export interface Answer {
  /** volts or ohms, the middle of what is expected there; without an instrument 1 for yes, 0 for no */
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** how likely this answer is */
  readonly share: number;
  /**
   * what would be left, strongest first: index into the suspects (−1: anything but the leader, when confirming), and
   * its share then
   */
  readonly suspects: readonly { readonly suspect: number; readonly share: number }[];
}

/** Bins less likely than this lie between two answers. Judgement. */
const VALLEY = 0.006;
/** More ranges than this a person does not keep apart. Judgement. */
const MOST_ANSWERS = 4;
/** A suspect with less than this share is not named beside an answer. Judgement. */
const NAMED_FROM = 0.02;
/** Two answers mean the same below this total variation distance. Judgement. */
const SAME_MEANING = 0.2;

interface Run {
  readonly from: number;
  readonly to: number;
}

/** Runs of likely bins, four at most: the ranges of answers a person would tell apart. */
export function answersOf(joint: JointDistribution): Answer[] {
  const shares = Array.from({ length: joint.bins }, (_, b) => joint.share(b));
  const runs = fewest(likelyRuns(joint, shares), shares);
  return joint.instrument === "none" ? runs.map((r) => answerOf(joint, r)) : joinSameMeaning(joint, runs);
}

/** Neighbouring likely bins with the same leading suspect. */
function likelyRuns(joint: JointDistribution, shares: readonly number[]): Run[] {
  const isClue = joint.instrument === "none";
  const leaders = shares.map((_, b) => joint.leader(b));
  const runs: Run[] = [];
  for (let b = 0; b < joint.bins; b++) {
    if (shares[b]! < VALLEY && !isClue) continue;
    const last = runs.at(-1);
    const isOverload = b === joint.bins - 1;
    if (last && !isClue && !isOverload && last.to >= b - 2 && leaders[last.to] === leaders[b])
      runs[runs.length - 1] = { from: last.from, to: b };
    else runs.push({ from: b, to: b });
  }
  return runs;
}

/** The lightest run goes to its nearer neighbour until few enough are left. */
function fewest(runs: readonly Run[], shares: readonly number[]): Run[] {
  const weight = (r: Run) => shares.slice(r.from, r.to + 1).reduce((a, x) => a + x, 0);
  const left = [...runs];
  while (left.length > MOST_ANSWERS) {
    const lightest = left.reduce((best, r, i) => (weight(r) < weight(left[best]!) ? i : best), 0);
    const toBelow = lightest > 0 ? left[lightest]!.from - left[lightest - 1]!.to : Infinity;
    const toAbove = lightest < left.length - 1 ? left[lightest + 1]!.from - left[lightest]!.to : Infinity;
    const first = toBelow <= toAbove ? lightest - 1 : lightest;
    left.splice(first, 2, { from: left[first]!.from, to: left[first + 1]!.to });
  }
  return left;
}

/** Neighbours that would mean the same are one answer; an open circuit stays one of its own. */
function joinSameMeaning(joint: JointDistribution, runs: readonly Run[]): Answer[] {
  const list = runs.map((run) => ({ run, answer: answerOf(joint, run) }));
  for (let i = 0; i + 1 < list.length;) {
    const [a, b] = [list[i]!, list[i + 1]!];
    if (b.run.to === joint.bins - 1 || !sameMeaning(a.answer, b.answer)) {
      i++;
      continue;
    }
    const run = { from: a.run.from, to: b.run.to };
    list.splice(i, 2, { run, answer: answerOf(joint, run) });
  }
  return list.map((l) => l.answer);
}

function answerOf(joint: JointDistribution, { from, to }: Run): Answer {
  const ohms = joint.instrument === "ohmmeter";
  const bySuspect = new Float64Array(joint.suspects);
  let share = 0;
  let value = 0;
  for (let b = from; b <= to; b++) {
    for (let g = 0; g < joint.suspects; g++) bySuspect[g] = bySuspect[g]! + joint.at(b, g);
    const own = joint.share(b);
    share += own;
    const middle = joint.middle(b);
    value += own * (!ohms || middle === Infinity ? middle : Math.log(middle));
  }
  value /= share;
  const suspects = [...bySuspect]
    .map((p, suspect) => ({ suspect, share: p / share }))
    .filter((s) => s.share >= NAMED_FROM)
    .sort((a, b) => b.share - a.share);
  if (joint.instrument === "none") return { value: from, low: from, high: from, share, suspects };
  return {
    value: !ohms || value === Infinity ? value : Math.exp(value),
    low: from === joint.bins - 1 ? Infinity : joint.edges[from]!,
    high: to === joint.bins - 1 ? Infinity : joint.edges[to + 1]!,
    share,
    suspects,
  };
}

/** Whether two answers leave the same suspects with nearly the same shares (total variation distance). */
function sameMeaning(a: Answer, b: Answer): boolean {
  const shares = new Map(a.suspects.map((s) => [s.suspect, s.share]));
  let apart = 0;
  for (const s of b.suspects) {
    apart += Math.abs(s.share - (shares.get(s.suspect) ?? 0));
    shares.delete(s.suspect);
  }
  for (const rest of shares.values()) apart += rest;
  return apart / 2 < SAME_MEANING;
}
