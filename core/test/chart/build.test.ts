import fc from "fast-check";
import {
  addTemplate,
  analyse,
  buildChart,
  chartOf,
  chartRow,
  checkWiring,
  compareWirings,
  emptyChart,
  generateHarness,
  parseFunction,
  parseValues,
  partRow,
  Predictor,
  readCsv,
  readTable,
  readWiring,
  TEMPLATES,
  writeCsv,
  writeValues,
  type Chart,
  type ChartRow,
  type Wiring,
} from "../../src/index.js";
import { tug } from "../helpers.js";

const row = (connector: string, cavity: string, colour: string, fn: string, goesTo: string): ChartRow =>
  chartRow({ connector, cavity, colour, function: fn, goesTo });
const chart = (rows: ChartRow[], more: Partial<Chart> = {}): Chart => ({ ...emptyChart("typed"), rows, ...more });
const codes = (c: Chart) => buildChart(c).issues.map((i) => i.code);

/** Six sensors, two splices and one fuse, the way a person types them: no kinds, no module rows but its own feeds. */
const SIX = [
  ...["B1", "B2", "B3", "B4"].flatMap((b, i) => [
    row(b, "1", "OG/WH", "5v", "S1"),
    row("", "2", "BN", "gnd", "S2"),
    row("", "3", "GN", "sig", `A1:${8 + i}`),
  ]),
  ...["B5", "B6"].flatMap((b, i) => [row(b, "1", "BU", "sig", `A1 ${12 + i}`), row("", "2", "BN", "gnd", "S2")]),
  row("S1", "", "OG", "", "A1:17"),
  row("S2", "", "BN", "", "A1:18"),
  row("A1", "18", "", "sensor ground", ""),
  row("A1", "1", "RD", "supply", "F1"),
  row("", "2", "BK", "ground", "G1"),
  row("F1", "in", "RD", "10 A", "battery"),
  row("BAT", "-", "BK", "", "G1"),
];

test("a typed chart makes a wiring: kinds, module pins and terminals are found, and marked as guesses", () => {
  const built = buildChart(chart(SIX));
  expect(built.issues).toEqual([]);
  const kinds = new Map(built.wiring.devices.map((d) => [d.id, d.kind]));
  expect(kinds.get("B1")).toBe("threeWireSensor");
  expect(kinds.get("B5")).toBe("thermistor");
  expect(kinds.get("A1")).toBe("module");
  expect([kinds.get("S1"), kinds.get("F1"), kinds.get("G1"), kinds.get("BAT")]).toEqual([
    "splice",
    "fuse",
    "ground",
    "battery",
  ]);
  const module = built.wiring.devices.find((d) => d.id === "A1");
  const role = (at: string) => (module?.kind === "module" ? module.pins.find((p) => p.at === at) : undefined);
  expect(role("A1:17")?.role).toBe("reference");
  expect(role("A1:18")?.role).toBe("sensorGround");
  expect(role("A1:12")).toMatchObject({ role: "input", pull: "up" });
  expect(built.wiring.devices.find((d) => d.id === "F1")).toMatchObject({ rating: 10 });
  expect(built.wiring.guesses).toEqual(expect.arrayContaining(["A1", "B1", "A1:17", "A1:8"]));
  expect(built.wiring.guesses).not.toContain("A1:18");
});

test("the typed chart gives first suspects: what all coded sensors share leads", () => {
  const { wiring: typed } = buildChart(
    chart(SIX, {
      codes: ["B1", "B2", "B3", "B4"].map((b, i) => ({ id: `P${i}`, module: "A1", about: b, family: "low" as const })),
    }),
  );
  const analysis = analyse(
    new Predictor(typed),
    ["P0", "P1", "P2", "P3"].map((code) => ({
      type: "code" as const,
      at: "2026-11-25T08:00:00Z",
      module: "A1",
      code,
      status: "active" as const,
    })),
  );
  const leading = analysis.suspects
    .slice(0, 3)
    .flatMap((s) => s.members.map((m) => `${m.fault.place.id} ${m.fault.at ?? ""}`));
  expect(leading.some((l) => /S1|A1:17/.test(l))).toBe(true);
});

