import { XMLParser, XMLValidator } from "fast-xml-parser";
import {
  analyse,
  buildChart,
  chartOf,
  chartRow,
  checkEntries,
  circumstances,
  compareSeen,
  compareWirings,
  emptyChart,
  fold,
  followPoint,
  generateFaults,
  generateHarness,
  graphml,
  Intake,
  mergeCharts,
  meterPoints,
  Predictor,
  readCsv,
  readTable,
  readWiring,
  sharedMatrix,
  subjectsOf,
  takeClaim,
  tellApart,
  thingsOnTheWay,
  writeCsv,
  type Chart,
  type ChartRow,
  type Entry,
  type SeenEntry,
  type Wiring,
} from "../src/index.js";
import { code, tug } from "./helpers.js";

const at = "2026-11-25T08:00:00Z";
const row = (connector: string, cavity: string, colour: string, fn: string, goesTo: string, source = ""): ChartRow =>
  chartRow({ connector, cavity, colour, function: fn, goesTo, source });
const chart = (rows: ChartRow[]): Chart => ({ ...emptyChart("t"), rows });

describe("tables from anywhere", () => {
  const rows = (text: string) => {
    const r = readTable(text);
    if (!r.ok) throw new Error(r.issues[0]!.code);
    return r.value;
  };
  test("semicolons, decimal commas, quotes, a head in other words", () => {
    const t = rows(
      'Plug;Pin;Color;Cross-section;Signal;Destination\r\nB7;1;"OG/WH";0,75;"5 V; ' +
        'reference";A1:17\r\n;2;BN;0,75;gnd;S2\r\n',
    );
    expect(t.rows.map((r) => [r.connector, r.cavity, r.colour, r.mm2, r.function, r.goesTo])).toEqual([
      ["B7", "1", "OG/WH", "0,75", "5 V; reference", "A1:17"],
      ["", "2", "BN", "0,75", "gnd", "S2"],
    ]);
    expect(t.issues).toEqual([]);
  });
  test("no head: columns are told by what is in them, and that is said", () => {
    const t = rows("B7\t1\tOG/WH\t5 V\tS14\nB7\t2\tBN\tground\tS22\nB7\t3\tGN\tsignal\tA1:8\n");
    expect(t.columns).toEqual(["connector", "cavity", "colour", "function", "goesTo"]);
    expect(t.issues.map((i) => i.code)).toEqual(["table.columns-guessed"]);
  });
  test("lines selected in a document, columns apart by spaces", () => {
    const t = rows("B7   1   OG/WH   5 V reference   S14\nB7   2   BN      sensor ground   S22\n");
    expect(t.rows.map((r) => r.function)).toEqual(["5 V reference", "sensor ground"]);
    expect(t.rows[0]!.goesTo).toBe("S14");
  });
  test("connector and cavity in one cell", () => {
    expect(rows("connector,colour,goes to\nB7:1,RD,S1\n").rows[0]).toMatchObject({ connector: "B7", cavity: "1" });
  });
  test("a column nobody knows is named, the rest is taken", () => {
    const t = rows("connector,cavity,moon phase\nB7,1,full\n");
    expect(t.issues).toEqual([{ code: "table.column-not-known", path: ["lines", 1], params: { text: "moon phase" } }]);
    expect(t.rows).toHaveLength(1);
  });
  test.each([
    ["", "file.empty"],
    ["  \n ", "file.empty"],
    ["colour,function\nRD,supply\n", "table.no-columns"],
  ])("refused: %p", (text, code) => {
    const r = readTable(text);
    expect(!r.ok && r.issues[0]!.code).toBe(code);
  });
  test("too many rows and cells too long are cut, and said", () => {
    const many = rows(`connector,cavity\n${Array.from({ length: 20_050 }, (_, i) => `B,${i}`).join("\n")}`);
    expect(many.rows).toHaveLength(20_000);
    expect(many.issues.map((i) => i.code)).toContain("table.too-many-rows");
    expect(rows(`connector,cavity,function\nB1,1,${"x".repeat(5000)}`).issues.map((i) => i.code)).toEqual([
      "table.cell-cut",
    ]);
  });
  test("formulas: never written as such, and the same cell comes back", () => {
    const wild = chart([
      row("B1", "1", '=HYPERLINK("x")', "+5 V", "S1", "-2"),
      row("BAT", "+", "@x", "\tq", "S1", "'=1"),
    ]);
    const { text } = writeCsv(wild);
    for (const cell of text.split(/[,\r\n]/)) expect(cell.replace(/^"/, "")).not.toMatch(/^[=+@-]/);
    const back = readCsv(text);
    expect(back.ok && back.value.chart.rows.map((r) => [r.colour, r.function, r.cavity, r.source])).toEqual([
      ['=HYPERLINK("x")', "+5 V", "1", "-2"],
      ["@x", "q", "+", "'=1"],
    ]);
  });
});

describe("several sources", () => {
  const a = chart([
    row("B7", "1", "OG/WH", "5v", "S14", "chart A"),
    row("", "2", "BN", "", "S22", "chart A"),
    row("", "3", "", "sig", "A1:8", "chart A"),
  ]);
  const b = chart([
    row("B7", "1", "orange/white", "reference", "S14"),
    row("", "2", "BK", "ground", "S22"),
    row("", "3", "GN", "", "A1:9"),
    row("B9", "1", "RD", "5v", "S14"),
  ]);
  const merged = mergeCharts(a, b, "chart B");
  test("agreements, additions, contradictions; nothing is overwritten", () => {
    expect(merged.agreements).toBe(4); // colour, function and way of B7:1, way of B7:2
    expect(merged.filled).toEqual([
      { at: "B7:2", field: "function", value: "ground" },
      { at: "B7:3", field: "colour", value: "GN" },
    ]);
    expect(merged.added).toEqual(["B9:1"]);
    expect(merged.contradictions).toEqual([
      { at: "B7:2", field: "colour", ours: "BN", theirs: "BK" },
      { at: "B7:3", field: "goesTo", ours: "A1:8", theirs: "A1:9" },
    ]);
    expect(merged.chart.rows[1]).toMatchObject({ colour: "BN", function: "ground", source: "chart A, chart B" });
    expect(merged.chart.rows.at(-1)).toMatchObject({ connector: "B9", cavity: "1", source: "chart B" });
    expect(merged.chart.claims).toHaveLength(2);
  });
  test("settling a contradiction swaps what the chart goes by and what is claimed", () => {
    const settled = takeClaim(merged.chart, merged.chart.claims[0]!);
    expect(settled.rows[1]).toMatchObject({ colour: "BK", source: "chart B" });
    expect(settled.claims[0]).toMatchObject({ at: "B7:2", field: "colour", value: "BN" });
    expect(mergeCharts(settled, b, "chart B").contradictions.map((c) => c.at)).toEqual(["B7:3"]);
  });
  test("merging a chart with itself changes nothing", () => {
    const own = chartOf(tug());
    const again = mergeCharts(own, own, "again");
    expect(again.contradictions).toEqual([]);
    expect(again.added).toEqual([]);
    expect(again.chart.rows).toEqual(own.rows);
  });
});

describe("seen on the machine", () => {
  const w = (): Wiring => {
    const base = tug();
    return {
      ...base,
      connectors: base.connectors.map((c) => (c.id === "B7" ? { ...c, lookAlikes: ["B12"], partNumber: "SK-11" } : c)),
      wires: base.wires.map((x) => (x.from === "B12:2" ? { ...x, colour: "BK" } : x)),
    };
  };
  const seen = (more: Partial<SeenEntry>): SeenEntry => ({ type: "seen", at, connector: "B7", colours: [], ...more });
  test("another colour than drawn names the cavity and the look-alike that fits", () => {
    const m = compareSeen(
      w(),
      seen({
        colours: [
          { cavity: "1", colour: "orange/white" },
          { cavity: "2", colour: "BK" },
        ],
      }),
    );
    expect(m?.colours).toEqual([{ cavity: "2", seen: "BK", drawn: "BN/BK" }]);
    expect(m?.fits[0]).toBe("B12");
  });
  test("what agrees, in whatever notation, raises nothing", () => {
    expect(
      compareSeen(w(), seen({ colours: [{ cavity: "1", colour: "orange white" }], cavities: 3, partNumber: "sk 11" })),
    ).toBeUndefined();
  });
  test("count of cavities and part number", () => {
    expect(compareSeen(w(), seen({ cavities: 4 }))?.cavities).toEqual({ seen: 4, drawn: 3 });
    expect(compareSeen(w(), seen({ partNumber: "SK-12" }))?.partNumber).toEqual({ seen: "SK-12", drawn: "SK-11" });
  });
  test("the remark stands before any reading, and readings move together with a trace", () => {
    const predictor = new Predictor(w());
    const reading: Entry = {
      type: "reading",
      at,
      instrument: "voltmeter",
      points: ["B7:2"],
      values: [0.02],
      state: { key: "on", unplugged: [] },
    };
    const entries: Entry[] = [code("P0237"), reading, seen({ colours: [{ cavity: "2", colour: "BK" }] })];
    const remark = analyse(predictor, entries).remarks.find((r) => r.code === "remark.not-as-drawn");
    expect(remark?.params).toMatchObject({ connector: "B7", readings: ["2"] });
    const moved: Entry[] = [...entries, { type: "moved", at, from: "B7", to: "B12", readings: [2] }];
    expect(checkEntries(predictor.wiring, moved)).toEqual([]);
    expect(fold(moved).readings[0]!.entry.points).toEqual(["B12:2"]);
    expect(fold([...moved, { type: "undo", at, target: 4 }]).readings[0]!.entry.points).toEqual(["B7:2"]);
    expect(analyse(predictor, moved).readings[0]!.point).toBe("B12:2");
  });
  test("seen at a connector that is not there, readings that are not", () => {
    expect(checkEntries(w(), [seen({ connector: "Q1" })]).map((i) => i.code)).toEqual(["entry.missing-connector"]);
    expect(checkEntries(w(), [{ type: "moved", at, from: "B7", to: "B9", readings: [7] }]).map((i) => i.code)).toEqual([
      "entry.undo-of-nothing",
    ]);
  });
});

describe("what coded circuits share", () => {
  const coded = ["B7", "B9", "B12"];
  const m = sharedMatrix(tug(), coded);
  test(
    "the shared reference leads, healthy circuits stand against what they pass through, as set intersection " +
      "by hand",
    () => {
      const way = thingsOnTheWay(tug());
      const all = [...way.get("B7")!].filter((t) => coded.every((d) => way.get(d)!.has(t)));
      const listed = m.rows.filter((r) => r.coded.length === 3).flatMap((r) => [r.thing, ...r.same]);
      expect(listed.sort()).toEqual(all.sort());
      const first = m.rows[0]!;
      expect([first.thing, ...first.same]).toContain("S14");
      expect(first.healthy).toEqual([]);
      const ground = m.rows.find((r) => [r.thing, ...r.same].includes("S22"))!;
      expect(ground.healthy).toContain("B4");
      for (const r of m.rows) for (const h of r.healthy) expect(way.get(h)!.has(r.thing)).toBe(true);
    },
  );
  test(
    "smallest sets that cover all: one thing where there is a shared one; by brute force over all pairs " + "elsewhere",
    () => {
      expect(m.covers.every((c) => c.length === 1)).toBe(true);
      const apart = sharedMatrix(tug(), ["B7", "B9", "B12", "B20"]);
      const way = thingsOnTheWay(tug());
      const things = [...new Set(apart.coded.flatMap((d) => [...way.get(d)!]))];
      const hits = (set: readonly string[]) => apart.coded.every((d) => set.some((t) => way.get(d)!.has(t)));
      const least = things.some((t) => hits([t])) ? 1 : things.some((x) => things.some((y) => hits([x, y]))) ? 2 : 3;
      for (const c of apart.covers) {
        expect(c).toHaveLength(least);
        expect(hits(c)).toBe(true);
      }
      expect(apart.covers.length).toBeGreaterThan(0);
    },
  );
  test("which parts a code is about", () => {
    expect(subjectsOf(tug(), "A1", "P0237")).toEqual(["B7"]);
    expect(subjectsOf(tug(), "A1", "P9999")).toEqual([]);
  });
  test("nothing coded: nothing listed", () => {
    expect(sharedMatrix(tug(), []).rows).toEqual([]);
  });
});

describe("following a cavity", () => {
  test("reference from the sensor to the module, with everything else on it", () => {
    const f = followPoint(tug(), "B7:1");
    expect(f.end).toMatch(/^A1:/);
    expect(f.steps[0]!.from).toBe("B7:1");
    expect(f.steps.at(-1)!.to).toBe(f.end);
    f.steps.forEach((s, i) => {
      if (i) expect(s.from).toBe(f.steps[i - 1]!.to);
    });
    expect(f.others).toEqual(expect.arrayContaining(["B9", "B12"]));
  });
  test("the module's own supply back through fuse and switch to the battery", () => {
    const f = followPoint(tug(), "A1:1");
    expect(f.end).toBe("BAT:+");
    expect(f.steps.map((s) => s.thing)).toEqual(expect.arrayContaining(["F12", "K1"]));
  });
  test("ends where copper ends", () => {
    expect(followPoint(tug(), "nowhere:1")).toMatchObject({ steps: [], end: undefined });
  });
});

describe("which wire is which", () => {
  // common practice, no source: a three-wire Hall unplugged, key on, shows supply, a signal pulled up by the module,
  // ground
  test("a Hall sensor's plug", () => {
    expect(
      tellApart(
        [
          { cavity: "1", toNegative: 12.3 },
          { cavity: "2", toNegative: 5.02 },
          { cavity: "3", toNegative: 0.01, toPositive: 12.3 },
        ],
        12.4,
      ).map((t) => [t.cavity, t.function, t.sure]),
    ).toEqual([
      ["1", "supply", true],
      ["2", "signal", true],
      ["3", "ground", true],
    ]);
  });
  test(
    "a three-wire pressure sensor's plug: reference, ground, and a pulled-down signal that shows nothing " +
      "either way",
    () => {
      expect(
        tellApart(
          [
            { cavity: "1", toNegative: 5.0 },
            { cavity: "2", toNegative: 0, toPositive: 12.35 },
            { cavity: "3", toNegative: 0.02, toPositive: 1.1 },
          ],
          12.4,
        ).map((t) => t.function),
      ).toEqual(["reference", "ground", "signal"]);
    },
  );
  test("zero against battery negative alone proves nothing", () => {
    expect(tellApart([{ cavity: "1", toNegative: 0 }], 12.4)[0]).toMatchObject({ function: "unknown", sure: false });
  });
});

describe("intake", () => {
  const w = tug();
  const faults = generateFaults(w);
  const intake = (more: unknown) => circumstances(w, faults, Intake.parse(more));
  const factor = (c: ReturnType<typeof intake>, id: RegExp) =>
    faults.flatMap((f, i) => (id.test(f.id) ? [c.factors[i]!] : []));
  test("nothing told, nothing changed", () => {
    expect([...intake({}).factors].every((f) => f === 1)).toBe(true);
    expect(intake({}).feeds).toEqual([]);
  });
  test("a part already replaced in vain counts less, a copy of it more; other parts are left alone", () => {
    const c = intake({ history: [{ what: "replaced", at: ["B7"], helped: "no", brand: "copy" }] });
    expect(Math.max(...factor(c, /^B7\/(dead|shortSupplyGround)/))).toBeLessThan(1);
    expect(Math.min(...factor(c, /^B7\/wrongPart/))).toBeGreaterThan(1);
    expect(new Set(factor(c, /^B9\//))).toEqual(new Set([1]));
    expect(c.feeds.map((f) => [f.because, f.at, f.on])).toEqual([
      ["replaced", ["B7"], "partItself"],
      ["replacedCopy", ["B7"], "wrongPart"],
    ]);
    for (const f of c.feeds) expect(f.faults).toBeGreaterThan(0);
  });
  test("wet raises corrosion where it is wet more than elsewhere", () => {
    const c = intake({ conditions: ["wet"] });
    expect(factor(c, /^G3\/groundHighResistance/)[0]!).toBeGreaterThan(factor(c, /^B7:1\/contactHighResistance/)[0]!);
  });
  test.each(["cold", "hot", "wet", "bump", "underLoad", "cranking"])(
    "condition %s feeds something and says what",
    (x) => {
      expect(intake({ conditions: [x] }).feeds.length).toBeGreaterThan(0);
    },
  );
  test.each(["comesAndGoes", "deadDisplay", "noStart", "slowStart", "fuseBlows", "wrongValue"])(
    "symptom %s feeds something",
    (x) => {
      expect(intake({ symptoms: [x] }).feeds.length).toBeGreaterThan(0);
    },
  );
  test.each([
    ["workNearby", ["X5"]],
    ["batteryWork", []],
    ["pests", []],
    ["water", ["S22"]],
    ["oil", ["B9"]],
    ["accident", []],
  ])("history: %s", (what, where) => {
    expect(intake({ history: [{ what, at: where }] }).feeds.length).toBeGreaterThan(0);
  });
  test("it reaches the ranking, and the ranking says so", () => {
    const predictor = new Predictor(w);
    const codes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));
    const share = (entries: Entry[]) => {
      const a = analyse(predictor, entries);
      return {
        s: a.suspects.filter((s) => s.members.some((m) => m.fault.place.id === "B9")).reduce((x, y) => x + y.share, 0),
        feeds: a.feeds,
      };
    };
    const before = share(codes);
    const after = share([
      ...codes,
      {
        type: "intake",
        at,
        intake: Intake.parse({ history: [{ what: "replaced", at: ["B9"], helped: "no", brand: "maker" }] }),
      },
    ]);
    expect(after.s).toBeLessThan(before.s);
    expect(after.feeds[0]).toMatchObject({ because: "replaced", at: ["B9"] });
  });
  test("no meter: no reading that needs one is offered", () => {
    const predictor = new Predictor(w);
    const tools = Intake.parse({ tools: ["scanTool"] });
    const kinds = analyse(predictor, [code("P0237"), { type: "intake", at, intake: tools }]).next.map(
      (n) => n.candidate.instrument,
    );
    for (const k of kinds) expect(["none", "scanTool"]).toContain(k);
  });
  test("parts that are not there are refused", () => {
    expect(
      checkEntries(w, [
        { type: "intake", at, intake: Intake.parse({ history: [{ what: "replaced", at: ["B77"] }] }) },
      ]).map((i) => i.code),
    ).toEqual(["entry.missing-thing"]);
  });
});

describe("revisions and other programs", () => {
  test("what changed between two revisions", () => {
    const before = tug();
    const after: Wiring = {
      ...before,
      wires: before.wires.map((x, i) => (i === 0 ? { ...x, colour: "GN" } : x)).slice(0, -1),
      devices: before.devices.map((d) => (d.id === "F12" ? { ...d, rating: 15 } : d) as Wiring["devices"][number]),
    };
    const changes = compareWirings(before, after);
    expect(changes.map((c) => [c.what, c.change])).toEqual([
      ["part", "changed"],
      ["wire", "removed"],
      ["wire", "changed"],
    ]);
    expect(changes[0]!.fields).toEqual([{ field: "rating", before: "10", after: "15" }]);
    expect(compareWirings(before, structuredClone(before))).toEqual([]);
  });
  test(
    "GraphML: well-formed, every point a node, every wire an edge between nodes that are there; hostile " +
      "names stay text",
    () => {
      const w = tug();
      const hostile: Wiring = {
        ...w,
        devices: w.devices.map((d) => (d.id === "B7" ? { ...d, name: "<script>\"&'" } : d)),
      };
      const text = graphml(hostile);
      expect(XMLValidator.validate(text)).toBe(true); // the parser of another program's library judges
      const { graphml: doc } = new XMLParser({
        ignoreAttributes: false,
        attributeNamePrefix: "",
        isArray: (name) => name === "data",
      }).parse(text) as {
        graphml: {
          graph: {
            node: { id: string; data: { key: string; "#text": string }[] }[];
            edge: { source: string; target: string }[];
          };
        };
      };
      const nodes = new Set(doc.graph.node.map((n) => n.id));
      for (const p of meterPoints(w)) expect(nodes.has(p)).toBe(true);
      for (const e of doc.graph.edge) {
        expect(nodes.has(e.source)).toBe(true);
        expect(nodes.has(e.target)).toBe(true);
      }
      expect(doc.graph.edge.length).toBeGreaterThanOrEqual(w.wires.length);
      expect(doc.graph.node.find((n) => n.id === "part B7")!.data.find((d) => d.key === "name")!["#text"]).toBe(
        "<script>\"&'",
      );
    },
  );
  test("a chart of five thousand rows is built in bounded work", () => {
    const made = readWiring(JSON.parse(JSON.stringify(generateHarness({ nodes: 5000, seed: 3 }))));
    if (!made.ok) throw new Error("unreadable");
    const big = chartOf(made.value);
    const built = buildChart(big);
    expect(built.issues).toEqual([]);
    expect(built.wiring.wires).toHaveLength(made.value.wires.length);
  });
});
