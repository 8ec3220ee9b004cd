import { chartRow, emptyChart, partRow, type Chart, type ChartRow, type PartRow } from "../format/chart.js";
import { FUNCTION_WORDS, type PinFunction } from "./functions.js";
import { addTemplate, freeName, type TemplateKind } from "./templates.js";

/** Circuits that come again and again, laid down in one step. */
export const GROUPS = ["sharedReference", "sharedFeed", "bus", "heaterBridge", "pedalTwoTracks"] as const;
export type GroupKind = (typeof GROUPS)[number];

/** How many members each may have, and how many it has when nobody says. A pedal is one part with two tracks. */
export const GROUP_SIZES: Readonly<Record<GroupKind, { least: number; most: number; usual: number }>> = {
  sharedReference: { least: 1, most: 24, usual: 4 },
  sharedFeed: { least: 1, most: 24, usual: 3 },
  bus: { least: 2, most: 16, usual: 3 },
  heaterBridge: { least: 1, most: 12, usual: 4 },
  pedalTwoTracks: { least: 1, most: 1, usual: 1 },
};

/** What a group adds to a chart. */
export interface AddedGroup {
  readonly rows: readonly ChartRow[];
  readonly parts: readonly PartRow[];
  /** names of what is new, in the order of the rows */
  readonly ids: readonly string[];
}

/**
 * Rows for a whole circuit: its members with names by rule (B1, B2 …), what they share (splices, fuse, ground), the
 * wires between them, and the pins at the module. The chart's own module takes the pins where it has exactly one, at
 * cavities that are free; else a new one. Colours, sizes and places are left to be typed.
 * @param members how many; kept within `GROUP_SIZES`
 */
export function addGroup(chart: Chart, kind: GroupKind, members = GROUP_SIZES[kind].usual): AddedGroup {
  const { least, most } = GROUP_SIZES[kind];
  const group = new Group(chart);
  const count = Math.max(least, Math.min(most, Math.round(members) || least));
  switch (kind) {
    case "sharedReference":
      group.sharedReference(count);
      break;
    case "sharedFeed":
      group.sharedFeed(count);
      break;
    case "bus":
      group.bus(count);
      break;
    case "heaterBridge":
      group.heaterBridge(count);
      break;
    case "pedalTwoTracks":
      group.pedal();
  }
  return group.added();
}

class Group {
  private readonly rows: ChartRow[] = [];
  private readonly parts: PartRow[] = [];
  private readonly ids: string[] = [];
  private readonly ofModule: ChartRow[] = [];
  private module: { readonly id: string; next: number; readonly isNew: boolean } | undefined;
  constructor(private readonly chart: Chart) {}

  added(): AddedGroup {
    return { rows: [...this.rows, ...this.ofModule], parts: this.parts, ids: this.ids };
  }
  /** the chart with what is laid down so far: the next name must be free in both */
  private get whole(): Chart {
    const { chart, rows, ofModule, parts } = this;
    return { ...emptyChart(), rows: [...chart.rows, ...rows, ...ofModule], parts: [...chart.parts, ...parts] };
  }

  /** A part with its cavities; where each goes is said by function. */
  private part(kind: TemplateKind, goesTo: Readonly<Partial<Record<PinFunction, string>>>): string {
    const made = addTemplate(this.whole, kind);
    const functionOf = new Map(Object.entries(FUNCTION_WORDS).map(([f, words]) => [words, f as PinFunction]));
    made.rows.forEach((row) => {
      const f = functionOf.get(row.function);
      this.rows.push({ ...row, goesTo: (f && goesTo[f]) ?? row.goesTo });
    });
    if (made.part) this.parts.push(made.part);
    this.ids.push(made.id);
    return made.id;
  }
  private splice(name: string): string {
    const id = freeName(this.whole, "S");
    this.parts.push(partRow({ id, kind: "splice", name }));
    this.ids.push(id);
    return id;
  }
  private ground(): string {
    const id = freeName(this.whole, "G");
    this.parts.push(partRow({ id, kind: "ground" }));
    this.ids.push(id);
    return id;
  }
  private fuse(to: string): string {
    const id = freeName(this.whole, "F");
    this.rows.push(chartRow({ connector: id, cavity: "in" }), chartRow({ connector: id, cavity: "out", goesTo: to }));
    this.parts.push(partRow({ id, kind: "fuse", values: "rating=10" }));
    this.ids.push(id);
    return id;
  }

