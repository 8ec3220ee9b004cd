import { run } from "../../cli/main.js";
import { Refusal, type Io } from "../../cli/io.js";
import { parseCase, parseWiring } from "../../src/index.js";
import { demoText } from "../helpers.js";

/** Runs a command with files from memory. */
function cli(argv: readonly string[], files: Readonly<Record<string, string>> = {}) {
  let out = "";
  let err = "";
  let bytes: Promise<Uint8Array> | undefined;
  const io: Io = {
    bytes: (content) => {
      bytes = content;
    },
    out: (t) => {
      out += t;
    },
    err: (t) => {
      err += t;
    },
    read: (f) => {
      const text = files[f];
      if (text === undefined) throw new Refusal(66, [`${f}: cannot be read`]);
      return text;
    },
    readBytes: (f) => new TextEncoder().encode(io.read(f)),
  };
  return { exit: run(argv, io), out, err, bytes };
}
const files = { "w.json": demoText("tug-4.wiring.json"), "c.json": demoText("tug-4-reference.case.json") };

test("no command, help, unknown command, unknown option, no file", () => {
  expect(cli([])).toMatchObject({ exit: 2 });
  expect(cli(["--help"])).toMatchObject({ exit: 0, err: "" });
  expect(cli(["fly", "x"]).err).toContain('no command "fly"');
  expect(cli(["analyse", "c.json", "--fast"], files)).toMatchObject({ exit: 2 });
  expect(cli(["analyse"])).toMatchObject({ exit: 2 });
  expect(cli(["analyse", "none.json"])).toMatchObject({ exit: 66 });
});

test("analyse --json is one JSON document with suspects, reasons and next readings", () => {
  const { exit, out, err } = cli(["analyse", "c.json", "--json"], files);
  expect([exit, err]).toEqual([0, ""]);
  const a = JSON.parse(out) as {
    stage: string;
    suspects: { share: number; reasons: unknown[]; type: string }[];
    next: { points: string[]; answers: { share: number }[][] }[];
  };
  expect(a.stage).toBe("splitting");
  expect(a.suspects.length).toBeGreaterThan(3);
  expect(a.suspects[0]!.reasons.length).toBeGreaterThan(3);
  for (let i = 1; i < a.suspects.length; i++)
    expect(a.suspects[i]!.share).toBeLessThanOrEqual(a.suspects[i - 1]!.share);
  for (const n of a.next) expect(n.answers.flat().reduce((s, x) => s + x.share, 0)).toBeGreaterThan(0.8);
});

test("analyse in words names the suspects and the next reading, cautions before it", () => {
  const { out } = cli(["analyse", "c.json"], files);
  expect(out).toContain("boost pressure sensor B7 shorted inside, supply to ground");
  expect(out.indexOf("Front-probe gently")).toBeGreaterThan(out.indexOf("Next reading"));
});

test("predict: a dead reference takes its three sensors down, and the codes follow", () => {
  const { out } = cli(["predict", "w.json", "--fault", "A1:17/referenceDead", "--json"], files);
  const p = JSON.parse(out) as {
    points: { point: string; volt: number | null }[];
    codes: { code: string }[];
    residualAmpere: number;
    settled: boolean;
  };
  expect(p.settled).toBe(true);
  expect(p.residualAmpere).toBeLessThan(1e-6);
  expect(p.points.find((x) => x.point === "B7:1")!.volt).toBeCloseTo(0, 1);
  expect(p.points.find((x) => x.point === "B20:1")!.volt).toBeCloseTo(5, 1); // the other reference lives
  expect(p.codes.map((c) => c.code)).toEqual(["P0642", "P0237", "P0522", "P1A41"]);
});

test("predict with an unplugged connector leaves its wires to the module's pulls", () => {
  const { out } = cli(["predict", "w.json", "--state", "on,unplug=B4", "--json"], files);
  const p = JSON.parse(out) as { points: { point: string; volt: number | null; meterVolt: number }[] };
  // open: its full pull-up, above a module ground that stands some millivolts high (common practice, no source)
  expect(Math.abs(p.points.find((x) => x.point === "B4:1")!.volt! - 5)).toBeLessThan(0.02);
});