test.each(["tug", ...Array.from({ length: 10 }, (_, i) => `made ${i + 1}`)])(
  "chart and back gives the same wiring: %s",
  (name) => {
    const made =
      name === "tug"
        ? tug()
        : read(
            generateHarness({
              nodes: 60 + 45 * Number(name.slice(5)),
              seed: Number(name.slice(5)),
              nominalVolt: Number(name.slice(5)) % 2 ? 24 : 12,
            }),
          );
    const built = buildChart(chartOf(made));
    expect(built.issues).toEqual([]);
    expect(canonical(built.wiring)).toEqual(canonical(made));
    expect(compareWirings(made, built.wiring).filter((c) => c.change !== "changed")).toEqual([]);
  },
);

test("what parts need after a repair stays through a chart; without its part it is left out", () => {
  const idle = { id: "idle", what: "Teach the idle position", on: ["B7"], after: "anyRepair" as const };
  const read = readWiring({ ...tug(), resets: [idle] });
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const chart = chartOf(read.value);
  expect(buildChart(chart).wiring.resets).toEqual([idle]);
  const lost = buildChart({ ...chart, resets: [{ ...idle, on: ["B99"] }] });
  expect([lost.wiring.resets, lost.issues.map((i) => i.path)]).toEqual([[], [["wiring", "resets", 0, "on", 0]]]);
  expect(writeCsv(chart).issues[0]!.params["fields"]).toContain("resets");
  expect(checkWiring({ ...tug(), resets: [idle, idle] }).map((i) => i.code)).toEqual(["wiring.duplicate-id"]);
});

test.each([1, 2, 3])(
  "through CSV nothing a table can hold is lost, and what it cannot hold is said: made %s",
  (seed) => {
    const made = read(generateHarness({ nodes: 140, seed }));
    const { text, issues } = writeCsv(chartOf(made));
    expect(issues.map((i) => i.params)).toEqual([{ fields: ["codes"] }]);
    const back = readCsv(text);
    if (!back.ok) throw new Error(JSON.stringify(back.issues));
    expect(back.value.issues).toEqual([]);
    expect(canonical({ ...buildChart(back.value.chart).wiring, codes: made.codes })).toEqual(canonical(made));
  },
);

test("any text in any cell: a wiring that can be solved comes out, nothing throws, every loss has its row", () => {
  const cell = fc.oneof(
    fc.constantFrom(
      "",
      "B1",
      "A1:8",
      "S1",
      "X5:4.a",
      "=1+1",
      "18 AWG",
      "sig",
      "<svg onload=x>",
      "F1:out",
      "B1:1, B2:1",
      "battery",
      "ground",
      "\u0000",
      "💥",
      "GR",
    ),
    fc.string({ maxLength: 30 }),
  );
  const anyRow = fc
    .record({
      connector: cell,
      cavity: cell,
      colour: cell,
      mm2: cell,
      function: cell,
      goesTo: cell,
      source: cell,
      zones: cell,
      values: cell,
    })
    .map((c) => chartRow(c));
  fc.assert(
    fc.property(fc.array(anyRow, { maxLength: 14 }), (rows) => {
      const built = buildChart(chart(rows));
      expect(checkWiring(built.wiring)).toEqual([]);
      expect(readWiring(JSON.parse(JSON.stringify(built.wiring))).ok).toBe(true);
    }),
    { numRuns: 400, seed: 4 },
  );
});

test("a wire listed at both ends is one wire; where the two lines differ the second is kept as a claim", () => {
  const built = buildChart(
    chart([
      row("B1", "1", "OG/WH", "5v", "A1:17"),
      { ...row("A1", "17", "orange/blue", "reference", "B1:1"), source: "chart B" },
      row("B1", "2", "BN", "sensor ground", "A1:18"),
      row("A1", "18", "brown", "", "B1.2"),
      row("B1", "3", "GN", "sig", "A1:8"),
    ]),
  );
  expect(built.wiring.wires).toHaveLength(3);
  expect(built.wiring.claims).toEqual([{ at: "A1:17", field: "colour", value: "orange/blue", source: "chart B" }]);
  expect(built.issues.map((i) => [i.code, i.path[1]])).toEqual([["chart.two-values", 1]]);
});

