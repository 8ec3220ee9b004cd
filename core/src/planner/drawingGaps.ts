import { buildChart } from "../chart/build.js";
import { chartOf } from "../chart/fromWiring.js";
import type { Chart } from "../format/chart.js";
import type { Entry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { Issue } from "../issues/issue.js";
import { assess } from "../diagnosis/belief.js";
import { keyOf } from "../diagnosis/groups.js";
import { withScannedCodes } from "../logbook/scanned.js";
import { ASSUMED, assumedAt } from "../wiring/assumed.js";
import { connectorOf } from "../wiring/points.js";
import { Predictor } from "../prediction/predictor.js";
import { completeChart, openPins, withLine, type DrawingFact } from "./drawingFacts.js";

/** What knowing one fact of the drawing would be worth. */
export interface FactWorth {
  readonly fact: DrawingFact;
  /** how many bits about the cause it is expected to tell */
  readonly bits: number;
  /** chance of each way after what was seen, as in the fact's options */
  readonly chances: readonly number[];
  /** chance that the wire goes where another cause than the leading one leads */
  readonly otherwise: number;
}
/** Ways tried of one fact, and facts tried at once. Judgement: time. */
const MOST_WAYS = 3;
const MOST_FACTS = 12;
/** A way less likely than this is not tried. Judgement. */
const LEAST_CHANCE = 0.03;
/** Joint draws of what is not known of the parts: few, since only the cause is compared. Judgement: time. */
const DRAWS = 3;

/**
 * Which fact of the drawing would help most. The machine is weighed with the wire going each way, all else as assumed:
 * what is then held of the cause, and how likely what was seen is at all, tell how much the answer would narrow it.
 * @param only cavities that are asked about; every cavity without a wire where left out
 * @returns the most telling first, of those that tell alike the wires of parts with codes; facts of which there is only
 * one way are left out
 */
export function factsWorth(
  given: Chart,
  entries: readonly Entry[],
  stop: () => boolean = () => false,
  only?: ReadonlySet<string>,
): FactWorth[] {
  const chart = withCodesOf(given, entries);
  const { chart: whole, facts } = completeChart(chart, undefined, only);
  const open = facts.filter((f) => f.options.length > 1).slice(0, MOST_FACTS);
  const worth: FactWorth[] = [];
  const assumed = open.length ? causesOf(whole, entries) : undefined;
  for (const fact of open) {
    if (stop()) break;
    const tried = fact.options.filter((o, i) => i === 0 || (i < MOST_WAYS && o.chance >= LEAST_CHANCE));
    const found = tried.map((o, i) =>
      i === 0 ? assumed! : causesOf(completeChart(chart, new Map([[fact.point, o.to]]), only).chart, entries),
    );
    // how likely all that was seen is, up to a factor: "not in this wiring" explains it as well in every wiring
    const weights = found.map((f, i) => tried[i]!.chance / Math.max(f.notHere, 1e-12));
    const sum = weights.reduce((a, b) => a + b, 0);
    const chances = weights.map((w) => w / sum);
    const mixed = new Map<string, number>();
    found.forEach((f, i) => f.shares.forEach((s, k) => mixed.set(k, (mixed.get(k) ?? 0) + chances[i]! * s)));
    const bits = entropy(mixed) - found.reduce((h, f, i) => h + chances[i]! * entropy(f.shares), 0);
    // where what was seen fits no wiring that was tried, the drawing itself is in doubt
    const unfit = found.reduce((n, f, i) => n + chances[i]! * f.notHere, 0);
    const inDoubt = unfit * entropy(new Map(fact.options.map((o) => [o.to, o.chance])));
    const otherwise = found.reduce((sum, f, i) => (f.leader === found[0]!.leader ? sum : sum + chances[i]!), 0);
    worth.push({ fact, bits: Math.max(0, bits, inDoubt), chances, otherwise });
  }
  const isCoded = codedFirst(chart, entries);
  return worth.sort((a, b) => shownBits(b) - shownBits(a) || isCoded(b) - isCoded(a) || b.bits - a.bits);
}
/** As far as they are told apart. */
const shownBits = ({ bits }: FactWorth) => Math.round(bits * 1000);
/** 1 where a part with a code is asked about: of what tells alike, its wires come first. */
function codedFirst(chart: Chart, entries: readonly Entry[]): (w: FactWorth) => number {
  const coded = codedParts(chart, entries);
  return ({ fact }) => Number(coded.has(connectorOf(fact.point).toUpperCase()));
}
/** The parts that codes of the scans are about. */
function codedParts({ codes }: Chart, entries: readonly Entry[]): ReadonlySet<string> {
  const set = new Set(entries.flatMap((e) => (e.type === "scan" ? e.codes.map((c) => `${c.module} ${c.code}`) : [])));
  return new Set(codes.flatMap((c) => (c.about && set.has(`${c.module} ${c.id}`) ? [c.about.toUpperCase()] : [])));
}

/** The chart with the codes that its logbook brought: what they name says where signals go. */
function withCodesOf(chart: Chart, entries: readonly Entry[]): Chart {
  const { wiring } = buildChart(chart);
  const { codes } = withScannedCodes(wiring, entries);
  return codes === wiring.codes ? chart : { ...chart, codes };
}

interface Causes {
  /** by what a repair would touch */
  readonly shares: ReadonlyMap<string, number>;
  readonly notHere: number;
  /** what leads of all that is drawn */
  readonly leader: string;
}
const NOT_HERE = "not here";
function causesOf(chart: Chart, entries: readonly Entry[]): Causes {
  const { wiring } = buildChart(chart);
  const predictor = new Predictor(wiring, 1, DRAWS);
  const { posterior } = assess(predictor, entries, { multiple: "never" });
  const ends = new Map(wiring.wires.map((w) => [w.id ?? `${w.from}~${w.to}`, [w.from, w.to].sort().join("~")]));
  const shares = new Map<string, number>([[NOT_HERE, posterior.notHere]]);
  for (const c of posterior.components) {
    const key = keyOf(predictor, c).replace(/^wire (.+)$/, (all, id: string) => `wire ${ends.get(id) ?? all}`);
    shares.set(key, (shares.get(key) ?? 0) + c.share);
  }
  let leader = "";
  for (const [key, share] of shares) if (key !== NOT_HERE && share > (shares.get(leader) ?? 0)) leader = key;
  return { shares, notHere: posterior.notHere, leader };
}
function entropy(shares: ReadonlyMap<string, number>): number {
  let bits = 0;
  for (const p of shares.values()) if (p > 0) bits -= p * Math.log2(p);
  return bits;
}

/** Where on the pages of the drawing to look. */
export interface WhereToLook {
  readonly sheet: string;
  readonly name: string;
  /** what stands there: the cavity itself, its connector, or where the wire most likely goes */
  readonly near: string;
}
/** A wire that was assumed, and what it would tell to look it up. */
export interface DrawingGap extends FactWorth {
  readonly minutes: number;
  readonly where: WhereToLook | undefined;
}

/**
 * A pin chart as a wiring for a job: wires that it leaves out at sensors and actuators are assumed, with the source
 * "assumed".
 */
export const completeWiring = (chart: Chart): Wiring => buildChart(completeChart(chart).chart).wiring;

/** The chart of a wiring as it was before anything was assumed. */
function halfOf(wiring: Wiring): Chart {
  const chart = chartOf(wiring);
  return { ...chart, rows: chart.rows.map((r) => (r.source === ASSUMED ? { ...r, ...UNKNOWN } : r)) };
}
const UNKNOWN = { goesTo: "", source: "", wire: "" };

/** Minutes to look where a wire goes: on a page that is there, or in books. Judgement. */
const MINUTES_ON_PAGE = 2;
const MINUTES_IN_BOOKS = 5;

/**
 * The wires of a wiring that are only assumed, with what looking each of them up would tell of the cause.
 * @param wiring as of `completeWiring`
 * @param entries a logbook in which something is to be explained
 * @returns those that tell most in a minute first, of those that tell alike the wires of parts with codes; those that
 * can only go one way have 0 bits
 */
export function drawingGaps(
  wiring: Wiring,
  entries: readonly Entry[],
  stop: () => boolean = () => false,
): DrawingGap[] {
  const at = assumedAt(wiring);
  if (at.size === 0) return [];
  const half = withCodesOf(halfOf(wiring), entries);
  const isCoded = codedFirst(half, entries);
  const worth = factsWorth(half, entries, stop, at);
  const weighed = new Set(worth.map((w) => w.fact.point));
  const others = completeChart(half, undefined, at)
    .facts.filter((f) => !weighed.has(f.point))
    .map((fact): FactWorth => ({ fact, bits: 0, chances: fact.options.map((o) => o.chance), otherwise: 0 }));
  return [...worth, ...others]
    .map((w) => {
      const where = whereToLook(wiring, w.fact);
      return { ...w, where, minutes: where ? MINUTES_ON_PAGE : MINUTES_IN_BOOKS };
    })
    .sort((a, b) => shownBits(b) / b.minutes - shownBits(a) / a.minutes || isCoded(b) - isCoded(a));
}

function whereToLook({ pages }: Wiring, { point, options }: DrawingFact): WhereToLook | undefined {
  const same = (a: string, b: string) => a.toUpperCase() === b.toUpperCase();
  const connector = connectorOf(point);
  for (const near of [point, connector, ...options.map((o) => o.to)]) {
    const mark = pages?.marks.find((m) => same(m.at, near));
    const sheet = mark && pages?.sheets.find((s) => s.id === mark.sheet);
    if (sheet) return { sheet: sheet.id, name: sheet.name, near };
  }
  return undefined;
}

/** Where a wire was found to go when it was looked up. */
export const LOOKED_UP = "looked up";
/**
 * The chart with the answer to where the wire at a cavity goes.
 * @param goesTo a place, or `NOWHERE`
 * @returns undefined where the chart says already where it goes; else with what cannot be taken of the answer
 */
export function answerGap(
  chart: Chart,
  point: string,
  goesTo: string,
): { readonly chart: Chart; readonly issues: readonly Issue[] } | undefined {
  const known = buildChart(chart);
  const rows = chart.rows.map((r, i) =>
    r.source === ASSUMED && (known.points.get(i) === point || r.goesTo.trim() === point) ? { ...r, ...UNKNOWN } : r,
  );
  const half = { ...chart, rows };
  const { points, wiring } = rows.some((r, i) => r !== chart.rows[i]) ? buildChart(half) : known;
  if (!openPins(wiring).some((p) => p.point === point)) return undefined;
  const next = withLine(half, points, point, goesTo, LOOKED_UP);
  const said = new Set(known.issues.map((i) => JSON.stringify(i)));
  return { chart: next, issues: buildChart(next).issues.filter((i) => !said.has(JSON.stringify(i))) };
}
