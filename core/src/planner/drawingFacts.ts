import { ASSUMED } from "../wiring/assumed.js";
import { buildChart } from "../chart/build.js";
import { saysNowhere } from "../chart/ends.js";
import { chartRow, type Chart } from "../format/chart.js";
import type { Device, Wiring } from "../format/wiring.js";
import { freeName } from "../chart/templates.js";
import { isPeripheral } from "../wiring/kinds.js";
import { findNets, type NetFunction } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";

/** What the drawing does not say: where the wire at one cavity goes. */
export interface DrawingFact {
  readonly point: string;
  readonly role: "supply" | "ground" | "signal";
  /** where it may go, the likeliest first; their chances add up to 1 */
  readonly options: readonly { readonly to: string; readonly chance: number }[];
}
/** A chart with what it does not say assumed. */
export interface CompletedChart {
  readonly chart: Chart;
  /** what was assumed; of some there is only one way it can be */
  readonly facts: readonly DrawingFact[];
}

/** Weight of a way that no other part of the drawing goes, beside one for each part that does. Judgement. */
const NEW_WAY = 0.5;
/** What conductors of each role carry. */
const CARRIES: Readonly<Record<"supply" | "ground", ReadonlySet<NetFunction>>> = {
  supply: new Set<NetFunction>(["reference", "feed"]),
  ground: new Set<NetFunction>(["sensorGround", "ground"]),
};
/** Sensors that a module feeds and grounds (common practice, no source), what it feeds and grounds them with. */
const BY_MODULE: ReadonlySet<Device["kind"]> = new Set(["threeWireSensor", "potentiometer", "pedal", "thermistor"]);
const FROM_MODULE: ReadonlySet<NetFunction> = new Set<NetFunction>(["reference", "sensorGround"]);
/** How much more the usual way counts. Judgement. */
const USUAL_WAY = 8;
/** Weight of an end that is drawn to nowhere. Judgement: a wire that is missing at both its ends is one wire. */
const LOOSE_END = 6;
/** Weight of an input where a code about the part is judged. Judgement. */
const CODE_SAYS = 20;
const ROLES: Readonly<Record<string, DrawingFact["role"]>> = {
  supply: "supply",
  supply2: "supply",
  feed: "supply",
  ground: "ground",
  ground2: "ground",
  low: "ground",
  signal: "signal",
  signal2: "signal",
  high: "signal",
};

/**
 * Assumes where wires go that the drawing leaves out, for sensors and actuators: a supply or ground to where those of
 * others go, in proportion to how many do; a signal to the module that hears most.
 * @param answers by cavity, where a wire goes after all
 * @param only cavities that are asked about; every cavity without a wire where left out
 */
export function completeChart(
  chart: Chart,
  answers: ReadonlyMap<string, string> = NO_ANSWERS,
  only?: ReadonlySet<string>,
): CompletedChart {
  const { wiring, points } = buildChart(chart);
  const known = new Set(chart.rows.flatMap((r, i) => (saysNowhere(r.goesTo) ? [points.get(i)] : [])));
  const open = openPins(wiring).filter((p) => !known.has(p.point) && (only?.has(p.point) ?? true));
  if (open.length === 0) return { chart, facts: [] };
  const ways = new Ways(chart, wiring);
  const facts: DrawingFact[] = [];
  let next = chart;
  for (const { point, role, device } of open) {
    const options = ways.of(role, device);
    const said = answers.get(point);
    if (said === undefined) facts.push({ point, role, options });
    next = withLine(next, points, point, said ?? options[0]!.to, said === undefined ? ASSUMED : "");
    // a signal has a cavity of its own at the module
    if (role === "signal") ways.taken(said ?? options[0]!.to);
  }
  return { chart: next, facts };
}
const NO_ANSWERS: ReadonlyMap<string, string> = new Map();

/** Pins of sensors and actuators at which no wire is drawn. */
export function openPins(
  wiring: Wiring,
): { readonly point: string; readonly role: DrawingFact["role"]; readonly device: Device }[] {
  const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
  return wiring.devices.flatMap((d) =>
    isPeripheral(d)
      ? devicePins(d).flatMap((p) => {
          const role = ROLES[p.role];
          return role && p.at.includes(":") && !wired.has(p.at) ? [{ point: p.at, role, device: d }] : [];
        })
      : [],
  );
}

/** Sides of in-line cavities where no wire is drawn, though one is on the other side. */
function looseEnds(wiring: Wiring, wired: ReadonlySet<string>): string[] {
  return wiring.connectors.flatMap((c) =>
    c.inline
      ? c.cavities.flatMap((cavity) => {
          const [a, b] = [`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`];
          return wired.has(a) === wired.has(b) ? [] : [wired.has(a) ? b : a];
        })
      : [],
  );
}

/** The ways that wires of a role go in a drawing. */
class Ways {
  private readonly supply = new Map<string, number>();
  private readonly ground = new Map<string, number>();
  private readonly module: string;
  private cavity: number;
  private readonly carries: (point: string) => NetFunction;
  /** inputs of modules to which no wire is drawn, with the parts that codes judged there are about */
  private readonly inputs: Map<string, ReadonlySet<string>>;

