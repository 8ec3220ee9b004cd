import fc from "fast-check";
import {
  analyse,
  jsonSchema,
  MAX_CHARACTERS,
  parseCase,
  parseWiring,
  Predictor,
  readCase,
  readWiring,
  type Entry,
} from "../../src/index.js";
import { ROOT } from "../helpers.js";
import { issueText, placeOf, wordedCodes } from "../../words/index.js";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { demoText, tug } from "../helpers.js";

const minimal = {
  format: "radicula/wiring",
  version: 1,
  name: "m",
  nominalVolt: 12,
  connectors: [
    { id: "B1", cavities: ["1", "2"] },
    { id: "A1", cavities: ["1", "2"] },
  ],
  devices: [{ kind: "splice", id: "S1" }],
  wires: [{ from: "B1:1", to: "A1:1" }],
};
const issuesOf = (value: unknown) => {
  const r = readWiring(value);
  return r.ok ? [] : r.issues.map((i) => `${placeOf(i)} ${i.code}`);
};
const change = (f: (doc: typeof minimal & Record<string, never>) => void) => {
  const doc = structuredClone(minimal);
  f(doc as never);
  return doc;
};

test("the demo documents and a bare pin chart read", () => {
  expect(tug().wires.length).toBeGreaterThan(20);
  expect(issuesOf(minimal)).toEqual([]);
  for (const file of ["tug-4-reference.case.json", "tug-4-ground.case.json"])
    expect(parseCase(demoText(file)).ok).toBe(true);
});

describe("bad documents: a list of issues with places", () => {
  test.each<[string, unknown, string]>([
    [
      "a missing connector",
      change((d) => {
        d.wires[0]!.to = "Z9:1";
      }),
      "wires[0].to wiring.missing-connector",
    ],
    [
      "a missing cavity",
      change((d) => {
        d.wires[0]!.to = "A1:7";
      }),
      "wires[0].to wiring.missing-cavity",
    ],
    [
      "a cavity wired twice",
      change((d) => {
        d.wires.push({ from: "B1:1", to: "S1" });
      }),
      "wires[1].from wiring.cavity-wired-twice",
    ],
    [
      "a negative length",
      change((d) => {
        (d.wires[0] as Record<string, unknown>)["lengthM"] = -1;
      }),
      "wires[0].lengthM schema.too-small",
    ],
    [
      "an unknown kind",
      change((d) => {
        d.devices[0]!.kind = "warp";
      }),
      "devices[0].kind schema.unknown-kind",
    ],
    ["a wrong version", { ...minimal, version: 2 }, "version file.wrong-version"],
    ["a wrong format", { ...minimal, format: "radicula/map" }, "format file.wrong-format"],
    ["an unknown field", { ...minimal, colour: "red" }, "colour schema.unknown-field"],
    [
      "a doubled name",
      change((d) => {
        d.connectors.push({ id: "B1", cavities: ["1"] });
      }),
      "connectors[2].id wiring.duplicate-id",
    ],
    [
      "a splice named like a connector",
      change((d) => {
        d.devices[0]!.id = "B1";
      }),
      "devices[0].id wiring.duplicate-id",
    ],
    [
      "a wire to itself",
      change((d) => {
        d.wires[0]!.to = "B1:1";
      }),
      "wires[0] wiring.wire-to-itself",
    ],
    [
      "a code of no module",
      { ...minimal, codes: [{ id: "X1", module: "A9" }] },
      "codes[0].module wiring.missing-module",
    ],
    [
      "a number as text",
      change((d) => {
        (d.wires[0] as Record<string, unknown>)["mm2"] = "0.5";
      }),
      "wires[0].mm2 schema.invalid-type",
    ],
    ["no object at all", [1, 2], " file.not-an-object"],
    ["null", null, " file.not-an-object"],
  ])("%s", (_name, doc, expected) => expect(issuesOf(doc)).toContain(expected));

  test("every issue is worded, and names no code", () => {
    for (const [, doc] of [
      ["", { ...minimal, version: 7 }],
      [
        "",
        change((d) => {
          d.wires[0]!.to = "Z9:1";
        }),
      ],
    ] as const) {
      const read = readWiring(doc);
      if (read.ok) throw new Error("should not read");
      for (const i of read.issues) expect(issueText(i)).not.toContain(i.code);
    }
    expect(wordedCodes.length).toBeGreaterThan(30);
  });
});

describe("bad files", () => {
  const only = (text: string) => {
    const r = parseWiring(text);
    return r.ok ? "read" : r.issues[0]?.code;
  };
  test("empty, half, no JSON, too large", () => {
    expect(only("  \n")).toBe("file.empty");
    const whole = demoText("tug-4.wiring.json");
    for (const share of [0.2, 0.5, 0.9])
      expect(only(whole.slice(0, Math.floor(whole.length * share)))).toBe("file.cut-short");
    expect(only("format: radicula")).toBe("file.not-json");
    expect(only(`"${"x".repeat(MAX_CHARACTERS)}"`)).toBe("file.too-large");
  });
  test("half a file says where it stops", () => {
    const r = parseWiring('{\n "format": "radicula/wiring",\n "vers');
    expect(r.ok ? {} : r.issues[0]?.params).toMatchObject({ line: 3 });
  });
  test("whatever JSON is thrown at it, it answers with issues and never throws (fast-check)", () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(readWiring(value).ok).toBe(false);
      }),
      { numRuns: 300, seed: 3 },
    );
    fc.assert(
      fc.property(
        fc.constantFrom("connectors", "devices", "wires", "codes", "name", "nominalVolt"),
        fc.jsonValue(),
        (key, value) => {
          readWiring({ ...minimal, [key]: value });
        },
      ),
      { numRuns: 500, seed: 5 },
    );
  });
});

