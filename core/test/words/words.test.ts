import {
  analyse,
  circumstances,
  Intake,
  INTAKE_CHOICES,
  Predictor,
  sharedMatrix,
  type Candidate,
} from "../../src/index.js";
import {
  feedText,
  Instructor,
  Namer,
  probabilityWord,
  shareShort,
  sharedText,
  shareText,
  strengthWord,
  toldText,
} from "../../words/index.js";
import { code, tug } from "../helpers.js";

const doc = tug();
const instructor = new Instructor(doc);
const base: Candidate = {
  id: "x",
  kind: "voltage",
  instrument: "voltmeter",
  points: ["B7:1"],
  state: { key: "on", unplugged: [] },
  at: "B7",
  unplug: [],
  plug: [],
  turnKey: false,
  minutes: 1,
};

test.each<[Partial<Candidate>, string]>([
  [{}, "Measure the reference at B7 cavity 1"],
  [
    { kind: "voltageUnplugged", state: { key: "on", unplugged: ["B7"] } },
    "Unplug B7 and measure the reference in cavity 1",
  ],
  [
    { kind: "watch", state: { key: "on", unplugged: ["B9"] } },
    "Unplug the oil pressure sensor B9 and watch the reference at B7 cavity 1",
  ],
  [{ kind: "fuse", points: ["F12:in", "F12:out"], at: "F12" }, "Measure both sides of fuse F12"],
  [
    { kind: "ohms", instrument: "ohmmeter", points: ["B7:2"], state: { key: "off", unplugged: ["B7"] } },
    "Key off: ohms from the sensor ground at B7 cavity 2 to battery negative",
  ],
  [{ points: ["X5:7.a"], at: "X5" }, "Measure the sensor ground at X5 cavity 7, side a"],
  [{ kind: "look", instrument: "none", points: ["W5"] }, "Look along the wire from S30 to B2:1, RD/WH"],
  [
    { kind: "branchCurrent", instrument: "clamp", points: ["W5"] },
    "Put the clamp around the wire from S30 to B2:1, RD/WH: does the short draw its current through it?",
  ],
  [
    { kind: "ohmsBetween", instrument: "ohmmeter", points: ["B7:3"], black: "X5:2.a" },
    "Key off: ohms from B7 cavity 3 to X5 cavity 2, side a, both plugs off",
  ],
])("%j is the sentence “%s”", (change, sentence) =>
  expect(instructor.instruct({ ...base, ...change }).title).toBe(sentence),
);

test("the lines under it: state, lead, wire colour, place", () => {
  const i = instructor.instruct({
    ...base,
    state: { key: "on", unplugged: ["B9"] },
    plug: ["B12"],
    unplug: ["B9"],
    kind: "watch",
  });
  expect(i.state).toBe("key on, engine off · plug B12 back in · unplug B9");
  expect(i.red).toEqual([
    { text: "B7 cavity 1", how: "back-probed", colour: "OG/WH", place: "left of the intake elbow" },
  ]);
  expect(i.black).toBe("battery negative");
  // what comes off, then plugs, then what is put on: in the order in which hands do it
  const jumper = { key: "on" as const, unplugged: ["B9"], jumpers: [{ from: "B9:3", to: "B9:1", ohm: 1000 }] };
  const off = instructor.instruct({
    ...base,
    state: jumper,
    unplug: ["B9"],
    plug: ["B7"],
    takeOff: ["lamp"],
    fuseBack: ["F12"],
  });
  expect(off.state).toBe(
    "key on, engine off · take the lamp off · put fuse F12 back in · plug B7 back in · unplug B9 · " +
      "B9 cavity 3 joined to B9 cavity 1 through 1.00 kΩ",
  );
  expect(instructor.instruct({ ...base, state: { key: "on", unplugged: ["B9"] } }).state).toContain(
    "B9 still unplugged",
  );
});

test("cautions stand where they belong", () => {
  const cautions = (change: Partial<Candidate>) => instructor.instruct({ ...base, ...change }).cautions.join(" ");
  expect(cautions({})).toBe("");
  expect(cautions({ unplug: ["B9"], state: { key: "on", unplugged: ["B9"] }, kind: "watch" })).toContain(
    "Key off while unplugging",
  );
  expect(cautions({ kind: "ohms", instrument: "ohmmeter" })).toContain("Key off first");
  expect(cautions({ kind: "fuse", at: "F12" })).toContain("Never fit a larger fuse");
  const brake = new Instructor({
    ...doc,
    devices: doc.devices.map((d) => (d.id === "B7" ? { ...d, cautions: ["brake" as const, "hot" as const] } : d)),
  });
  expect(brake.instruct(base).cautions.join(" ")).toMatch(/chock the machine.*Hot parts/);
});