  constructor(chart: Chart, wiring: Wiring) {
    const nets = findNets(wiring);
    this.carries = (point) => nets.functionOf(point);
    const stars = wiring.devices.filter((d) => d.kind === "splice" || d.kind === "ground").map((d) => d.id);
    const modules = wiring.devices.filter((d): d is Extract<Device, { kind: "module" }> => d.kind === "module");
    /** a place on the same net where one more wire can be joined */
    const joinAt = (point: string): string | undefined => {
      const net = nets.netOf.get(point);
      if (net === undefined) return undefined;
      const onNet = (p: string) => nets.netOf.get(p) === net;
      return stars.find(onNet) ?? modules.flatMap((m) => m.pins.map((p) => p.at)).find(onNet);
    };
    const count = (ways: Map<string, number>, to: string | undefined, n: number) =>
      to === undefined ? undefined : ways.set(to, (ways.get(to) ?? 0) + n);
    for (const d of wiring.devices) {
      if (!isPeripheral(d)) continue;
      for (const p of devicePins(d)) {
        const role = ROLES[p.role];
        if (role === "supply" || role === "ground") count(this[role], joinAt(p.at), 1);
      }
    }
    const busiest = [...modules].sort((a, b) => b.pins.length - a.pins.length)[0];
    // ways that no part drawn goes, but that are there
    const there = [...stars, ...modules.flatMap((m) => m.pins.map((p) => p.at))];
    for (const role of ["supply", "ground"] as const)
      for (const to of new Set(there.filter((p) => CARRIES[role].has(nets.functionOf(p))).map(joinAt)))
        if (to !== undefined && !this[role].has(to)) count(this[role], to, NEW_WAY);
    if (!wiring.devices.some((d) => d.kind === "ground")) count(this.ground, freeName(chart, "G"), NEW_WAY);
    this.module = busiest?.id ?? freeName(chart, "A");
    this.cavity = 1 + Math.max(0, ...(busiest?.pins ?? []).map((p) => Number.parseInt(p.at.split(":")[1]!, 10) || 0));
    const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
    const sameNet = (p: string, q: string) => p === q || (nets.netOf.has(p) && nets.netOf.get(p) === nets.netOf.get(q));
    const about = (at: string) =>
      new Set(
        chart.codes.flatMap((c) =>
          c.about && c.monitor && "at" in c.monitor && sameNet(c.monitor.at, at) ? [c.about] : [],
        ),
      );
    const loose = looseEnds(wiring, wired);
    for (const end of loose)
      for (const role of ["supply", "ground"] as const)
        if (CARRIES[role].has(nets.functionOf(end))) count(this[role], end, LOOSE_END);
    const inputs = modules.flatMap((m) => m.pins).filter((p) => p.role === "input" && !wired.has(p.at));
    const signals = loose.filter((end) => nets.functionOf(end) === "signal");
    this.inputs = new Map([...inputs.map((p) => p.at), ...signals].map((at) => [at, about(at)] as const));
    if (this.supply.size === 0) this.supply.set(`${this.module}:${this.cavity++}`, 1);
  }
  of(role: DrawingFact["role"], device: Device): DrawingFact["options"] {
    const ways = role === "signal" ? this.signals(device.id) : this.usual(role, device);
    const all = [...ways.values()].reduce((a, b) => a + b, 0);
    return [...ways].map(([to, n]) => ({ to, chance: n / all })).sort((a, b) => b.chance - a.chance);
  }
  /** Sensors are mostly fed and grounded by the module that hears them, all else by the machine. */
  private usual(role: "supply" | "ground", { kind }: Device): ReadonlyMap<string, number> {
    const own = BY_MODULE.has(kind);
    return new Map(
      [...this[role]].map(([to, n]) => [to, n * (own === FROM_MODULE.has(this.carries(to)) ? USUAL_WAY : 1)]),
    );
  }
  private signals(device: string): ReadonlyMap<string, number> {
    if (this.inputs.size === 0) return new Map([[`${this.module}:${this.cavity}`, 1]]);
    return new Map(
      [...this.inputs].map(([at, about]) => [at, about.has(device) ? CODE_SAYS : about.size ? NEW_WAY : 1]),
    );
  }
  taken(to: string): void {
    this.inputs.delete(to);
    if (to === `${this.module}:${this.cavity}`) this.cavity++;
  }
}

/**
 * The chart with a wire at a cavity, in its own line where it has one.
 * @param points the electrical point of each row, as `buildChart` has them
 */
export function withLine(
  chart: Chart,
  points: ReadonlyMap<number, string>,
  point: string,
  goesTo: string,
  source: string,
): Chart {
  const own = chart.rows.findIndex((r, i) => points.get(i) === point && r.goesTo.trim() === "");
  const cells = { goesTo, source };
  if (own >= 0) return { ...chart, rows: chart.rows.map((r, i) => (i === own ? { ...r, ...cells } : r)) };
  const [connector = "", cavity = ""] = point.split(":");
  return { ...chart, rows: [...chart.rows, chartRow({ connector, cavity, ...cells })] };
}
