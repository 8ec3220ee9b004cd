import {
  deviceConnectors,
  devicePins,
  findNets,
  indexWiring,
  isPeripheral,
  resolvePlace,
  thingsOnTheWay,
  wireId,
  type Device,
  type NetFunction,
  type Wiring,
  connectorOf,
} from "@radicula/core";
import { clipped } from "@/ui/text";
import { t } from "@/messages";

/** Letters of a name or a place beside its thing on the map. Judgement. */
const WORDS = 40;
/** Of a module, whose name stands inside it. */
const IN_BOX = 24;

/** A thing on the root map, before it has a place. Sizes in map units (about a CSS pixel at full size). */
export interface MapNode {
  readonly id: string;
  readonly type: "sensor" | "code" | "splice" | "inline" | "module" | "part";
  /** id of the thing in the wiring: device, connector, or code */
  readonly thing: string;
  readonly title: string;
  readonly detail: string;
  /** the codes that speak of it */
  readonly codes: readonly { readonly id: string; readonly title: string }[];
  readonly width: number;
  readonly height: number;
  /** from sensors (0) down to what they share */
  readonly rank: number;
  readonly ports: readonly MapPort[];
}
export interface MapPort {
  readonly point: string;
  readonly label: string;
  readonly side: "top" | "bottom";
  readonly x?: number;
}
export interface MapEdge {
  readonly id: string;
  readonly from: string;
  readonly fromPort: string;
  readonly to: string;
  readonly toPort: string;
  readonly function: NetFunction | "watch";
}
export interface MapGraph {
  readonly nodes: readonly MapNode[];
  readonly edges: readonly MapEdge[];
  readonly hidden: number;
  readonly feeds: readonly string[];
}

export const SENSOR = { width: 158, card: 86, plug: 34, gap: 10, pitch: 32 } as const;
/** height of the dot of a splice or part; its two lines of words stand out above and below */
export const DOT = 16;
const MOST_SENSORS = 14;

/** A map of more things than this is neither read nor laid out in time: it keeps to what matters. Judgement. */
const MOST_THINGS = 120;
/** How far down a map goes: to the modules, to what feeds and grounds them, or wherever copper leads from there. */
type Depth = "modules" | "feeds" | "all";

/** A code that is set, by the names it is known by. */
export interface SetCode {
  readonly module: string;
  readonly code: string;
}

type Sensor = Extract<Device, { pins: object }>;

/**
 * Builds the root map of a case: sensors with their codes on top, the copper they share below, modules and feeds at
 * the roots. Healthy sensors appear when they share something with a coded one, for they argue against it; the rest is
 * only counted.
 * @param feeds whether to follow the modules on down to fuses, switches, battery and grounds; on a large machine no
 * further than to those that feed and ground what is shown
 */
export function buildMap(
  wiring: Wiring,
  present: readonly { readonly module: string; readonly code: string }[],
  feeds = true,
): MapGraph {
  for (const depth of feeds ? (["all", "feeds"] as const) : []) {
    const graph = buildTo(depth, wiring, present);
    if (graph.nodes.length <= MOST_THINGS) return graph;
  }
  return buildTo("modules", wiring, present);
}

function buildTo(depth: Depth, wiring: Wiring, present: readonly SetCode[]): MapGraph {
  const way = thingsOnTheWay(wiring);
  const codes = codesBySubject(wiring, present, way);
  const sensors = wiring.devices.filter((d): d is Sensor => isPeripheral(d));
  const shown = chooseSensors(sensors, way, codes.bySensor);
  const builder = new MapBuilder(wiring, codes.bySensor);
  for (const s of shown) builder.sensor(s);
  for (const c of codes.loose) builder.looseCode(c);
  builder.growDown(shown, depth);
  return {
    ...builder.finish(),
    hidden: sensors.length - shown.length,
    feeds: wiring.devices.filter((d) => FEEDS.has(d.kind)).map((d) => d.id),
  };
}

const FEEDS: ReadonlySet<Device["kind"]> = new Set([
  "fuse",
  "breaker",
  "switch",
  "relay",
  "diode",
  "battery",
  "alternator",
  "ground",
]);
/** module pins whose codes are about what hangs on them, not about the pin itself */
const SUBJECT_ROLES: ReadonlySet<string> = new Set(["input", "lowSide", "highSide"]);