test.each([
  [["predict", "w.json", "--fault", "nope"], 2, "is not a fault"],
  [["predict", "w.json", "--fault", "B9/dead@-4"], 2, "is not a fault"],
  [["predict", "w.json", "--state", "flying"], 2, "not a key position"],
  [["predict", "w.json", "--state", "on,unplug=Z1"], 2, 'no connector "Z1"'],
  [["schema", "cat"], 2, "no schema"],
  [["analyse", "w.json"], 1, 'Expected format "radicula/case"'],
  [["analyse", "c.json", "--top", "x"], 2, "not a number"],
] as const)("%j exits %d and says why on standard error", (argv, exit, why) => {
  const r = cli(argv, files);
  expect(r.exit).toBe(exit);
  expect(r.err).toContain(why);
  expect(r.out).toBe("");
});

test("faults lists stable names that predict takes back, severity and all", () => {
  const ids = (JSON.parse(cli(["faults", "w.json", "--json"], files).out) as { id: string }[]).map((f) => f.id);
  expect(new Set(ids).size).toBe(ids.length);
  for (const id of ids.filter((_, i) => i % 17 === 0))
    expect(cli(["predict", "w.json", "--fault", `${id}@3`], files).exit).toBe(0);
});

test("validate says what is in order, and lists what is not with its place", () => {
  expect(cli(["validate", "c.json"], files).out).toContain("4 logbook entries");
  const bad = cli(["validate", "w.json"], { "w.json": files["w.json"].replace('"S14"', '"S15"') });
  expect(bad.exit).toBe(1);
  expect(bad.err).toMatch(/w\.json: wires\[\d+\]\.(from|to): "S1[45]" is not a connector/);
});

test("netlist is SPICE: a title, elements, an operating point, an end", () => {
  const { out } = cli(["netlist", "w.json", "--fault", "B9/shortSupplyGround@5"], files);
  expect(out.startsWith("* Tug 4")).toBe(true);
  expect(out).toContain("Rfault0");
  expect(out.trimEnd().endsWith(".end")).toBe(true);
});

test("schema prints JSON Schema; a case exported from it reads", () => {
  expect(JSON.parse(cli(["schema", "case"]).out)).toHaveProperty("$schema");
  expect(parseCase(files["c.json"]).ok).toBe(true);
});

test("read: an instrument at a machine with a fault, and whether it proves anything", () => {
  const read = (...argv: string[]) => cli(["read", "w.json", ...argv], files);
  expect(read("--red", "B7:1").out).toMatch(/^4\.99 V|^5\.?\d* V/);
  expect(read("--red", "B7:1", "--fault", "A1:17/referenceDead").out).toMatch(/^0/);
  expect(read("--with", "lamp", "--red", "B7:1").out).toMatch(
    /dark[\s\S]*Proves nothing\. Never a test lamp on a reference line/,
  );
  expect(read("--with", "ohmmeter", "--red", "B7:1").out).toMatch(/Proves nothing\. There is voltage/);
  expect(
    JSON.parse(
      read(
        "--with",
        "ohms",
        "--red",
        "B7:2",
        "--state",
        "off,unplug=B7",
        "--fault",
        "S22/spliceHighResistance@600",
        "--json",
      ).out,
    ),
  ).toMatchObject({ proves: true, value: expect.closeTo(585, -2) as number }); // 600 Ω beside the other sensors
  expect(read("--with", "scan", "--red", "A1:12").exit).toBe(0); // as earlier versions called it
  expect(read("--with", "scanTool", "--red", "A1:12").exit).toBe(0);
  expect(read("--with", "clamp", "--red", "W14").out).toContain("Proves nothing");
  expect(
    JSON.parse(
      read(
        "--red",
        "B9:3",
        "--state",
        '{"key":"on","unplugged":["B9"],"jumpers":[{"from":"B9:1","to":"B9:3","ohm":1000}]}',
        "--json",
      ).out,
    ).value,
  ).toBeGreaterThan(4.8);
  for (const [argv, why] of [
    [[], "say where the red lead"],
    [["--red", "Z9:1"], "not a point"],
    [["--red", "B7:1", "--with", "nose"], "known instruments"],
    [["--red", "B7:1", "--with", "lamp", "--watt", "0"], "rating"],
    [["--red", "B7:1", "--state", "on,pull=F99"], 'no fuse "F99"'],
    [["--red", "B7:1", "--state", "on,asleep=B7"], 'no module "B7"'],
    [["--red", "B7:1", "--state", '{"key":"sideways"}'], "not a machine state"],
    [["--red", "B7:1", "--state", "{oops"], "nor JSON"],
    [["--with", "clamp", "--red", "W999"], "no wire"],
  ] as const) {
    const r = read(...argv);
    expect([r.exit, r.out]).toEqual([2, ""]);
    expect(r.err).toContain(why);
  }
});

