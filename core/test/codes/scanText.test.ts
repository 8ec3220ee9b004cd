import {
  analyse,
  compareScans,
  fold,
  genericCodes,
  genericTitle,
  Predictor,
  readScan,
  withScannedCodes,
  type Entry,
  type ScanEntry,
} from "../../src/index.js";
import { tug, wiring } from "../helpers.js";

const two = () =>
  wiring({
    connectors: [
      { id: "B7", cavities: ["1", "2", "3"] },
      { id: "A1", cavities: ["1", "2", "3", "4"] },
      { id: "A2", cavities: ["1"] },
    ],
    devices: [
      {
        kind: "threeWireSensor",
        id: "B7",
        name: "boost sensor",
        pins: { supply: "B7:1", ground: "B7:2", signal: "B7:3" },
      },
      {
        kind: "module",
        id: "A1",
        name: "engine module",
        pins: [
          { role: "reference", at: "A1:1" },
          { role: "sensorGround", at: "A1:2" },
          { role: "input", at: "A1:3", pull: "down" },
        ],
      },
      { kind: "module", id: "A2", name: "hoist module", pins: [{ role: "ground", at: "A2:1" }] },
    ],
    wires: [
      { from: "B7:1", to: "A1:1" },
      { from: "B7:2", to: "A1:2" },
      { from: "B7:3", to: "A1:3" },
    ],
    codes: [{ id: "E-204", module: "A2", title: "Spreader lost" }],
  });
const short = (text: string, module?: string) => {
  const r = readScan(text, two(), module);
  return {
    codes: r.codes.map((c) => [c.module, c.code, c.status, c.about ?? "", c.failureType ?? ""].join(" ").trim()),
    issues: r.issues.map((i) => i.code),
    modules: r.modules,
  };
};

test("lines in any layout: module as heading, status words, a part named, the failure type, a shop's own code", () => {
  expect(
    short(
      "Engine module\n P0237 Boost low - ACTIVE (B7)\n P0522-16 pending\nA2:\n E-204 stored 3 times\nno trouble here\n",
    ).codes,
  ).toEqual(["A1 P0237 active B7", "A1 P0522 pending  16", "A2 E-204 stored"]);
});
test("several codes in one line are all taken, however they are parted; a line with words holds one", () => {
  const codesOf = (text: string) => readScan(text, two(), "A1").codes.map((c) => c.code);
  for (const text of ["P0237 P0522 P0642", "P0237, P0522; P0642", "p0237|P0522\tP0642", "P0237 P0522\nP0642 P0237"])
    expect(codesOf(text)).toEqual(["P0237", "P0522", "P0642"]);
  expect(codesOf("P0237 boost low, see also P0522")).toEqual(["P0237"]);
  // lines that come after keep their numbers
  const { issues } = readScan("P0237 P0522\nhello there", two(), "A1");
  expect(issues).toMatchObject([{ code: "scan.no-code", path: ["lines", 1] }]);
});

test("a line that says nothing is listed with its number, nothing else is lost", () => {
  const r = readScan("P0237\nhello there\n\nP0522", two(), "A1");
  expect(r.codes.map((c) => c.code)).toEqual(["P0237", "P0522"]);
  expect(r.issues).toEqual([{ code: "scan.no-code", path: ["lines", 1], params: { text: "hello there" } }]);
});
test("where two modules could be meant and none is named, it is asked", () => {
  expect(short("P0237").issues).toEqual(["scan.no-module"]);
});
test.each([
  [
    "CSV with a head",
    'Module,DTC,Status,Description,Time\nA1,P0237,stored,Boost low,12 h\nA2,U0100,active,"Lost, no reply",\n',
    ["A1 P0237 stored", "A2 U0100 active"],
  ],
  ["semicolons", "code;module;status\nP0237;A1;pending\n", ["A1 P0237 pending"]],
  ["tabs", "DTC\tModule\tState\nP0237\tA1\tnot run\n", ["A1 P0237 notRun"]],
])("%s", (_n, text, codes) => {
  expect(short(text).codes).toEqual(codes);
});
// SAE J1979, ISO 14229-1, SAE J1939-73 (values from memory)
test.each([
  ["stored, service 43", "A1: 43 02 01 33 02 37", ["A1 P0133 stored", "A1 P0237 stored"]],
  ["pending, service 47", "A1> 47 01 05 22", ["A1 P0522 pending"]],
  ["permanent, service 4A", "A1: 4A 01 05 22", ["A1 P0522 stored"]],
  ["59 02 with status and failure type", "A1: 59 02 FF 02 37 16 09", ["A1 P0237 active  16"]],
  ["DM1", "A1: DM1 04 FF 6E 00 03 01", ["A1 SPN 110 FMI 3 active"]],
  ["SPN and FMI in words", "A1 SPN 110 FMI 3 active", ["A1 SPN 110 FMI 3 active"]],
  ["SPN and FMI in short", "A1\n110/3\n", ["A1 SPN 110 FMI 3 active"]],
])("hex and heavy machines: %s", (_n, text, codes) => {
  expect(short(text).codes).toEqual(codes);
});
test("a reply that stops in the middle is said", () => {
  expect(short("A1: 59 02 FF 02 37").issues).toEqual(["reply.cut-short"]);
});
test("huge and hostile texts end quickly", () => {
  expect(readScan("P0237\n".repeat(50_000), two(), "A1").codes).toHaveLength(1);
  expect(readScan("x".repeat(500_000), two(), "A1").codes).toHaveLength(0);
  expect(readScan('<script>alert(1)</script>,"""\u0000;;;=1+1', two(), "A1").codes).toHaveLength(0);
});