interface Subject {
  readonly id: string;
  readonly title: string;
  readonly at: string;
}

function codesBySubject(wiring: Wiring, present: readonly SetCode[], way: ReadonlyMap<string, ReadonlySet<string>>) {
  const bySensor = new Map<string, { id: string; title: string }[]>();
  const loose: Subject[] = [];
  for (const p of present) {
    const code = wiring.codes.find((c) => c.module === p.module && c.id === p.code);
    const monitor = code?.monitor;
    const at = monitor && "at" in monitor ? monitor.at : undefined;
    const named = code?.about ?? (monitor?.type === "silent" ? monitor.node : undefined);
    const unit = wiring.devices.find((d) => d.id === p.module);
    const isInput = unit?.kind === "module" && unit.pins.some((pin) => pin.at === at && SUBJECT_ROLES.has(pin.role));
    const owners =
      named !== undefined && way.has(named)
        ? [named]
        : isInput && at !== undefined
          ? [...way].filter(([, things]) => things.has(at)).map(([id]) => id)
          : [];
    const shown = { id: p.code, title: code?.title ?? "" };
    if (owners.length === 0) loose.push({ ...shown, at: at ?? "" });
    for (const owner of owners) bySensor.set(owner, [...(bySensor.get(owner) ?? []), shown]);
  }
  return { bySensor, loose };
}

function chooseSensors(
  sensors: readonly Sensor[],
  way: ReadonlyMap<string, ReadonlySet<string>>,
  coded: ReadonlyMap<string, unknown>,
): Sensor[] {
  const withCodes = sensors.filter((s) => coded.has(s.id));
  if (withCodes.length === 0) return sensors.slice(0, MOST_SENSORS);
  const theirs = new Set(withCodes.flatMap((s) => [...(way.get(s.id) ?? [])]));
  const sharing = (s: Sensor) => [...(way.get(s.id) ?? [])].filter((thing) => theirs.has(thing)).length;
  const healthy = sensors.filter((s) => !coded.has(s.id) && sharing(s) > 0).sort((a, b) => sharing(b) - sharing(a));
  const keep = new Set([...withCodes, ...healthy].slice(0, MOST_SENSORS));
  return sensors.filter((s) => keep.has(s));
}

/** Walks the copper from the sensors down and makes a node of everything met on the way. */
class MapBuilder {
  private readonly nodes = new Map<string, Omit<MapNode, "rank" | "ports"> & { ports: Map<string, MapPort> }>();
  private readonly edges: MapEdge[] = [];
  private readonly rank = new Map<string, number>();
  private readonly index;
  private readonly nets;
  private readonly moduleOf = new Map<string, string>();
  private readonly sensorOf = new Map<string, string>();
  /** relays: devices with a connector that stand in the way of a current, like a fuse */
  private readonly partOf = new Map<string, string>();
  /** what was reached through a module */
  private readonly below = new Set<string>();
  /** pins that modules are fed and grounded through */
  private readonly feeding = new Set<string>();
  constructor(
    private readonly wiring: Wiring,
    private readonly coded: ReadonlyMap<string, { id: string; title: string }[]>,
  ) {
    this.index = indexWiring(wiring);
    this.nets = findNets(wiring);
    for (const d of wiring.devices)
      for (const pin of devicePins(d))
        (d.kind === "module" ? this.moduleOf : isPeripheral(d) ? this.sensorOf : this.partOf).set(pin.at, d.id);
    for (const d of wiring.devices)
      if (d.kind === "module")
        for (const p of d.pins) if (p.role === "supply" || p.role === "ground") this.feeding.add(p.at);
  }