test("two faults at once, states with fuses pulled: predict follows", () => {
  const codes = (...argv: string[]) =>
    (JSON.parse(cli(["predict", "w.json", "--json", ...argv], files).out) as { codes: { code: string }[] }).codes.map(
      (c) => c.code,
    );
  expect(codes("--fault", "B4/elementOpen,W31/open")).toEqual(expect.arrayContaining(["P0118", "P0237"]));
  expect(codes("--state", "on,pull=F12")).toEqual(codes()); // codes are judged with everything in place
});

test("decode: a scan tool's reply in words and as data; half a reply is refused", () => {
  expect(cli(["decode", "59 02 FF 02 37 16 2F"]).out).toBe("P0237  active, below threshold\n");
  expect(JSON.parse(cli(["decode", "04 FF 6E 00 03 05", "--json"]).out)).toEqual([
    { code: "SPN 110 FMI 3", status: "active", occurrences: 5 },
  ]);
  expect(cli(["decode", "43 00"]).out).toBe("no codes\n");
  expect(cli(["decode", "59 02 FF 02"])).toMatchObject({ exit: 1, out: "" });
  expect(cli(["decode", "zz"]).err).toContain("not a hex digit");
});

test("check: the demo contradicts nothing; a document that does is told by name", () => {
  expect(cli(["check", "w.json"], files)).toMatchObject({
    exit: 0,
    err: "",
    out: expect.stringContaining("nothing contradicts itself") as string,
  });
  const small = files["w.json"].replace(/"rating":\s*[\d.]+/, '"rating": 0.01');
  expect(cli(["check", "w.json"], { "w.json": small }).out).toMatch(/fuse F\d+ melts on a healthy machine/);
});