test("two wires in one cavity: a splice the drawing does not show is assumed and said", () => {
  const built = buildChart(chart([row("B1", "1", "", "5v", "A1:17"), row("B2", "1", "", "5v", "A1:17")]));
  expect(built.issues.map((i) => i.code)).toContain("chart.splice-assumed");
  expect(built.wiring.wires).toHaveLength(3);
  expect(checkWiring(built.wiring)).toEqual([]);
});

test("an in-line connector named without sides joins the wire that arrives to the one that runs on", () => {
  const built = buildChart(
    chart([
      row("B1", "3", "GN", "sig", "X5:4"),
      row("X5", "4", "GN", "", "A1:8"),
      row("B1", "1", "OG", "5v", "A1:17"),
      row("B1", "2", "BN", "sensor ground", "A1:18"),
    ]),
  );
  expect(built.issues).toEqual([]);
  expect(built.wiring.wires.map((w) => `${w.from} ${w.to}`)).toEqual(
    expect.arrayContaining(["B1:3 X5:4.a", "X5:4.b A1:8"]),
  );
});

test("merged cells, empty lines, spellings in small letters", () => {
  const built = buildChart(
    chart([
      row("b1", "1", "", "5v", "s1"),
      row("", "", "", "", ""),
      row("", "2", "", "gnd", "S2"),
      row("", "3", "", "sig", "a1:8"),
      row("S1", "", "", "", "A1:17"),
      row("S2", "", "", "", "A1:18"),
    ]),
  );
  expect(built.issues).toEqual([]);
  expect(built.wiring.connectors.map((c) => c.id)).toEqual(["b1", "a1"]);
  expect(built.wiring.devices.map((d) => d.kind).sort()).toEqual(["module", "splice", "splice", "threeWireSensor"]);
});

test.each([
  ["duplicate cavity", [row("B1", "1", "", "5v", "S1"), row("B1", "1", "", "5v", "S1")], "chart.said-twice"],
  ["colour that does not exist", [row("B1", "1", "QQ", "5v", "S1")], "chart.unknown-colour"],
  ["letters that mean two colours", [row("B1", "1", "GR", "5v", "S1")], "chart.ambiguous-colour"],
  [
    "not a cross-section",
    [chartRow({ connector: "B1", cavity: "1", mm2: "thick", goesTo: "S1" })],
    "chart.not-a-section",
  ],
  ["no connector at all", [row("", "1", "", "5v", "S1")], "chart.no-connector"],
  ["connector without cavity", [row("B1", "1", "", "", "S1"), row("", "", "", "sig", "S1")], "chart.needs-cavity"],
  ["goes to nowhere", [row("B1", "1", "", "5v", "S1 over there")], "chart.bad-goes-to"],
  ["to itself", [row("B1", "1", "", "5v", "B1:1")], "chart.to-itself"],
  ["unknown function", [row("B1", "1", "", "frobnication", "S1")], "chart.unknown-function"],
])("said, row by row: %s", (_name, rows, code) => {
  expect(codes(chart(rows))).toContain(code);
});

test("unknown kind, values that do not fit, parts nobody wires", () => {
  const built = buildChart(
    chart(SIX, {
      parts: [
        partRow({ id: "B1", kind: "warp coil" }),
        partRow({ id: "F1", kind: "fuse", values: "rating=lots" }),
        partRow({ id: "B99", kind: "hall" }),
      ],
    }),
  );
  expect(built.issues.map((i) => i.code)).toEqual(
    expect.arrayContaining(["chart.unknown-kind", "chart.values-do-not-fit", "chart.part-without-rows"]),
  );
  expect(built.wiring.devices.find((d) => d.id === "F1")?.kind).toBe("fuse");
});

test.each(TEMPLATES)("add a %s: rows that are taken as they are", (kind) => {
  let c = emptyChart("t");
  for (let i = 0; i < 2; i++) {
    const made = addTemplate(c, kind);
    c = {
      ...c,
      rows: [...c.rows, ...made.rows],
      parts: made.part ? [...c.parts, made.part] : c.parts,
      connectors: made.connector ? [...c.connectors, made.connector] : c.connectors,
    };
  }
  const built = buildChart(c);
  expect(built.issues.filter((i) => i.code !== "chart.kind-unknown")).toEqual([]);
  const expected = kind === "inline" ? 0 : 2;
  expect(built.wiring.devices.filter((d) => d.kind === (kind === "busNode" ? "module" : kind))).toHaveLength(expected);
});

