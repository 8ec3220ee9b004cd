import fc from "fast-check";
import { Matrix, solve as denseSolve } from "ml-matrix";
import {
  createSolver,
  measureOhms,
  nodeOhm,
  ohmBetween,
  openedBy,
  prepare,
  residual,
  settle,
} from "../../src/index.js";
import { circuit, resistor, solved, source } from "../circuits.js";

describe("textbook circuits (any circuits textbook)", () => {
  test("a voltage divider, and the same divider loaded by a 10 MΩ meter", () => {
    const c = solved(circuit(3, [source(1, 0, 12, 1e-3), resistor(1, 2, 1e6), resistor(2, 0, 1e6)]));
    expect(c.volt(2)).toBeCloseTo(6, 6);
    expect(c.ohm(2)).toBeCloseTo(5e5, -2);
    // 0.5 MΩ behind a 10 MΩ meter: 6 · 10/10.5
    expect(c.meter(2)).toBeCloseTo((6 * 10) / 10.5, 5);
  });
  test("an unbalanced Wheatstone bridge", () => {
    // 10 V, 100/200 left, 300/150 right, 50 across: by hand (mesh equations in rational numbers)
    const c = solved(
      circuit(4, [
        source(1, 0, 10, 1e-9),
        resistor(1, 2, 100),
        resistor(2, 0, 200),
        resistor(1, 3, 300),
        resistor(3, 0, 150),
        resistor(2, 3, 50),
      ]),
    );
    const G = [
      [1 / 100 + 1 / 200 + 1 / 50, -1 / 50],
      [-1 / 50, 1 / 300 + 1 / 150 + 1 / 50],
    ] as const;
    const det = G[0][0] * G[1][1] - G[0][1] * G[1][0];
    expect(c.volt(2)).toBeCloseTo(((10 / 100) * G[1][1] - G[0][1] * (10 / 300)) / det, 8);
    expect(c.volt(3)).toBeCloseTo((G[0][0] * (10 / 300) - G[1][0] * (10 / 100)) / det, 8);
  });
  test("an R-2R ladder halves at every rung and shows R at its end", () => {
    const R = 1000;
    const c = solved(
      circuit(5, [
        source(1, 0, 8, 1e-9),
        resistor(1, 2, R),
        resistor(2, 0, 2 * R),
        resistor(2, 3, R),
        resistor(3, 0, 2 * R),
        resistor(3, 4, R),
        resistor(4, 0, 2 * R),
        resistor(4, 0, 2 * R),
      ]),
    );
    // seen from the driven end each rung is 2R against 2R: V2 = 8·(R)/(R+R)
    expect(c.volt(2)).toBeCloseTo(4, 6);
    expect(c.volt(3)).toBeCloseTo(2, 6);
    expect(c.volt(4)).toBeCloseTo(1, 6);
  });
  test("battery positive to a corroded ground pin: 12.4 V behind 100 kΩ reads 12.28 V on 10 MΩ (computable)", () => {
    const c = solved(circuit(3, [source(1, 0, 12.4, 1e-3), resistor(2, 1, 1e5)]));
    expect(c.meter(2)).toBeCloseTo(12.28, 2);
  });
  test("an open wire floats: no voltage is claimed, and a meter shows 0", () => {
    const c = solved(circuit(4, [source(1, 0, 12, 0.01), resistor(1, 2, Infinity), resistor(2, 3, 100)]));
    expect(c.volt(2)).toBeNaN();
    expect(c.volt(3)).toBeNaN();
    expect(c.ohm(3)).toBe(Infinity);
    expect(c.meter(3)).toBe(0);
    expect(c.volt(1)).toBeCloseTo(12, 9);
  });
});

describe("a reference with a current limit", () => {
  const reference = (load: number) =>
    solved(
      circuit(2, [
        { type: "reference", a: 1, b: 0, ohm: 0.2, volt: 5, limitAmpere: 0.15, offOhm: 1e4 },
        resistor(1, 0, load),
      ]),
    );
  test.each([
    [1000, (5 * 1000) / 1000.2],
    [5, 0.75],
    [0.5, 0.075],
  ])("into %d Ω", (load, volt) => {
    const c = reference(load);
    expect(c.outcome.settled).toBe(true);
    expect(c.volt(1)).toBeCloseTo(volt, 3);
  });
  test("pushed above its own voltage it lets go", () => {
    const c = solved(
      circuit(2, [
        { type: "reference", a: 1, b: 0, ohm: 0.2, volt: 5, limitAmpere: 0.15, offOhm: 1e4 },
        source(1, 0, 12, 10),
      ]),
    );
    expect(c.volt(1)).toBeGreaterThan(11.9);
  });
});