describe("charts and libraries on the command line", () => {
  const csv =
    "Connector;Cavity;Colour;Function;Goes to\r\nB1;1;OG;5 " +
    "V;S1\r\n;2;BN;GND;S2\r\n;3;tartan;signal;A1:3\r\nS1;;;;A1:1\r\nS2;;;;A1:2\r\n";
  test("a pin chart becomes a wiring that solves; what was not taken is said with its row", () => {
    const { exit, out, err } = cli(["convert", "c.csv", "--to", "wiring"], { "c.csv": csv });
    expect(exit).toBe(0);
    expect(err).toContain('row 3, colour: "tartan" is not a wire colour');
    const wiring = parseWiring(out);
    expect(wiring.ok && wiring.value.devices.find((d) => d.id === "B1")).toMatchObject({
      kind: "threeWireSensor",
      pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3" },
    });
    expect(cli(["predict", "made.json", "--json"], { "made.json": out }).exit).toBe(0);
  });
  test("a wiring through a chart and a CSV table comes back with the same copper", () => {
    const chart = cli(["convert", "w.json", "--to", "chart"], files).out;
    const table = cli(["convert", "chart.json", "--to", "csv"], { "chart.json": chart });
    const back = cli(["convert", "t.csv", "--to", "wiring"], { "t.csv": table.out });
    const ends = (text: string) =>
      (JSON.parse(text) as { wires: { from: string; to: string }[] }).wires
        .map((w) => [w.from, w.to].sort().join(" "))
        .sort();
    expect(ends(back.out)).toEqual(ends(files["w.json"]));
    expect(table.err).toContain("codes"); // a table cannot hold set conditions, and says so
  });
  test("GraphML and SPICE; forms nobody knows and files of another kind are refused", () => {
    expect(cli(["convert", "w.json", "--to", "graphml"], files).out).toContain("<graphml");
    expect(cli(["convert", "w.json", "--to", "spice"], files).out).toMatch(/\.end\s*$/);
    expect(cli(["convert", "w.json", "--to", "pdf"], files)).toMatchObject({ exit: 2 });
    expect(
      cli(["convert", "x.json", "--to", "wiring"], { "x.json": '{"format":"radicula/chart","version":1,"rows":7}' })
        .exit,
    ).toBe(1);
    expect(cli(["convert", "x.csv", "--to", "wiring"], { "x.csv": "" }).exit).toBe(1);
    expect(cli(["schema", "chart"]).out).toContain('"rows"');
  });
  test("shared: what the coded circuits have in common, before any reading", () => {
    const { out } = cli(["shared", "c.json", "--json"], files);
    const m = JSON.parse(out) as { coded: string[]; covers: string[][]; rows: { coded: string[] }[] };
    expect(m.coded.sort()).toEqual(["B12", "B7", "B9"]);
    expect(m.covers[0]).toHaveLength(1);
    expect(cli(["shared", "c.json"], files).out).toMatch(/3 of 3 .*S14/);
  });
  test("scan: what was read and, line by line, what was not", () => {
    const { out, err } = cli(["scan", "s.txt", "w.json"], {
      ...files,
      "s.txt": "P0522 active\nnonsense\nA1: 43 01 02 37 00 00 00",
    });
    expect(out).toMatch(/A1 {2}P0522 {2}active/);
    expect(err).toContain("line 2:");
    expect(
      (
        JSON.parse(cli(["scan", "s.txt", "w.json", "--json"], { ...files, "s.txt": "P0237" }).out) as {
          codes: unknown[];
        }
      ).codes,
    ).toHaveLength(1);
  });
  test("merge counts agreements, additions and contradictions; compare says what changed", () => {
    const second = csv.replace("B1;1;OG", "B1;1;RD").replace("S2\r\n;3;tartan", "S2\r\n;3;GN") + "B2;1;OG;5 V;S1\r\n";
    const merged = JSON.parse(cli(["merge", "a.csv", "b.csv", "--json"], { "a.csv": csv, "b.csv": second }).out) as {
      agreements: number;
      added: string[];
      contradictions: { at: string; field: string }[];
    };
    expect(merged.added).toEqual(["B2:1"]);
    expect(merged.contradictions).toEqual(
      expect.arrayContaining([expect.objectContaining({ at: "B1:1", field: "colour" })]),
    );
    expect(merged.agreements).toBeGreaterThan(6);
    expect(cli(["merge", "a.csv", "b.csv"], { "a.csv": csv, "b.csv": second }).out).toContain(
      "B1:1 colour: OG against RD",
    );
    const other = JSON.stringify({ ...(JSON.parse(files["w.json"]) as Record<string, unknown>), nominalVolt: 24 });
    expect(cli(["compare", "w.json", "w.json"], files).out).toBe("nothing changed\n");
    expect(cli(["compare", "w.json", "v.json"], { ...files, "v.json": other }).out).toContain("12 -> 24");
  });
});

describe("simulate", () => {
  test("plays a hidden fault to the end, the same again for the same seed", () => {
    const one = cli(["simulate", "w.json", "--fault", "A1:17/referenceDead", "--seed", "3", "--json"], files);
    expect([one.exit, one.err]).toEqual([0, ""]);
    const p = JSON.parse(one.out) as {
      ending: string;
      steps: { minutes: number }[];
      minutes: number;
      verdict: { suspect: string };
    };
    expect(p.ending).toBe("isolated");
    expect(p.steps.reduce((sum, s) => sum + s.minutes, 0)).toBeCloseTo(p.minutes, 9);
    expect(cli(["simulate", "w.json", "--fault", "A1:17/referenceDead", "--seed", "3", "--json"], files).out).toBe(
      one.out,
    );
  }, 120_000);
  test("what cannot be is refused with what would do", () => {
    expect(cli(["simulate", "w.json"], files)).toMatchObject({
      exit: 2,
      err: expect.stringContaining("--fault") as string,
    });
    expect(cli(["simulate", "w.json", "--fault", "B77/open"], files)).toMatchObject({
      exit: 1,
      err: expect.stringContaining("B77/open") as string,
    });
    expect(cli(["simulate", "w.json", "--fault", "B9/dead", "--school", "guess"], files)).toMatchObject({
      exit: 2,
      err: expect.stringContaining("information") as string,
    });
    expect(cli(["simulate", "w.json", "--fault", "B9/dead", "--seed", "x"], files)).toMatchObject({ exit: 2 });
    expect(cli(["simulate", "w.json", "--fault", "B9/dead", "--presence", "2"], files)).toMatchObject({ exit: 2 });
    expect(cli(["simulate", "w.json", "--fault", "B9/dead", "--mistaken", "B9,Q1"], files)).toMatchObject({
      exit: 2,
      err: expect.stringContaining('"Q1"') as string,
    });
    expect(cli(["simulate", "w.json", "--fault", "B9/dead", "--mistaken", "B9,B9"], files)).toMatchObject({ exit: 2 });
  });
  test("a fault that sets no code gives nothing to go by", () => {
    expect(cli(["simulate", "w.json", "--fault", "S22/spliceHighResistance@0.1"], files).out).toContain("no code sets");
  }, 60_000);
});

