import {
  analyse,
  fold,
  generateFaults,
  heldBands,
  heldByWork,
  isFound,
  learnFrom,
  lessonFactors,
  lessonOf,
  lessonWeight,
  notebookOf,
  parseNotebook,
  Predictor,
  readCase,
  readNotebook,
  seenBefore,
  wilson,
  type Case,
  type Entry,
  type Lesson,
} from "../../src/index.js";
import { DEFAULTS } from "../../src/defaults.js";
import { demoCase, tug } from "../helpers.js";

const proven = demoCase("tug-4-inline-proven.case.json");
const TERMINAL = { things: ["X5:4"], how: "repaired" as const };
const AT = "2026-11-01T08:00:00Z";

const lesson = (more: Partial<Lesson> = {}): Lesson => ({
  id: "one",
  closed: "2026-10-12",
  wiring: tug().name,
  machineType: "yard tug",
  title: "Codes after rain",
  codes: ["P0237", "P0522"],
  shared: ["S14"],
  found: "Splice S14 corroded",
  suspect: "S14",
  repairs: [{ things: ["S14"], how: "repaired" }],
  claimed: 0.97,
  notHeld: [],
  held: "notAsked",
  note: "",
  used: true,
  ...more,
});

describe("what a closed job teaches", () => {
  test("the proven demo job: codes, what they share, cause, what helped, whether it held", () => {
    const taught = lessonOf("job", proven)!;
    expect(taught).toMatchObject({
      machine: "Tug 4",
      wiring: "Tug 4 engine sensors",
      codes: ["P0237", "P0522", "P1A41"],
      suspect: "X5:4",
      repairs: [{ things: ["X5:4"], how: "repaired" }],
      held: "stillGood",
      because: "proven",
    });
    expect(taught.claimed).toBeGreaterThan(0.95);
    // by the drawing all three sensors go through cavity 4 of X5 to the sensor ground
    expect(taught.shared).toContain("X5:4");
    expect(taught.minutes).toBeGreaterThan(5);
    expect(readNotebook(notebookOf([taught])).ok).toBe(true);
  });

  test("an open job teaches nothing; one that was not repaired counts nothing", () => {
    expect(lessonOf("job", demoCase("tug-4-ground.case.json"))).toBeUndefined();
    const declined = proven.entries
      .filter((e) => e.type !== "followedUp")
      .map((e): Entry => (e.type === "closed" ? { ...e, because: "declined" } : e));
    const taught = lessonOf("job", { ...proven, entries: declined })!;
    expect(taught.repairs).toEqual([]);
    expect(lessonWeight(taught)).toBe(0);
  });

  test("closed again after it came back: the last repair helped, the proof that did not hold is counted", () => {
    const closing = proven.entries.find((e) => e.type === "closed")!;
    const again: Entry[] = [
      ...proven.entries.filter((e) => e.type !== "followedUp"),
      { type: "followedUp", at: AT, result: "cameBack" },
      { type: "repaired", at: AT, things: ["X5:4"], how: "rewired" },
      { ...closing, at: AT },
    ];
    const taught = lessonOf("job", { ...proven, entries: again })!;
    expect(taught.repairs).toEqual([{ things: ["X5:4"], how: "rewired" }]);
    expect(taught.notHeld).toMatchObject([{ how: "repaired" }]);
    expect(heldByWork([taught])).toEqual([{ how: "repaired", asked: 1, held: 0 }]);
    expect(heldBands([taught]).reduce((sum, b) => sum + b.asked - b.held, 0)).toBe(1);
  });

  test("what came back counts nothing, what held counts whole, an unsure proof half", () => {
    expect(lessonWeight(lesson())).toBe(1);
    expect(lessonWeight(lesson({ claimed: 0.8 }))).toBe(0.5);
    expect(lessonWeight(lesson({ claimed: 0.8, held: "stillGood" }))).toBe(1);
    expect(lessonWeight(lesson({ held: "cameBack" }))).toBe(0);
    expect(lessonWeight(lesson({ used: false }))).toBe(0);
  });
});