test("every reading the planner may offer can be said, with a wire colour where the document has one", () => {
  const a = analyse(
    new Predictor(doc),
    ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c)),
  );
  // the scan tool has no lead
  for (const n of a.next.filter((x) => x.candidate.instrument !== "none" && x.candidate.instrument !== "scanTool")) {
    const i = instructor.instruct(n.candidate);
    expect(i.title).not.toMatch(/undefined|wire at/);
    expect(i.red).toHaveLength(n.candidate.points.length);
    for (const lead of i.red) expect(lead.colour).toBeDefined();
  }
});

test("shares are never claimed to be 0 or 100 %", () => {
  expect([0, 0.004, 0.41, 0.994, 1].map(shareText)).toEqual([
    "under 1 %",
    "under 1 %",
    "41 %",
    "over 99 %",
    "over 99 %",
  ]);
  expect([0, 0.41, 1].map(shareShort)).toEqual(["<1 %", "41 %", ">99 %"]);
  expect([0.97, 0.8, 0.4, 0.1, 0.01].map(probabilityWord)).toEqual([
    "almost certain",
    "likely",
    "possible",
    "one of several",
    "unlikely",
  ]);
  expect([3, 1, 0, -1, -3].map(strengthWord)).toEqual([
    "strongly for",
    "for",
    "says little",
    "against",
    "strongly against",
  ]);
});

test("names of things, as a technician says them", () => {
  const n = new Namer(doc);
  expect(n.device("S14")).toBe("splice S14 (5 V reference)");
  expect(n.device("B9")).toBe("oil pressure sensor B9");
  expect(n.device("nobody")).toBe("nobody");
  expect(n.point("F12:in")).toBe("fuse F12, in side");
  expect(n.point("BAT:-")).toBe("battery negative");
  expect(n.place({ type: "cavity", id: "X5:4" })).toBe("terminal in X5 cavity 4");
  expect(n.place({ type: "wire", id: "W14" })).toBe("wire from S14 to X5:4, OG/WH");
  expect(n.suspect({ type: "notHere", places: [], members: [] }).title).toBe("Not in this wiring");
});

describe("what coded circuits share, in a sentence", () => {
  const say = (coded: readonly string[]) => sharedText(sharedMatrix(doc, coded));
  test("things are named, the wires between them are not", () => {
    expect(say(["B7", "B9", "B12"])).toBe("All 3 pass through S14, A1:17, X5:4, and no healthy circuit does.");
    expect(say(["B7", "B9"])).toBe("Both pass through S14, A1:17, X5:4; one healthy circuit does too.");
  });
  test("one, none, and things that share nothing", () => {
    expect(say(["B7"])).toContain("Only one circuit has a code");
    expect(say([])).toContain("No code names a part");
    expect(say(["B4", "B20"])).toMatch(/^(No one thing is shared by all 2\.|Both pass)/);
  });
});

describe("what the intake did, in a line", () => {
  const feed = { because: "wet", at: [], factor: 2, on: "corrodingInWet", faults: 23 } as const;
  test.each([
    [feed, "Comes when wet: corrosion and bridged cavities in wet places count 2 times as much, in 23 faults."],
    [
      { ...feed, because: "replaced", at: ["B7"], factor: 0.15, on: "partItself", faults: 5 },
      "Replaced (B7): the part itself counts 0.15 of what it did, in 5 faults.",
    ],
    [
      { ...feed, because: "replacedCopy", at: ["B7"], factor: 6, on: "wrongPart", faults: 1 },
      "A copy or used part was fitted (B7): a wrong look-alike part counts 6 times as much, in 1 fault.",
    ],
    [
      { ...feed, because: "pests", factor: 3, on: "wires", faults: 40 },
      "Pests: wires count 3 times as much, in 40 faults.",
    ],
  ])("%j", (f, text) => expect(feedText(f)).toBe(text));
  test("every rule there is has words of its own", () => {
    const all = Intake.parse({
      symptoms: [...INTAKE_CHOICES.symptoms],
      conditions: [...INTAKE_CHOICES.conditions],
      history: ["replaced", "repaired", "workNearby", "batteryWork", "accident", "pests", "water", "oil"].map(
        (what) => ({ what, at: ["B7"] }),
      ),
      bulletins: [
        { text: "x", at: ["S22"] },
        { text: "y", at: ["B7"], trust: "bulletin" },
      ],
    });
    for (const f of circumstances(doc, new Predictor(doc).faults, all).feeds) {
      expect(feedText(f)).toMatch(/^[A-Z]/);
      expect(feedText(f)).not.toMatch(/[a-z][A-Z]|undefined/);
    }
  });
  test("told-apart cavities and their doubts", () => {
    expect(toldText({ cavity: "1", function: "supply", sure: true, why: "battery" })).toBe(
      "supply (as high as the battery)",
    );
    expect(toldText({ cavity: "1", function: "signal", sure: false, why: "floating" })).toBe(
      "signal, perhaps (nothing to negative)",
    );
    expect(toldText({ cavity: "1", function: "unknown", sure: false, why: "floating" })).toBe(
      "not told yet (nothing to negative)",
    );
  });
});