describe("guided runs and the logbook", () => {
  test("a run played on a machine with a hidden fault, step by step, to what it came to", () => {
    const { exit, out, err } = cli(
      ["run", "w.json", "--run", "unplugSeries", "--on", "A1:17", "--fault", "B9/shortSupplyGround@5"],
      files,
    );
    expect([exit, err]).toEqual([0, ""]);
    expect(out).toContain("back in full");
    expect(out).toContain("B9 drags A1:17 off its voltage");
    const json = JSON.parse(
      cli(
        ["run", "w.json", "--run", "unplugSeries", "--on", "A1:17", "--fault", "B9/shortSupplyGround@5", "--json"],
        files,
      ).out,
    ) as { steps: { mark: string | null }[]; finding: { verdict: string; things: string[] } };
    expect(json.finding).toMatchObject({ verdict: "found", things: ["B9"] });
    expect(json.steps.length).toBeGreaterThan(2);
  });
  test("without a place it says where it can begin; what cannot be is refused", () => {
    expect(cli(["run", "w.json", "--run", "fuseRun"], files).out).toContain("F12");
    expect(cli(["run", "w.json", "--run", "dance"], files)).toMatchObject({ exit: 2 });
    expect(cli(["run", "w.json"], files)).toMatchObject({ exit: 2 });
    expect(cli(["run", "w.json", "--run", "fuseRun", "--on", "B7:1"], files)).toMatchObject({ exit: 2 });
    expect(cli(["run", "w.json", "--run", "fuseRun", "--on", "F12", "--fault", "none/such"], files)).toMatchObject({
      exit: 1,
    });
    expect(cli(["run", "w.json", "--run", "fuseRun", "--on", "F12", "--seed", "-3"], files)).toMatchObject({ exit: 2 });
  });
  test("what a logbook adds up to, and the whole of it as CSV that a spreadsheet takes for text", () => {
    const at = "2026-11-24T09:00:00Z";
    const c = JSON.parse(files["c.json"]) as { entries: unknown[] };
    const reading = (value: number, more: object = {}) => ({
      type: "reading",
      at,
      instrument: "voltmeter",
      points: ["B7:1"],
      values: [value],
      state: { key: "on", unplugged: [] },
      ...more,
    });
    const n = c.entries.length;
    c.entries.push(
      reading(0.9, { how: "pierced", by: "=cmd()" }),
      reading(4.9, { note: 'after, "quoted"' }),
      reading(5.01, { corrects: n + 2 }),
      { type: "disturbed", at, thing: "B9", how: "removed" },
    );
    const more = { "m.json": JSON.stringify(c) };
    const text = cli(["logbook", "m.json"], more).out;
    expect(text).toContain("1 taken back");
    expect(text).toContain("B7:1: pierced, not sealed");
    expect(text).toContain("B9: taken out");
    expect(text).toContain("0.9 (entry 5), then 5.01 (entry 7)");
    const csv = cli(["logbook", "m.json", "--csv"], more).out;
    expect(csv.split("\r\n")).toHaveLength(c.entries.length + 2);
    expect(csv).toContain("'=cmd()");
    expect(csv).toContain('"after, ""quoted"""');
    expect(csv).not.toMatch(/(^|,)=/m);
    expect(cli(["logbook", "w.json"], files).exit).toBe(1);
  });
});