  sensor(s: Sensor) {
    const pins = devicePins(s).map((p) => p.at);
    const plugs = deviceConnectors(s);
    const width = Math.max(SENSOR.width, pins.length * SENSOR.pitch + 30 + 8 * plugs.join(", ").length);
    const first = 26; // the connector's name stands at the right end of the plug
    this.add(s.id, {
      type: "sensor",
      thing: s.id,
      title: sentence(s.name ?? s.id).replace(/ sensor$/, ""),
      detail: plugs.join(", "),
      codes: this.coded.get(s.id) ?? [],
      width,
      height: SENSOR.card + SENSOR.gap + SENSOR.plug,
    });
    pins.forEach((point, i) =>
      this.port(s.id, {
        point,
        label: point.slice(point.indexOf(":") + 1),
        side: "bottom",
        x: first + i * SENSOR.pitch,
      }),
    );
    this.rank.set(s.id, 0);
  }
  looseCode(c: Subject) {
    const id = `code ${c.id}`;
    this.add(id, {
      type: "code",
      thing: c.id,
      title: c.title,
      detail: c.at,
      codes: [{ id: c.id, title: c.title }],
      width: 128,
      height: SENSOR.card + SENSOR.gap + SENSOR.plug,
    });
    this.rank.set(id, 0);
    if (!c.at || !this.moduleOf.has(c.at)) return;
    this.port(id, { point: `${id} foot`, label: "", side: "bottom", x: 36 });
    this.edges.push({
      id,
      from: id,
      fromPort: `${id} foot`,
      to: `module ${this.moduleOf.get(c.at)}`,
      toPort: c.at,
      function: "watch",
    });
  }

  /** breadth first from the sensors, then on from the modules down to feeds and grounds */
  growDown(sensors: readonly Sensor[], depthOfMap: Depth) {
    const wires = new Map<string, Wiring["wires"]>();
    for (const w of this.wiring.wires)
      for (const end of [w.from, w.to]) {
        const key = this.nodeAt(end) ?? end;
        wires.set(key, [...(wires.get(key) ?? []), w]);
      }
    const used = new Set<string>();
    let front = sensors.map((s) => s.id);
    for (let depth = 1; front.length; depth++) {
      const next = new Set<string>();
      for (const from of front)
        for (const w of wires.get(from) ?? []) {
          const id = wireId(w);
          if (used.has(id)) continue;
          const forward = this.nodeAt(w.from) === from;
          const [near, far] = forward ? [w.from, w.to] : [w.to, w.from];
          const to = this.nodeAt(far);
          if (to === undefined || to === from || !this.leadsOn(from, near, to, depthOfMap)) continue;
          used.add(id);
          if (!this.nodes.has(to)) {
            if (from.startsWith("module ") || this.below.has(from)) this.below.add(to);
            this.make(to, far);
            this.rank.set(to, depth);
            next.add(to);
          }
          this.edges.push({ id, from, fromPort: near, to, toPort: far, function: this.nets.functionOf(near) });
        }
      front = [...next];
    }
  }
  /** Whether a map of this depth goes on from one node to the next. */
  private leadsOn(from: string, near: string, to: string, depth: Depth): boolean {
    if (depth === "all") return true;
    const isModule = from.startsWith("module ");
    if (depth === "modules") return !isModule;
    if (isModule) return this.feeding.has(near);
    if (!this.below.has(from)) return true;
    // where all feeds meet the map ends, and it comes down from a fuse to no other module
    const kind = this.index.devices.get(from)?.kind;
    if (kind === "battery" || kind === "ground" || kind === "alternator") return false;
    return this.nodes.has(to) || !to.startsWith("module ");
  }
  /** the node an endpoint belongs to; sensors that are not shown have none */
  private nodeAt(end: string): string | undefined {
    const owner = this.moduleOf.get(end);
    if (owner) return `module ${owner}`;
    const sensor = this.sensorOf.get(end);
    if (sensor) return this.nodes.has(sensor) ? sensor : undefined;
    const part = this.partOf.get(end);
    if (part) return part;
    const place = resolvePlace(this.index, end);
    if (!place.ok) return undefined;
    if (place.value.type === "cavity")
      return place.value.connector.inline ? `inline ${place.value.connector.id}:${place.value.cavity}` : undefined;
    return place.value.device.id;
  }
  private make(id: string, end: string) {
    if (id.startsWith("module ")) {
      const d = this.index.devices.get(id.slice("module ".length));
      this.add(id, {
        type: "module",
        thing: d?.id ?? id,
        title: `${clipped(sentence(d?.name ?? t("map.module")), IN_BOX)} ${d?.id ?? ""}`,
        detail: clipped(d?.place ?? "", WORDS),
        codes: [],
        width: 200,
        height: 88,
      });
    } else if (id.startsWith("inline ")) {
      const connector = connectorOf(end);
      const cavity = id.slice(`inline ${connector}:`.length);
      this.add(id, {
        type: "inline",
        thing: connector,
        title: cavity,
        detail: clipped(this.index.connectors.get(connector)?.place ?? "", WORDS),
        codes: [],
        width: 28,
        height: 26,
      });
    } else {
      const d = this.index.devices.get(id);
      const name = clipped(d?.name ?? "", WORDS);
      if (d?.kind === "splice")
        this.add(id, {
          type: "splice",
          thing: id,
          title: t("map.splice", { id }),
          detail: name,
          codes: [],
          width: 150,
          height: DOT,
        });
      else
        this.add(id, {
          type: "part",
          thing: id,
          title: id,
          detail: name || d?.kind || "",
          codes: [],
          width: 30 + 7 * Math.max(id.length, (name || d?.kind || "").length),
          height: DOT,
        });
    }
  }
  private add(id: string, node: Omit<MapNode, "rank" | "ports" | "id">) {
    this.nodes.set(id, { id, ...node, ports: new Map() });
  }
  private port(node: string, port: MapPort) {
    this.nodes.get(node)?.ports.set(port.point, port);
  }