  /** A pin of the module with a function, at the next free cavity. @returns its name, such as `A1:5` */
  private pin(f: PinFunction, goesTo = ""): string {
    const m = (this.module ??= this.moduleFor());
    const cavity = String(m.next++);
    this.ofModule.push(chartRow({ connector: m.id, cavity, function: FUNCTION_WORDS[f], goesTo }));
    return `${m.id}:${cavity}`;
  }
  private moduleFor() {
    const own = this.chart.parts.filter((p) => p.kind.trim() === "module");
    if (own.length === 1) {
      const id = own[0]!.id.trim();
      return { id, next: 1 + this.lastCavity(id), isNew: false };
    }
    const id = freeName(this.whole, "A");
    this.parts.push(partRow({ id, kind: "module" }));
    this.ids.push(id);
    return { id, next: 1, isNew: true };
  }
  /** the highest number among the cavities of a connector, typed or named as where a wire goes */
  private lastCavity(id: string): number {
    const named = new RegExp(`(?:^|[\\s,;])${id.replace(/[^\w]/g, "\\$&")}[:.](\\d+)`, "gi");
    let connector = "";
    let last = 0;
    for (const row of this.chart.rows) {
      connector = row.connector.trim() || connector;
      if (connector.toUpperCase() === id.toUpperCase()) last = Math.max(last, Number.parseInt(row.cavity, 10) || 0);
      for (const m of row.goesTo.matchAll(named)) last = Math.max(last, Number(m[1]));
    }
    return last;
  }

  sharedReference(members: number): void {
    const reference = this.splice("5 V reference");
    const low = this.splice("sensor ground");
    this.pin("reference", reference);
    this.pin("sensorGround", low);
    for (let i = 0; i < members; i++)
      this.part("threeWireSensor", { reference, sensorGround: low, signal: this.pin("signal") });
  }
  sharedFeed(members: number): void {
    const feed = this.splice("feed");
    this.fuse(feed);
    for (let i = 0; i < members; i++) this.part("solenoid", { supply: feed, ground: this.pin("lowSide") });
  }
  bus(nodes: number): void {
    const high = this.splice("bus high");
    const low = this.splice("bus low");
    const feed = this.splice("feed");
    this.fuse(feed);
    const ground = this.ground();
    for (let i = 0; i < nodes; i++) this.part("busNode", { supply: feed, ground, busHigh: high, busLow: low });
  }
  heaterBridge(members: number): void {
    const bar = this.splice("bar");
    this.fuse(bar);
    const ground = this.ground();
    for (let i = 0; i < members; i++) this.part("heater", { supply: bar, ground });
  }
  pedal(): void {
    const first = {
      reference: this.pin("reference"),
      sensorGround: this.pin("sensorGround"),
      signal: this.pin("signal"),
    };
    const second = { reference: this.pin("reference"), ground: this.pin("sensorGround"), signal: this.pin("signal") };
    const id = freeName(this.whole, "B");
    const cavities: readonly (readonly [PinFunction, string])[] = [
      ["reference", first.reference],
      ["sensorGround", first.sensorGround],
      ["signal", first.signal],
      ["supply2", second.reference],
      ["ground2", second.ground],
      ["signal2", second.signal],
    ];
    cavities.forEach(([f, goesTo], i) =>
      this.rows.push(chartRow({ connector: i ? "" : id, cavity: String(i + 1), function: FUNCTION_WORDS[f], goesTo })),
    );
    this.parts.push(partRow({ id, kind: "pedal" }));
    this.ids.push(id);
  }
}