describe("after the repair", () => {
  const done = {
    ...files,
    "done.json": demoText("tug-4-inline-proven.case.json"),
    "s.json": '{"name":"Quay workshop"}',
  };
  test("prove: how sure it is, and every step with the entry that says so", () => {
    const { exit, out } = cli(["prove", "done.json"], done);
    expect(exit).toBe(0);
    expect(out).toMatch(/(very likely cured|cured), 9\d %/);
    expect(out).toMatch(/\[x\] Clear the codes of all modules {2}\(entry \d+\)/);
    const { proof, repairs } = JSON.parse(cli(["prove", "done.json", "--json"], done).out) as {
      proof: { outcome: { cured: number }; steps: { status: string }[] };
      repairs: { how: string }[];
    };
    expect(proof.outcome.cured).toBeGreaterThan(0.9);
    expect(proof.steps.every((s) => s.status === "passed")).toBe(true);
    expect(repairs.map((r) => r.how)).toEqual(["repaired"]);
    expect(cli(["prove", "c.json"], files).out).toContain("Nothing was repaired yet");
  });
  test("report: as a page, as data, as PDF; with the settings of the workshop, in another language", async () => {
    expect(cli(["report", "done.json", "--settings", "s.json"], done).out).toContain("<b>Quay workshop</b>");
    const { sections } = JSON.parse(cli(["report", "done.json", "--as", "json", "--length", "workshop"], done).out) as {
      sections: { heading: string }[];
    };
    expect(sections.map((s) => s.heading)).toContain("Proof");
    const german = cli(["report", "done.json", "--language", "de"], done).out;
    expect(german).toContain('<html lang="de">');
    expect(german).toContain("Was defekt war");
    expect(cli(["report", "done.json"], done).out).toContain("What was wrong");
    const pdf = await cli(["report", "done.json", "--as", "pdf"], done).bytes;
    expect(Buffer.from(pdf!).subarray(0, 5).toString()).toBe("%PDF-");
  });
  test.each([
    [["report", "done.json", "--as", "word"], 2, 'no "word"'],
    [["report", "done.json", "--length", "endless"], 2, 'no "endless"'],
    [["report", "done.json", "--language", "xx"], 2, 'no "xx"'],
    [["report", "done.json", "--settings", "w.json"], 1, "no settings of a workshop"],
    [["prove", "w.json"], 1, "w.json"],
  ] as const)("%j is refused", (argv, exit, says) => {
    const refused = cli(argv, done);
    expect(refused.exit).toBe(exit);
    expect(refused.err).toContain(says);
  });
});

describe("the notebook", () => {
  const kept = {
    ...files,
    "proven.case.json": demoText("tug-4-inline-proven.case.json"),
    "n.json": demoText("notebook.json"),
  };
  test("closed cases and notebooks become one notebook, which reads back", () => {
    const { exit, out } = cli(["notebook", "n.json", "proven.case.json", "c.json", "--json"], kept);
    expect(exit).toBe(0);
    const { lessons } = JSON.parse(out) as { lessons: { id: string; suspect?: string }[] };
    expect(lessons.at(-1)).toMatchObject({ id: "proven", suspect: "X5:4" });
    expect(cli(["validate", "all.json"], { "all.json": out }).out).toContain(`${lessons.length} lessons`);
    expect(cli(["notebook", "n.json", "--find", "launch seal"], kept).out).toMatch(/^2025-10-06 {2}Whimbrel · .*\n$/);
    expect(cli(["notebook", "c.json"], kept).out).toContain("teaches something once it is closed");
  });
  test("learn: what is like this case and what it changes; with --json the case with the lessons in it", () => {
    const said = cli(["learn", "c.json", "n.json"], kept).out;
    expect(said).toMatch(/Seen before\n {2}20\d\d-/);
    expect(said).toMatch(/What \d+ jobs of this wiring change\n/);
    const taught = cli(["learn", "c.json", "n.json", "--json"], kept).out;
    expect(parseCase(taught).ok).toBe(true);
    expect((JSON.parse(taught) as { entries: { type: string }[] }).entries.at(-1)?.type).toBe("learned");
  });
  test.each([
    [["learn", "proven.case.json", "n.json"], 1, "comes after that"],
    [["learn", "c.json"], 2, "takes two files"],
    [["learn", "c.json", "w.json"], 1, "w.json"],
    [["notebook"], 2, "takes"],
    [["notebook", "gone.json"], 66, "cannot be read"],
    [["validate", "bad.json"], 1, "two lessons of one job"],
  ] as const)("%j is refused", (argv, exit, says) => {
    const twice = JSON.parse(kept["n.json"]) as { lessons: unknown[] };
    const bad = JSON.stringify({ ...twice, lessons: [twice.lessons[0], twice.lessons[0]] });
    const refused = cli(argv, { ...kept, "bad.json": bad });
    expect(refused.exit).toBe(exit);
    expect(refused.err).toContain(says);
  });
});

