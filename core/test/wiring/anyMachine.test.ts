import fc from "fast-check";
import {
  buildChart,
  chartOf,
  checkEntries,
  checkWiring,
  coloursAt,
  compareSeen,
  compareWirings,
  fold,
  followPoint,
  generateHarness,
  graphml,
  mergeCharts,
  readCsv,
  readScan,
  seenRemarks,
  sharedMatrix,
  subjectsOf,
  thingsOnTheWay,
  withScannedCodes,
  writeCsv,
  type Entry,
  type ScanEntry,
  type Wiring,
} from "../../src/index.js";
import { Namer, sharedText } from "../../words/index.js";

/** What holds for any machine, not only for those drawn up by hand: machines made up from a seed, of either voltage. */
const SEEDS = [1, 2, 3, 4, 5] as const;
const machine = (seed: number): Wiring =>
  generateHarness({ nodes: 60 + seed * 40, seed, nominalVolt: seed % 2 ? 12 : 24 });
const at = "2026-11-25T10:00:00Z";
const scan = (more: Partial<ScanEntry>): ScanEntry => ({
  type: "scan",
  at,
  when: "before",
  modules: [],
  codes: [],
  disturbed: [],
  wiped: false,
  ...more,
});

describe.each(SEEDS)("machine %i, as a table and as copper", (seed) => {
  const w = machine(seed);
  const modules = w.devices.filter((d) => d.kind === "module").map((d) => d.id);

  test("through the table and back: every wire, cavity, colour and part is there again", () => {
    const read = readCsv(writeCsv(chartOf(w)).text);
    if (!read.ok) throw new Error(read.issues[0]?.code);
    const back = buildChart(read.value.chart);
    expect(checkWiring(back.wiring)).toEqual([]);
    expect(
      compareWirings({ ...w, codes: [] }, { ...back.wiring, codes: [] }).filter((c) => c.what !== "wiring"),
    ).toEqual([]);
  });

  test("laid over itself a chart agrees with itself in every cell", () => {
    const chart = chartOf(w);
    const merged = mergeCharts(chart, chart, "again");
    expect([merged.added, merged.filled, merged.contradictions]).toEqual([[], [], []]);
    expect(merged.chart.rows).toEqual(chart.rows);
    expect(merged.agreements).toBeGreaterThan(w.wires.length);
  });

  test("every code of every module, pasted as a list under its module, is read back whole", () => {
    const text = modules
      .flatMap((m) => [m, ...w.codes.filter((c) => c.module === m).map((c) => `${c.id} stored`)])
      .join("\n");
    const read = readScan(text, w);
    expect(read.issues).toEqual([]);
    expect(read.codes.map((c) => `${c.module} ${c.code} ${c.status}`).sort()).toEqual(
      w.codes.map((c) => `${c.module} ${c.id} stored`).sort(),
    );
    expect([...read.modules].sort()).toEqual([...modules].sort());
    const entries: Entry[] = [scan({ modules: [...read.modules], codes: [...read.codes] })];
    expect(checkEntries(w, entries)).toEqual([]);
    expect(withScannedCodes(w, entries)).toBe(w); // nothing the wiring did not list
    expect(fold(entries).codes).toHaveLength(w.codes.length);
  });

  test("followed along copper: the way is joined step by step, and no wire that hangs on it is missing", () => {
    const stops = new Set([
      ...w.devices.flatMap((d) => (d.kind === "module" ? d.pins.map((p) => p.at) : d.kind === "ground" ? [d.id] : [])),
      ...w.devices
        .filter((d) => d.kind === "battery" || d.kind === "alternator")
        .flatMap((d) => [`${d.id}:+`, `${d.id}:-`]),
    ]);
    const pins = w.devices
      .filter((d) => d.kind !== "module" && "pins" in d)
      .flatMap((d) => Object.values((d as { pins: Record<string, string> }).pins));
    for (const start of pins.slice(0, 60)) {
      const f = followPoint(w, start);
      let here = start;
      for (const s of f.steps) {
        expect(s.from).toBe(here);
        here = s.to;
      }
      if (f.end !== undefined) expect(here).toBe(f.end);
      expect(f.points.has(start)).toBe(true);
      for (const wire of f.wires) expect(w.wires.some((x) => (x.id ?? `${x.from}~${x.to}`) === wire)).toBe(true);
      for (const x of w.wires)
        for (const [a, b] of [
          [x.from, x.to],
          [x.to, x.from],
        ] as const)
          if (f.points.has(a) && (a === start || !stops.has(a))) expect(f.points.has(b)).toBe(true);
      expect(f.others.every((o) => w.devices.some((d) => d.id === o))).toBe(true);
    }
  });
});