describe("a fuse", () => {
  test("holds below 135 % of its rating and melts above (ISO 8820-3 operates from 135 % on; value from memory)", () => {
    const at = (load: number) =>
      solved(
        circuit(3, [
          source(1, 0, 12, 0.001),
          { type: "fuse", a: 1, b: 2, ohm: 0.0075, limitAmpere: 13.5 },
          resistor(2, 0, load),
        ]),
      ).volt(2);
    expect(at(1)).toBeGreaterThan(11.8); // 11.9 A
    expect(at(0.85)).toBeCloseTo(0, 6); // 14 A: gone
  });
});

const networks = fc
  .record({
    n: fc.integer({ min: 3, max: 12 }),
    seeds: fc.array(fc.tuple(fc.nat(1000), fc.nat(1000), fc.double({ min: -3, max: 7, noNaN: true })), {
      minLength: 6,
      maxLength: 40,
    }),
  })
  .map(({ n, seeds }) => {
    const parts = seeds.map(([a, b, l]) => resistor(a % n, b % n, 10 ** l)).filter((r) => r.a !== r.b);
    for (let i = 1; i < n; i++) parts.push(resistor(i, i - 1, 10 ** ((i % 5) - 2))); // connected
    return { n, parts };
  });

describe("properties (fast-check)", () => {
  test("agrees with a dense pivoted solve (ml-matrix) as far as that one is exact", () => {
    fc.assert(
      fc.property(networks, ({ n, parts }) => {
        const all = [...parts, source(1, 0, 12, 0.01)];
        const c = solved(circuit(n, all));
        const G = Matrix.zeros(n - 1, n - 1);
        const I = Matrix.zeros(n - 1, 1);
        for (const p of all) {
          const g = 1 / p.ohm;
          for (const [x, y] of [
            [p.a, p.b],
            [p.b, p.a],
          ] as const)
            if (x) {
              G.set(x - 1, x - 1, G.get(x - 1, x - 1) + g);
              if (y) G.set(x - 1, y - 1, G.get(x - 1, y - 1) - g);
            }
        }
        I.set(0, 0, 12 / 0.01);
        const dense = denseSolve(G, I);
        for (let i = 1; i < n; i++) expect(Math.abs(c.volt(i) - dense.get(i - 1, 0))).toBeLessThan(1e-4);
      }),
      { numRuns: 150, seed: 7 },
    );
  });
  test("superposition: two sources together are the sum of each alone", () => {
    fc.assert(
      fc.property(networks, fc.double({ min: 1, max: 24, noNaN: true }), ({ n, parts }, v) => {
        const volts = (a: number, b: number) => {
          const c = solved(circuit(n, [...parts, source(1, 0, a, 1), source(n - 1, 0, b, 2)]));
          return Array.from({ length: n - 1 }, (_, i) => c.volt(i + 1));
        };
        const both = volts(12, v);
        const one = volts(12, 0);
        const other = volts(0, v);
        both.forEach((x, i) => expect(x).toBeCloseTo(one[i]! + other[i]!, 9));
      }),
      { numRuns: 100, seed: 11 },
    );
  });
  test("reciprocity: a passive network carries i → j as it carries j → i", () => {
    fc.assert(
      fc.property(networks, ({ n, parts }) => {
        // 1 A
        const inject = (at: number, see: number) => solved(circuit(n, [...parts, source(at, 0, 1e9, 1e9)])).volt(see);
        // the source's own 1 GΩ is in both; passive all the same
        const a = solved(circuit(n, [...parts, resistor(1, 0, 1e9), source(n - 1, 0, 1e9, 1e9)])).volt(1);
        const b = solved(circuit(n, [...parts, resistor(n - 1, 0, 1e9), source(1, 0, 1e9, 1e9)])).volt(n - 1);
        expect(a).toBeCloseTo(b, 6);
        expect(inject(1, 1)).toBeGreaterThan(0);
      }),
      { numRuns: 100, seed: 13 },
    );
  });
  test("scaling the supply scales every voltage", () => {
    fc.assert(
      fc.property(networks, fc.double({ min: 0.1, max: 3, noNaN: true }), ({ n, parts }, k) => {
        const at = (v: number) => {
          const c = solved(circuit(n, [...parts, source(1, 0, v, 0.1)]));
          return Array.from({ length: n - 1 }, (_, i) => c.volt(i + 1));
        };
        const base = at(12);
        at(12 * k).forEach((x, i) => expect(x).toBeCloseTo(k * base[i]!, 9));
      }),
      { numRuns: 60, seed: 17 },
    );
  });
  test("a fault of zero size changes nothing, and Kirchhoff's current law holds", () => {
    fc.assert(
      fc.property(networks, fc.nat(100), ({ n, parts }, pick) => {
        const c = circuit(n, [...parts, source(1, 0, 12, 0.1)]);
        const healthy = solved(c);
        const same = solved(c, { series: [{ element: pick % c.elements.length, ohm: 0 }] });
        for (let i = 1; i < n; i++) expect(same.volt(i)).toBe(healthy.volt(i));
        expect(residual(healthy.s, {})).toBeLessThan(1e-6);
      }),
      { numRuns: 60, seed: 19 },
    );
  });
  test("the resistance at a node is what a test current finds", () => {
    fc.assert(
      fc.property(networks, ({ n, parts }) => {
        const quiet = solved(circuit(n, parts));
        for (let i = 1; i < n; i++) {
          const pushed = solved(circuit(n, [...parts, source(i, 0, 1e12, 1e12)])); // 1 A from a near-perfect source
          expect(pushed.volt(i) / quiet.ohm(i)).toBeCloseTo(1, 4);
        }
      }),
      { numRuns: 40, seed: 23 },
    );
  });
});

