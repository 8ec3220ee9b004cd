import { run } from "../cli/main";
import { Refusal, type Io } from "../cli/io";
import { parseCase } from "../src/index";
import { demoText } from "./helpers";

/** Runs a command with files from memory. */
function cli(argv: readonly string[], files: Readonly<Record<string, string>> = {}) {
  let out = "", err = "";
  const io: Io = {
    out: (t) => { out += t; }, err: (t) => { err += t; },
    read: (f) => { const text = files[f]; if (text === undefined) throw new Refusal(66, [`${f}: cannot be read`]); return text; },
  };
  return { exit: run(argv, io), out, err };
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
  const a = JSON.parse(out) as { stage: string; suspects: { share: number; reasons: unknown[]; type: string }[]; next: { points: string[]; answers: { share: number }[][] }[] };
  expect(a.stage).toBe("splitting");
  expect(a.suspects.length).toBeGreaterThan(3);
  expect(a.suspects[0]!.reasons.length).toBeGreaterThan(3);
  for (let i = 1; i < a.suspects.length; i++) expect(a.suspects[i]!.share).toBeLessThanOrEqual(a.suspects[i - 1]!.share);
  for (const n of a.next) expect(n.answers.flat().reduce((s, x) => s + x.share, 0)).toBeGreaterThan(0.8);
});

test("analyse in words names the suspects and the next reading, cautions before it", () => {
  const { out } = cli(["analyse", "c.json"], files);
  expect(out).toContain("boost pressure sensor B7 shorted inside, supply to ground");
  expect(out.indexOf("Touch the terminal")).toBeGreaterThan(out.indexOf("Next reading"));
});

test("predict: a dead reference takes its three sensors down, and the codes follow", () => {
  const { out } = cli(["predict", "w.json", "--fault", "A1:17/referenceDead", "--json"], files);
  const p = JSON.parse(out) as { points: { point: string; volt: number | null }[]; codes: { code: string }[]; residualAmpere: number; settled: boolean };
  expect(p.settled).toBe(true);
  expect(p.residualAmpere).toBeLessThan(1e-6);
  expect(p.points.find((x) => x.point === "B7:1")!.volt).toBeCloseTo(0, 1);
  expect(p.points.find((x) => x.point === "B20:1")!.volt).toBeCloseTo(5, 1); // the other reference lives
  expect(p.codes.map((c) => c.code)).toEqual(["P0642", "P0237", "P0522", "P1A41"]);
});

test("predict with an unplugged connector leaves its wires to the module's pulls", () => {
  const { out } = cli(["predict", "w.json", "--state", "on,unplug=B4", "--json"], files);
  const p = JSON.parse(out) as { points: { point: string; volt: number | null; meterVolt: number }[] };
  expect(Math.abs(p.points.find((x) => x.point === "B4:1")!.volt! - 5)).toBeLessThan(0.02); // open: its full pull-up, above a module ground that stands some millivolts high (common practice, no source)
});

test.each([
  [["predict", "w.json", "--fault", "nope"], 2, "is not a fault"], [["predict", "w.json", "--fault", "B9/dead@-4"], 2, "is not a fault"], [["predict", "w.json", "--state", "flying"], 2, "not a key position"],
  [["predict", "w.json", "--state", "on,unplug=Z1"], 2, 'no connector "Z1"'], [["schema", "cat"], 2, "no schema"], [["analyse", "w.json"], 1, 'Expected format "radicula/case"'], [["analyse", "c.json", "--top", "x"], 2, "not a number"],
] as const)("%j exits %d and says why on standard error", (argv, exit, why) => {
  const r = cli(argv, files);
  expect(r.exit).toBe(exit);
  expect(r.err).toContain(why);
  expect(r.out).toBe("");
});

test("faults lists stable names that predict takes back, severity and all", () => {
  const ids = (JSON.parse(cli(["faults", "w.json", "--json"], files).out) as { id: string }[]).map((f) => f.id);
  expect(new Set(ids).size).toBe(ids.length);
  for (const id of ids.filter((_, i) => i % 17 === 0)) expect(cli(["predict", "w.json", "--fault", `${id}@3`], files).exit).toBe(0);
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