test("the published JSON Schema names the required parts and every kind", () => {
  const schema = JSON.stringify(jsonSchema("wiring"));
  for (const word of [
    "threeWireSensor",
    "potentiometer",
    "thermistor",
    "hall",
    "fuse",
    "splice",
    "ground",
    "noActivity",
    "sensorGround",
  ])
    expect(schema).toContain(word);
  expect(jsonSchema("case")["required"]).toEqual(expect.arrayContaining(["format", "version", "title", "wiring"]));
});

test("logbook entries are held against the wiring", () => {
  const doc = JSON.parse(demoText("tug-4-reference.case.json")) as { entries: unknown[] };
  const at = "2026-11-24T10:00:00Z";
  const add = (entry: unknown) => {
    const r = parseCase(JSON.stringify({ ...doc, entries: [...doc.entries, entry] }));
    return r.ok ? "read" : r.issues.map((i) => `${placeOf(i)} ${i.code}`).join();
  };
  const reading = {
    type: "reading",
    at,
    instrument: "voltmeter",
    points: ["B7:1"],
    values: [0.7],
    state: { key: "on" },
  };
  expect(add(reading)).toBe("read");
  expect(add({ ...reading, points: ["B77:1"] })).toBe("entries[4].points[0] wiring.missing-connector");
  expect(add({ ...reading, values: [12000] })).toBe("entries[4].values[0] entry.absurd");
  expect(add({ ...reading, values: ["OL"] })).toBe("entries[4].values[0] entry.overload-not-ohms");
  expect(add({ ...reading, values: [1, 2] })).toContain("entries[4].values");
  expect(add({ type: "undo", at, target: 9 })).toBe("entries[4].target entry.undo-of-nothing");
  expect(add({ type: "unplugged", at, connector: "Q1" })).toBe("entries[4].connector entry.missing-connector");
});

test("the example in the documentation reads, solves and finds what its two sensors share", () => {
  const page = readFileSync(join(ROOT, "docs", "formats.md"), "utf8");
  const read = parseWiring(/```json\n([\s\S]*?)```/.exec(page)![1]!);
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const entry = (code: string): Entry => ({
    type: "code",
    at: "2026-11-24T10:00:00Z",
    module: "A1",
    code,
    status: "active",
  });
  const a = analyse(new Predictor(read.value), [entry("P1"), entry("P2")]);
  expect(a.suspects[0]).toMatchObject({ type: "fault", explains: 2, outOf: 2 });
  expect(a.next.length).toBeGreaterThan(0);
});

test("a state that names what the wiring does not have is refused, each with its place", () => {
  const entry = (state: object) => ({
    type: "reading",
    at: "2026-11-25T09:00:00Z",
    instrument: "voltmeter",
    points: ["B7:1"],
    values: [5],
    state: { key: "on", unplugged: [], ...state },
  });
  const read = (state: object) =>
    readCase({
      format: "radicula/case",
      version: 1,
      title: "t",
      wiring: JSON.parse(demoText("tug-4.wiring.json")) as unknown,
      entries: [entry(state)],
    });
  const why = (state: object) => {
    const r = read(state);
    return r.ok ? [] : r.issues.map((i) => i.path.slice(2).join("."));
  };
  expect(
    why({
      jumpers: [{ from: "B7:1", to: "B7:3", ohm: 1000 }],
      loads: [{ from: "F12:out", watt: 5 }],
      pulled: ["F12"],
      asleep: ["A1"],
      stimulus: { B7: 0.4 },
    }),
  ).toEqual([]);
  expect(why({ jumpers: [{ from: "B7:1", to: "Z7:3" }] })).toEqual(["state.jumpers.0.to"]);
  expect(why({ loads: [{ from: "nowhere", watt: 5 }] })).toEqual(["state.loads.0.from"]);
  expect(why({ pulled: ["B7"], breakers: ["F99"] })).toEqual(["state.pulled.0", "state.breakers.0"]);
  expect(why({ asleep: ["F12"], stimulus: { nobody: 1 } })).toEqual(["state.asleep.0", "state.stimulus.nobody"]);
  for (const bad of [
    { loads: [{ from: "F12:out", watt: -5 }] },
    { jumpers: [{ from: "B7:1", to: "B7:3", ohm: 0 }] },
    { stimulus: { B7: "half" } },
    { weather: "wet" },
  ])
    expect(read(bad).ok).toBe(false);
});