// common practice, no source
test.each([
  ["5V", "reference"],
  ["VREF", "reference"],
  ["Sensor GND", "sensorGround"],
  ["gnd", "ground"],
  ["31", "ground"],
  ["SIG", "signal"],
  ["signal 2", "signal2"],
  ["+12V", "supply"],
  ["ignition feed", "supply"],
  ["CAN-H", "busHigh"],
  ["can low", "busLow"],
  ["LIN", "busLine"],
  ["low side driver", "lowSide"],
  ["86", "coilHigh"],
  ["87", "working"],
  ["sensor return", "sensorGround"],
  ["xyzzy", undefined],
])("function words: %s", (text, f) => {
  expect(parseFunction(text)).toBe(f);
});

test("values: numbers with k and M, ranges, lists, quoted text; back again", () => {
  expect(
    parseValues('ohm25=2k5 restCelsius=-10..90 closedIn=on+running name="Reference 1" pull=up ok=true').values,
  ).toEqual({
    ohm25: 2500,
    restCelsius: [-10, 90],
    closedIn: ["on", "running"],
    name: "Reference 1",
    pull: "up",
    ok: true,
  });
  expect(parseValues("what is this").wrong).toEqual(["what", "is", "this"]);
  fc.assert(
    fc.property(
      fc.dictionary(
        fc.stringMatching(/^[a-z][A-Za-z0-9]{0,8}$/),
        fc.oneof(
          fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 }).map((x) => Number(x.toPrecision(6))),
          fc.string({ minLength: 1, maxLength: 12 }),
          fc.boolean(),
        ),
        { maxKeys: 4 },
      ),
      (values) => {
        const same = Object.fromEntries(
          Object.entries(values).filter(([k]) => k !== "closedIn" && k !== "activeIn" && k !== "__proto__"),
        );
        expect(parseValues(writeValues(same)).values).toEqual(same);
      },
    ),
    { seed: 7 },
  );
});

function read(value: unknown): Wiring {
  const r = readWiring(JSON.parse(JSON.stringify(value)));
  if (!r.ok) throw new Error(JSON.stringify(r.issues.slice(0, 3)));
  return r.value;
}
/**
 * The same document whatever the order of its lists and keys: the order of wires and pins carries no meaning but
 * neighbourhood in big bundles.
 */
function canonical(w: Wiring): unknown {
  const sorted = (v: unknown): unknown =>
    Array.isArray(v)
      ? v.map(sorted)
      : v && typeof v === "object"
        ? Object.fromEntries(
            Object.entries(v)
              .filter(([, x]) => x !== undefined)
              .sort(([a], [b]) => (a < b ? -1 : 1))
              .map(([k, x]) => [k, sorted(x)]),
          )
        : v;
  const byText = (list: readonly unknown[]) => list.map((x) => JSON.stringify(sorted(x))).sort();
  return sorted({
    ...w,
    guesses: undefined,
    connectors: byText(w.connectors),
    wires: byText(w.wires),
    devices: byText(
      w.devices.map((d) =>
        d.kind === "module" ? { ...d, pins: [...d.pins].sort((a, b) => (a.at < b.at ? -1 : 1)) } : d,
      ),
    ),
  });
}

test("bytes of another kind of file are refused as such, not line by line", () => {
  const bytes = Array.from({ length: 5000 }, (_, i) => String.fromCharCode((i * 7919) % 256)).join("");
  const read = readTable(bytes);
  expect(!read.ok && read.issues.map((i) => i.code)).toEqual(["table.not-text"]);
  expect(readTable("connector,cavity\nB1,1\u0001\n".repeat(20)).ok).toBe(false);
  expect(
    readTable("connector,cavity,colour\nB1,1,bl\ufffdu and much more text so that one odd letter is no reason\n").ok,
  ).toBe(true);
});