test("record writes a recording on a simulated machine as CSV; trace says what it holds and what it says", () => {
  const made = cli(
    ["record", "w.json", "--on", "B20:3,B7:3", "--do", "move", "--fault", "B20:2/contactOpen", "--presence", "0.05"],
    files,
  );
  expect(made.exit).toBe(0);
  expect(made.out.split("\n")[0]).toBe("time (s),B20:3 (V),B7:3 (V)");
  const more = { ...files, "r.csv": made.out };
  const plain = cli(["trace", "r.csv"], more);
  expect(plain.out).toMatch(/B20:3: Stays at 0\.\d+ V, drops out \d+ times, to 4\.\d+ V/);
  expect(plain.out).toMatch(/B7:3: Stays at 1\.\d+ V\n {2}10000 samples, 2 s, 5000 a second/);
  const judged = cli(["trace", "r.csv", "--case", "w.json", "--on", "B20:3,B7:3", "--do", "move", "--json"], more);
  const json = JSON.parse(judged.out) as {
    channels: { seen: { kind: string } }[];
    events: unknown[];
    entry: { type: string; channels: unknown[] };
    suspects: { name: string; before: number; share: number }[];
  };
  expect(json.channels.map((c) => c.seen.kind)).toEqual(["steady", "steady"]);
  expect(json.events.length).toBeGreaterThan(3);
  expect(json.entry).toMatchObject({ type: "trace" });
  expect(json.suspects[0]!.share).toBeGreaterThan(json.suspects[0]!.before);
});

test("trace and record refuse what makes no sense, and say why", () => {
  const csv = "time,A\n0,1\n0.1,1\n0.2,1\n0.3,1\n";
  const more = { ...files, "r.csv": csv, "p.txt": "nothing to see\n", "e.csv": "" };
  const refused = (argv: readonly string[]) => {
    const { exit, err } = cli(argv, more);
    return [exit, err.trim()] as const;
  };
  expect(refused(["trace", "p.txt"])).toEqual([1, expect.stringContaining("no samples") as string]);
  expect(refused(["trace", "e.csv"])).toEqual([1, expect.stringContaining("empty") as string]);
  expect(refused(["trace", "r.csv", "--case", "w.json"])[1]).toContain("--on: say where");
  expect(refused(["trace", "r.csv", "--case", "w.json", "--on", "B7:3,B9:3"])[1]).toContain("has 1 channels");
  expect(refused(["trace", "r.csv", "--case", "w.json", "--on", "Q:9"])[1]).toContain('--on: "Q" is not');
  expect(refused(["trace", "r.csv", "--case", "w.json", "--on", "-"])[1]).toContain("No channel with a place");
  expect(refused(["record", "w.json", "--on", "Q:9"])).toEqual([2, 'no point "Q:9" on this machine']);
  expect(refused(["record", "w.json", "--on", "B7:3", "--do", "sing"])[1]).toContain("there is no");
  expect(refused(["record", "w.json", "--on", "B7:3", "--seconds", "1e5", "--rate", "1e7"])[0]).toBe(2);
});