  finish(): { nodes: MapNode[]; edges: MapEdge[] } {
    const edges = this.edges.filter((e) => this.nodes.has(e.from) && this.nodes.has(e.to));
    this.levelRanks(edges);
    const turned = edges.map((e) =>
      this.rankOf(e.from) <= this.rankOf(e.to)
        ? e
        : { ...e, from: e.to, fromPort: e.toPort, to: e.from, toPort: e.fromPort },
    );
    for (const e of turned) {
      this.attach(e.from, e.fromPort, "bottom");
      this.attach(e.to, e.toPort, "top");
    }
    const nodes = [...this.nodes.values()].map((n) => {
      const count = Math.max(
        0,
        ...(["top", "bottom"] as const).map((side) => [...n.ports.values()].filter((p) => p.side === side).length),
      );
      return {
        ...n,
        rank: this.rankOf(n.id),
        ports: [...n.ports.values()],
        width: n.type === "module" ? Math.max(n.width, 34 * count + 40) : n.width,
      };
    });
    return { nodes, edges: turned };
  }
  private rankOf(id: string) {
    return this.rank.get(id) ?? 1;
  }
  /**
   * longest way down, so that everything one thing leads to lies below it; all cavities of an in-line connector on one
   * level
   */
  private levelRanks(edges: readonly MapEdge[]) {
    const first = new Map(this.rank);
    const group = (id: string) => {
      const n = this.nodes.get(id);
      return n?.type === "inline" ? t("map.connector", { thing: n.thing }) : id;
    };
    const level = new Map<string, number>();
    for (const [id, r] of this.rank) level.set(group(id), Math.max(level.get(group(id)) ?? 0, r === 0 ? 0 : 1));
    for (let round = 0; round < this.nodes.size; round++) {
      let moved = false;
      for (const e of edges) {
        if (e.function === "watch") continue;
        const [a, b] =
          (first.get(e.from) ?? 0) <= (first.get(e.to) ?? 0)
            ? [group(e.from), group(e.to)]
            : [group(e.to), group(e.from)];
        if (a === b) continue;
        const wanted = (level.get(a) ?? 0) + 1;
        if ((level.get(b) ?? 0) < wanted && wanted <= this.nodes.size) {
          level.set(b, wanted);
          moved = true;
        }
      }
      if (!moved) break;
    }
    for (const id of this.nodes.keys()) this.rank.set(id, level.get(group(id)) ?? 1);
  }
  private attach(id: string, point: string, side: "top" | "bottom") {
    const n = this.nodes.get(id);
    if (!n || n.type === "sensor" || n.type === "code") return;
    const key = n.type === "splice" || n.type === "part" ? side : `${point}`;
    if (!n.ports.has(key))
      n.ports.set(key, {
        point: n.type === "splice" || n.type === "part" ? `${id} ${side}` : point,
        label: point.slice(point.indexOf(":") + 1).replace(/\.[ab]$/, ""),
        side,
      });
  }
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