test(
  "resistance between two nodes, with resistors the pattern has no place for, is what a circuit drawn with " +
    "them has",
  () => {
    fc.assert(
      fc.property(
        networks,
        fc.tuple(fc.nat(100), fc.nat(100), fc.nat(100), fc.nat(100)),
        fc.double({ min: -2, max: 5, noNaN: true }),
        ({ n, parts }, picks, l) => {
          const [a, b, c, d] = picks.map((x) => 1 + (x % (n - 1))) as [number, number, number, number];
          if (a === b || c === d) return;
          const shunts = [
            { a, b, ohm: 10 ** l },
            { a: c, b: d, ohm: 10 ** (3 - l) },
          ];
          const withEdit = solved(circuit(n, parts), { shunts });
          const drawn = solved(circuit(n, [...parts, ...shunts.map((x) => resistor(x.a, x.b, x.ohm))]));
          for (const [x, y] of [
            [a, b],
            [a, d],
            [1, n - 1],
            [n - 1, 0],
          ] as const) {
            const want = ohmBetween(drawn.s, x, y);
            expect(Math.abs(ohmBetween(withEdit.s, x, y) - want)).toBeLessThan(1e-6 * want + 1e-9);
          }
          for (let i = 1; i < n; i++)
            expect(Math.abs(withEdit.ohm(i) - drawn.ohm(i))).toBeLessThan(1e-6 * drawn.ohm(i) + 1e-9);
        },
      ),
      { numRuns: 120, seed: 29 },
    );
  },
);

test("ohms left alone below a tolerance are those of the circuit, not of the fault solved before", () => {
  const parts = [
    source(1, 0, 12, 0.01),
    resistor(1, 2, 0.001),
    resistor(2, 3, 0.001),
    resistor(3, 4, 0.001),
    resistor(4, 0, 5000),
  ];
  const c = circuit(5, parts);
  const s = createSolver(c);
  prepare(s, { circuit: c, open: openedBy(c, []), keyOn: true });
  // a first fault that moves a lot leaves its vectors behind
  settle(s, {
    shunts: [
      { a: 4, b: 0, ohm: 0.5 },
      { a: 3, b: 0, ohm: 2 },
    ],
  });
  measureOhms(s);
  // two shunts beside milliohms: neither matters to any resistance
  const edit = {
    shunts: [
      { a: 1, b: 2, ohm: 0.5 },
      { a: 2, b: 3, ohm: 0.5 },
    ],
  };
  settle(s, edit);
  measureOhms(s, 200);
  const drawn = solved(circuit(5, [...parts, ...edit.shunts.map((x) => resistor(x.a, x.b, x.ohm))]));
  for (let n = 1; n < 5; n++) expect(Math.abs(nodeOhm(s, n) - drawn.ohm(n))).toBeLessThan(1e-3);
});

test("a part that floats takes the voltage of what it is joined to, and its resistance", () => {
  // 12 V behind 1 kΩ at node 1; nodes 2 and 3 hang together and on nothing
  const c = circuit(4, [source(1, 0, 12, 1000), resistor(2, 3, 50)]);
  const alone = solved(c);
  const joined = solved(c, { shunts: [{ a: 1, b: 2, ohm: 10 }] });
  const drained = solved(c, {
    shunts: [
      { a: 1, b: 2, ohm: 10 },
      { a: 3, b: 0, ohm: 940 },
    ],
  });
  expect([alone.volt(2), alone.ohm(3)]).toEqual([NaN, Infinity]);
  expect(joined.volt(3)).toBeCloseTo(12, 12);
  expect([joined.ohm(2), joined.ohm(3)].map((x) => Math.round(x))).toEqual([1010, 1060]);
  expect(drained.volt(3)).toBeCloseTo((12 * 940) / 2000, 9);
  expect(ohmBetween(joined.s, 1, 3)).toBeCloseTo(60, 6);
});