describe("what lessons do to the rates", () => {
  const wiring = tug();
  const faults = generateFaults(wiring);
  const rates = faults.map((f) => f.prior ** DEFAULTS.priorTrust);
  const factorsOf = (lessons: readonly Lesson[]) =>
    lessonFactors(wiring, faults, learnFrom(lessons, wiring, AT)).factors;
  const at = (id: string) => faults.findIndex((f) => f.id === id);

  test("without lessons, or with those of another wiring, nothing changes", () => {
    expect(learnFrom([], wiring, AT)).toBeUndefined();
    expect(learnFrom([lesson({ wiring: "Another" }), lesson({ machineType: "launch" })], wiring, AT)).toBeUndefined();
    expect([...lessonFactors(wiring, faults, undefined).factors]).toEqual(faults.map(() => 1));
  });

  test("their mean over the generic rates is 1, however many there are", () => {
    const all = rates.reduce((a, b) => a + b, 0);
    for (const count of [1, 7, 200]) {
      const factors = factorsOf(Array.from({ length: count }, (_, i) => lesson({ id: `${i}` })));
      const mean = rates.reduce((sum, r, i) => sum + r * factors[i]!, 0) / all;
      expect(mean).toBeCloseTo(1, 10);
    }
  });

  test("one kind of fault at one place follows Dirichlet's posterior, worked out by hand", () => {
    // n lessons of B9, all of them of what a replaced B9 may have been: within each kind of fault the share of B9 is
    // (s·own + n)/(s + n), of the kind (m·kind + n)/(m + N) (Gelman et al., Bayesian Data Analysis, 3.4)
    const n = 12;
    const learned = { causes: [{ things: ["B2"], how: "replaced" as const, suspect: "B2", count: n }] };
    const { factors } = lessonFactors(wiring, faults, learned);
    const own = faults.flatMap((f, i) => (f.place.id === "B2" ? [i] : []));
    const all = rates.reduce((a, b) => a + b, 0);
    const ownRate = own.reduce((sum, i) => sum + rates[i]!, 0);
    const { modes, places, trust } = DEFAULTS.lessons;
    for (const i of own) {
      const alike = own.filter((k) => faults[k]!.mode === faults[i]!.mode);
      const ofKind = (n * alike.reduce((sum, k) => sum + rates[k]!, 0)) / ownRate;
      const count = (n * rates[i]!) / ownRate;
      const kind = faults.reduce((sum, f, k) => sum + (f.mode === faults[i]!.mode ? rates[k]! : 0), 0) / all;
      const share =
        ((modes * kind + ofKind) / (modes + n)) * ((places * (rates[i]! / all / kind) + count) / (places + ofKind));
      expect(factors[i]).toBeCloseTo(1 - trust + (trust * share * all) / rates[i]!, 10);
    }
  });

  test("more lessons lean further; what no lesson names keeps its stated share", () => {
    const few = factorsOf([lesson()]);
    const many = factorsOf(Array.from({ length: 50 }, (_, i) => lesson({ id: `${i}` })));
    const splice = at("S14/spliceHighResistance");
    expect(many[splice]!).toBeGreaterThan(few[splice]!);
    expect(few[splice]!).toBeGreaterThan(1);
    expect(Math.min(...many)).toBeGreaterThanOrEqual(1 - DEFAULTS.lessons.trust);
  });

  test("a lesson about a thing that the wiring no longer has changes nothing", () => {
    const gone = lesson({ suspect: "S99", repairs: [{ things: ["S99"], how: "repaired" }] });
    expect([...factorsOf([gone])]).toEqual(faults.map(() => 1));
  });
});