test("trace finds a pattern written as levels and times, and judges the lines of a bus", () => {
  const rows = (f: (i: number) => string) =>
    Array.from({ length: 400 }, (_, i) => `${(i * 1e-5).toFixed(5)},${f(i)}`).join("\n");
  // 2 to 8 samples of 10 µs a bit, levels of ISO 11898-2 (values from memory): at rest 2.5 V, dominant 3.5 and 1.5 V
  const isDominant = (i: number) => i % 10 < 4;
  const can = `time (s),high (V),low (V)\n${rows((i) => (isDominant(i) ? "3.5,1.5" : "2.5,2.5"))}\n`;
  const shorted = `time (s),high (V),low (V)\n${rows((i) => (isDominant(i) ? "2.6,2.5" : "2.0,2.0"))}\n`;
  const wake = `time (s),line (V)\n${rows((i) => (i < 100 ? "5" : i < 140 ? "0.1" : "5"))}\n`;
  const more = { "can.csv": can, "shorted.csv": shorted, "wake.csv": wake };
  const bus = cli(["trace", "can.csv", "--bus", "can"], more);
  expect(bus.out).toContain(
    "The bus talks, 40 % of the time dominant; at rest 0.00 V, while a dominant bit is sent 2.00 V.",
  );
  expect(cli(["trace", "shorted.csv", "--bus", "can"], more).out).toContain("shorted to each other");
  expect(cli(["trace", "wake.csv", "--pattern", "0.1 for 300 to 500 us, 5"], more).out).toContain(
    "line: the pattern is there, from 1 ms to",
  );
  expect(cli(["trace", "wake.csv", "--pattern", "0.1 for 1 to 2 ms, 5"], more).out).toContain(
    "the pattern is not there",
  );
  const refused = (argv: string[]) => [cli(argv, more).exit, cli(argv, more).err];
  expect(refused(["trace", "wake.csv", "--pattern", "low for long"])[1]).toContain("low for long");
  expect(refused(["trace", "wake.csv", "--bus", "can"])).toEqual([2, expect.stringContaining("one channel") as string]);
  expect(refused(["trace", "wake.csv", "--bus", "lin"])[1]).toContain("--supply");
  expect(refused(["trace", "wake.csv", "--bus", "flex"])[1]).toContain("can or lin");
});

test("places moved while it was recorded: a loose contact shows itself only while its own place is moved", () => {
  const wiring = demoText("tug-4.wiring.json");
  const argv = ["--on", "B7:3,B7:1", "--do", "move", "--moved", "X5@0-2,W11@2-4"];
  const recorded = cli(
    ["record", "w.json", ...argv, "--fault", "W11/open", "--presence", "0.1", "--seconds", "4", "--rate", "1000"],
    { "w.json": wiring },
  );
  const judged = cli(["trace", "r.csv", "--case", "w.json", ...argv, "--json"], {
    "w.json": wiring,
    "r.csv": recorded.out,
  });
  const { entry } = JSON.parse(judged.out) as { entry: { moved: { thing: string; reacted: boolean }[] } };
  expect(entry.moved.map((m) => [m.thing, m.reacted])).toEqual([
    ["X5", false],
    ["W11", true],
  ]);
  const refused = cli(["record", "w.json", "--on", "B7:3", "--moved", "Q9@0-2"], { "w.json": wiring });
  expect(refused.err).toContain('nothing in this wiring is called "Q9"');
  expect(cli(["record", "w.json", "--on", "B7:3", "--moved", "X5@3-2"], { "w.json": wiring }).err).toContain("X5@3-2");
});

test("gaps: what a half-known drawing leaves open, what is assumed, and what to look up first", () => {
  expect(cli(["gaps", "w.json"], files)).toMatchObject({
    exit: 0,
    out: "Every pin of every sensor and actuator has a wire.\n",
  });
  const { wiring } = JSON.parse(files["c.json"]) as { wiring: { wires: { from: string; to: string }[] } };
  const half = { ...wiring, wires: wiring.wires.filter((w) => w.from !== "B9:2" && w.to !== "B9:2") };
  const given = { "half.json": JSON.stringify(half), ...files };
  const plain = cli(["gaps", "half.json"], given);
  expect(plain.exit).toBe(0);
  expect(plain.out).toMatch(/^Pins without a wire: 1\./);
  expect(plain.out).toMatch(/B9:2 \(ground\) {2}S\d+ \d+ %/);
  const told = cli(["gaps", "half.json", "--case", "c.json", "--json"], given);
  const { facts, worth } = JSON.parse(told.out) as {
    facts: { point: string }[];
    worth: { at: string; bits: number }[];
  };
  expect(facts.map((f) => f.point)).toEqual(["B9:2"]);
  expect(worth[0]).toMatchObject({ at: "B9:2", bits: expect.any(Number) as number });
  expect(cli(["gaps", "none.json"], given)).toMatchObject({ exit: 66 });
  expect(cli(["gaps", "half.json", "--case", "w.json"], given).exit).not.toBe(0);
});