test("generic texts (SAE J2012, values from memory): a run of five, single ones, none for a maker's own", () => {
  expect(genericTitle("P0237")).toBe("Turbocharger boost A circuit low");
  expect(genericTitle("P0118-1B")).toBe("Engine coolant temperature circuit high");
  expect(genericTitle("U0100")).toMatch(/Lost communication/);
  expect(genericTitle("P1A41")).toBeUndefined();
  expect(genericCodes().length).toBeGreaterThan(150);
});

const at = "2026-11-25T08:00:00Z";
const scan = (when: ScanEntry["when"], codes: string[], more: Partial<ScanEntry> = {}): ScanEntry => ({
  type: "scan",
  at,
  when,
  modules: ["A1"],
  disturbed: [],
  wiped: false,
  codes: codes.map((code) => ({ module: "A1", code, status: "active" })),
  ...more,
});

test("scans side by side: what came back, what stayed away, what is new", () => {
  const rows = compareScans([
    scan("before", ["P0237", "P0522"]),
    scan("afterClear", ["P0237"]),
    scan("afterDrive", ["P0237", "P0118"]),
  ]);
  expect(rows.map((r) => [r.code, r.story, r.cells.join(" ")])).toEqual([
    ["P0237", "always", "active active active"],
    ["P0522", "stayedAway", "active notGiven notGiven"],
    ["P0118", "new", "notGiven notGiven active"],
  ]);
});
test("a code that does not come back stays as intermittent; after a dead battery its absence says nothing", () => {
  const later = fold([scan("before", ["P0237", "P0522"]), { type: "cleared", at }, scan("afterClear", ["P0237"])]);
  expect(later.codes.map((c) => [c.entry.code, c.entry.status, c.goneIn])).toEqual(
    [
      ["P0522", "intermittent", 3],
      ["P0237", "active", undefined],
    ].sort(),
  );
  const wiped = fold([scan("before", ["P0237"]), scan("other", [], { wiped: true })]);
  expect(wiped.codes.map((c) => c.entry.status)).toEqual(["active"]);
  expect(fold([scan("before", [], { wiped: true })]).scanned.size).toBe(0);
});
test(
  "what was disturbed since the last clear is kept beside the scan; clearing empties the list but for what " +
    "is still unplugged",
  () => {
    const unplug: Entry = { type: "unplugged", at, connector: "B7" };
    const plug: Entry = { type: "plugged", at, connector: "B7" };
    expect(fold([unplug, plug, scan("other", ["P0237"])]).codes[0]!.disturbedThen).toEqual(["B7"]);
    expect(
      fold([unplug, plug, { type: "cleared", at }, scan("afterClear", ["P0237"])]).codes[0]!.disturbedThen,
    ).toEqual([]);
    expect(fold([unplug, { type: "cleared", at }, scan("afterClear", ["P0237"])]).codes[0]!.disturbedThen).toEqual([
      "B7",
    ]);
  },
);
test("a code we set ourselves, by plug or by fuse, is no evidence", () => {
  const w = tug();
  const predictor = new Predictor(w);
  const boost = scan("other", ["P0237"], { disturbed: ["B7"] });
  const own = analyse(predictor, [boost]);
  expect(own.remarks.map((r) => r.code)).toContain("remark.code-set-by-us");
  expect(analyse(predictor, [scan("other", ["P0237"])]).remarks.map((r) => r.code)).not.toContain(
    "remark.code-set-by-us",
  );
  const speed = w.codes.find((c) => c.monitor?.type === "noActivity")!;
  const crank = scan("afterCrank", [speed.id], { disturbed: ["F12"] });
  // a pulled fuse puts the module to sleep: it judges nothing, so the code is not ours
  expect(analyse(predictor, [crank]).remarks.map((r) => r.code)).not.toContain("remark.not-in-this-wiring");
});
test("after a scan with cranking, codes that only cranking can set are evidence by staying away", () => {
  const predictor = new Predictor(tug());
  const crankCode = predictor.monitors.find((m) => m.key === "cranking")!.code.id;
  const counts = (when: ScanEntry["when"]) =>
    analyse(predictor, [scan(when, ["P0237"])]).suspects[0]!.reasons.some((r) => r.about === crankCode);
  expect(counts("before")).toBe(false);
  expect(counts("afterCrank")).toBe(true);
});
test("a scanned code the wiring does not list weighs by its family once the scan says what it names", () => {
  const w = two();
  const entry: ScanEntry = {
    ...scan("before", []),
    codes: [{ module: "A1", code: "P0237", status: "active", about: "B7" }],
  };
  const added = withScannedCodes(w, [entry]);
  expect(added.codes.at(-1)).toEqual({
    id: "P0237",
    module: "A1",
    title: "Turbocharger boost A circuit low",
    about: "B7",
  });
  expect(withScannedCodes(w, [scan("before", [])])).toBe(w);
  const analysis = analyse(new Predictor(added), [entry]);
  expect(analysis.stage).not.toBe("waiting");
  expect(analysis.suspects[0]!.type).toBe("fault");
});

test("lines of nothing but separators are blank lines", () => {
  expect(readScan("P0522\n;;;\n--- | ---\n", tug())).toMatchObject({ codes: [{ code: "P0522" }], issues: [] });
});