describe("in a job", () => {
  const learned = learnFrom(
    Array.from({ length: 20 }, (_, i) => lesson({ id: `${i}`, suspect: "X5:4", repairs: [TERMINAL] })),
    tug(),
    AT,
  )!;

  test("the entry leans the ranking, and taken back it does not", () => {
    const told = demoCase("tug-4-ground.case.json").entries.filter((e) => e.type === "code" || e.type === "scan");
    const predictor = new Predictor(tug());
    const shareOf = (list: readonly Entry[]) => analyse(predictor, list, { quick: true }).suspicion.get("X5:4") ?? 0;
    const undone: Entry[] = [learned, ...told, { type: "undo", at: AT, target: 1 }];
    const generic = shareOf(undone);
    expect(generic).toBeGreaterThan(0);
    expect(shareOf([learned, ...told])).toBeGreaterThan(1.5 * generic);
    expect(shareOf(told)).toBeCloseTo(generic, 12);
    expect(fold(undone).learned).toBeUndefined();
  });

  test("a closed job stays closed when lessons are added", () => {
    const open = (list: readonly Entry[]) => fold(list).closed;
    expect(open(proven.entries)).toBeDefined();
    expect(open([...proven.entries, learned])).toBe(open(proven.entries));
  });

  test("a case with it reads; one without causes, or with none of a job, does not", () => {
    const withEntry = (entry: unknown) =>
      readCase({ ...demoCase("tug-4-ground.case.json"), entries: [entry] } as unknown as Case);
    expect(withEntry(learned).ok).toBe(true);
    for (const bad of [{ causes: [] }, { lessons: 0 }, { causes: [{ ...learned.causes[0], count: -1 }] }])
      expect(withEntry({ ...learned, ...bad }).ok).toBe(false);
  });
});

describe("finding what was seen before", () => {
  const list = [
    lesson({ id: "same", codes: ["P0237", "P0522", "P1A41"] }),
    lesson({ id: "half", codes: ["P0237"] }),
    lesson({ id: "none", codes: ["P0117"] }),
    lesson({ id: "elsewhere", wiring: "Launch", codes: ["P0237", "P0522", "P1A41"] }),
    lesson({ id: "later", codes: ["P0237"], closed: "2026-11-02" }),
  ];
  test("the most alike first, of equal ones the latest; other wirings behind", () => {
    const found = seenBefore(list, tug(), ["P0237", "P0522", "P1A41"]);
    expect(found.map((s) => s.lesson.id)).toEqual(["same", "elsewhere", "later", "half"]);
    expect(found[0]!.alike).toBe(1);
    expect(found[2]!.alike).toBeCloseTo(1 / 3); // one of three: Jaccard 1901
  });
  test("every word has to be found, whatever its capitals", () => {
    expect(isFound(list[0]!, "s14 CORRODED p0522")).toBe(true);
    expect(isFound(list[0]!, "s14 launch")).toBe(false);
    expect(isFound(list[0]!, "")).toBe(true);
  });
});

describe("how often proofs held", () => {
  test("by what was claimed, with room for chance", () => {
    const list = [
      ...Array.from({ length: 9 }, (_, i) => lesson({ id: `a${i}`, claimed: 0.96, held: "stillGood" })),
      lesson({ id: "b", claimed: 0.96, held: "cameBack" }),
      lesson({ id: "c", claimed: 0.96 }),
      lesson({ id: "d", claimed: 0.8, held: "somethingElse" }),
    ];
    const bands = heldBands(list);
    expect(bands.map((b) => [b.from, b.proofs, b.asked, b.held])).toEqual([
      [0, 0, 0, 0],
      [0.7, 1, 1, 1],
      [0.9, 0, 0, 0],
      [0.95, 11, 10, 9],
      [0.98, 0, 0, 0],
    ]);
    expect(heldByWork(list)).toEqual([{ how: "repaired", asked: 11, held: 10 }]);
  });
  test("Wilson's interval: 9 of 10 at 95 % two-sided is 0.596 to 0.982 (value from memory), narrower at 90 %", () => {
    const { low, high } = wilson(9, 10);
    expect(low).toBeGreaterThan(0.596);
    expect(low).toBeLessThan(0.7);
    expect(high).toBeLessThan(0.982);
    expect(wilson(10, 10).high).toBe(1);
    expect(wilson(0, 10).low).toBe(0);
  });
});

test.each([
  ["", "file.empty"],
  ['{"format":"radicula/notebook","version":1,"lessons":[', "file.cut-short"],
  ['{"format":"radicula/case","version":1,"lessons":[]}', "file.wrong-format"],
  [JSON.stringify(notebookOf([lesson(), lesson()])), "notebook.twice"],
  [JSON.stringify(notebookOf([lesson({ closed: "yesterday" })])), "schema.invalid-format"],
  [JSON.stringify(notebookOf([lesson({ claimed: 97 })])), "schema.too-big"],
])("a notebook that does not read is refused with its reason (%#)", (text, code) => {
  const read = parseNotebook(text);
  expect(read.ok ? [] : read.issues.map((i) => i.code)).toContain(code);
});