describe.each(SEEDS)("machine %i, on the page and on the machine", (seed) => {
  const w = machine(seed);
  const namer = new Namer(w);
  test("what any few coded circuits share: each row is passed by just those it names", () => {
    const subjects = [...new Set(w.codes.flatMap((c) => subjectsOf(w, c.module, c.id)))];
    const way = thingsOnTheWay(w);
    fc.assert(
      fc.property(fc.subarray(subjects, { minLength: 1, maxLength: Math.min(5, subjects.length) }), (coded) => {
        const m = sharedMatrix(w, coded);
        expect([...m.coded].sort()).toEqual([...coded].sort());
        for (const r of m.rows) {
          expect(r.coded.every((d) => coded.includes(d))).toBe(true);
          expect(r.healthy.some((d) => coded.includes(d))).toBe(false);
          expect(r.wires).toBeLessThanOrEqual(r.same.length);
        }
        for (const cover of m.covers) for (const d of coded) expect(cover.some((t) => way.get(d)!.has(t))).toBe(true);
        const sentence = sharedText(m);
        expect(sentence).toMatch(/^[A-Z].*\.$/);
        expect(sentence).not.toMatch(/undefined|NaN|~/);
      }),
      { seed, numRuns: 40 },
    );
  });

  test("what stands there as drawn raises nothing; a colour changed names its cavity", () => {
    for (const c of w.connectors.slice(0, 25)) {
      const drawn = [...coloursAt(w, c.id)];
      const seen = (colours: { cavity: string; colour: string }[]) => ({
        type: "seen" as const,
        at,
        connector: c.id,
        colours,
        cavities: c.cavities.length,
      });
      expect(compareSeen(w, seen(drawn.map(([cavity, colour]) => ({ cavity, colour }))))).toBeUndefined();
      const [first] = drawn;
      if (!first) continue;
      const other = first[1].startsWith("PK") ? "TQ" : "PK";
      const entry = seen([{ cavity: first[0], colour: other }]);
      expect(compareSeen(w, entry)?.colours).toEqual([{ cavity: first[0], seen: other, drawn: first[1] }]);
      expect(seenRemarks(w, fold([entry])).map((r) => r.code)).toEqual(["remark.not-as-drawn"]);
    }
  });

  test("readings moved to another plug count there and nowhere else, and taking the move back puts them back", () => {
    const [a, b] = w.connectors.map((c) => c.id);
    if (!a || !b) throw new Error("fewer than two connectors: take another seed");
    const reading = (point: string): Entry => ({
      type: "reading",
      at,
      instrument: "voltmeter",
      points: [point],
      values: [1.5],
      state: { key: "on", unplugged: [a] },
    });
    const cavity = w.connectors.find((c) => c.id === a)!.cavities[0]!;
    const entries: Entry[] = [reading(`${a}:${cavity}`), { type: "moved", at, from: a, to: b, readings: [1] }];
    const moved = fold(entries).readings[0]!.entry;
    expect([moved.points, moved.state.unplugged]).toEqual([[`${b}:${cavity}`], [b]]);
    expect(fold([...entries, { type: "undo", at, target: 2 }]).readings[0]!.entry.points).toEqual([`${a}:${cavity}`]);
  });

  test("every name can be said, and the graph file holds every wire", () => {
    for (const c of w.connectors) expect(namer.connector(c.id)).toContain(c.id);
    for (const d of w.devices) expect(namer.device(d.id)).toContain(d.id);
    expect(graphml(w).match(/<edge /g)!.length).toBeGreaterThanOrEqual(w.wires.length);
  });
});
