import fc from "fast-check";
import {
  batteryVolt,
  compile,
  conditionsOf,
  createSolver,
  DEFAULTS,
  elementAmpere,
  filamentOf,
  filamentOhm,
  generateFaults,
  generateHarness,
  joinEdits,
  measureOhms,
  nodeOhm,
  nodeVolt,
  prepare,
  settle,
  type Circuit,
  type Edit,
  type Element,
} from "../../src/index.js";
import { circuit, resistor, solved, source } from "../circuits.js";

describe("elements alone, against their closed forms", () => {
  const feed = source(1, 0, 12, 1e-6);
  test("diode: blocks backwards, 0.65 V and its resistance forwards", () => {
    const diode = (a: number, b: number) =>
      solved(circuit(3, [feed, { type: "diode", a, b, ohm: 0.03, volt: 0.65 }, resistor(2, 0, 100)]));
    expect(diode(1, 2).volt(2)).toBeCloseTo(((12 - 0.65) * 100) / 100.03, 4);
    expect(diode(2, 1).volt(2)).toBeCloseTo((12 * 100) / 30e6, 6);
  });
  test.each([
    [1000, (12 * 1000) / 1010],
    [6, 3],
    [0.5, 0.25],
  ])("limiter of 0.5 A with 10 Ω inside, into %d Ω", (load, volt) => {
    expect(
      solved(circuit(3, [feed, { type: "limiter", a: 1, b: 2, ohm: 10, limitAmpere: 0.5 }, resistor(2, 0, load)])).volt(
        2,
      ),
    ).toBeCloseTo(volt, 2);
  });
  test("a one-way limiter gives nothing back", () => {
    const back = solved(
      circuit(3, [
        source(2, 0, 14, 1),
        source(1, 0, 12, 1),
        { type: "limiter", a: 1, b: 2, ohm: 0.1, volt: 1, limitAmpere: 5 },
      ]),
    );
    expect(back.volt(2)).toBeCloseTo(14, 4);
    expect(back.volt(1)).toBeCloseTo(12, 4);
  });
  test("filament: R = R_hot·√(V/V_nom), a tenth cold; in series with a resistor by the quadratic it makes", () => {
    const lamp = filamentOf(21, 12);
    expect(lamp.ohm).toBeCloseTo(144 / 21, 9);
    expect(
      [filamentOhm(lamp, 12), filamentOhm(lamp, 3), filamentOhm(lamp, 0), filamentOhm(lamp, -3)].map(
        (r) => r / lamp.ohm,
      ),
    ).toEqual([1, 0.5, DEFAULTS.lamp.coldShare, 0.5]);
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 200, noNaN: true }), (r) => {
        const v = solved(circuit(3, [feed, resistor(1, 2, r), { type: "filament", a: 2, b: 0, ...lamp }])).volt(2);
        const k = Math.sqrt(lamp.volt) / lamp.ohm; // I = k·√V; (12 − V)/r = k·√V
        const root = (-k * r + Math.sqrt(k * k * r * r + 48)) / 2;
        if (root * root > 0.01 * lamp.volt) expect(v).toBeCloseTo(root * root, 5);
        else expect(v).toBeCloseTo((12 * lamp.ohm * 0.1) / (r + lamp.ohm * 0.1), 3);
      }),
      { numRuns: 60, seed: 31 },
    );
  });
  test("a dark lamp that was lit settles at nothing, whichever way it is looked at", () => {
    const c = circuit(3, [feed, resistor(1, 2, 0.01), { type: "filament", a: 2, b: 0, ...filamentOf(5, 12) }]);
    const off = solved(c, { replace: [{ element: 0, by: { volt: 0 } }] });
    expect(off.outcome.settled).toBe(true);
    expect(Math.abs(off.volt(2))).toBeLessThan(1e-9);
    expect(solved(c, { replace: [{ element: 0, by: { volt: -12 } }] }).volt(2)).toBeCloseTo(-12, 1);
  });
  test(
    "a reference that folds back stands where its load line says: full limit above 1 V, the small current " + "below",
    () => {
      const into = (load: number) =>
        solved(
          circuit(2, [
            {
              type: "reference",
              a: 1,
              b: 0,
              ohm: 0.2,
              volt: 5,
              limitAmpere: 0.1,
              foldAmpere: 0.02,
              foldVolt: 1,
              offOhm: 1e4,
            },
            resistor(1, 0, load),
          ]),
        ).volt(1);
      expect(into(30)).toBeCloseTo(3, 2);
      expect(into(11)).toBeCloseTo(1.1, 2);
      expect(into(9)).toBeCloseTo(0.18, 3);
      expect(into(1000)).toBeCloseTo(5, 2);
    },
  );
  test("gates: every group must be live, either polarity where it does not matter, and what swings is named", () => {
    const gated = (volts: [number, number], either = false) =>
      solved(
        circuit(
          5,
          [
            source(1, 0, volts[0], 1),
            source(2, 0, volts[1], 1),
            source(3, 0, 5, 1),
            { ...resistor(3, 4, 1), gate: 0 },
            resistor(4, 0, 9),
          ],
          [{ high: [[1], [2]], low: 0, aboveVolt: 6, either }],
        ),
      ).volt(4);
    expect(gated([12, 12])).toBeCloseTo(45 / 11, 9);
    expect(Number.isNaN(gated([12, 0])) || Math.abs(gated([12, 0])) < 1e-9).toBe(true);
    expect(gated([-12, 12], true)).toBeCloseTo(45 / 11, 9);
    const buzzer = solved(
      circuit(
        3,
        [source(1, 0, 12, 0.1), { ...resistor(1, 2, 0.1), gate: 0, whenAsleep: true }, resistor(2, 0, 100)],
        [{ high: [[2]], low: 0, aboveVolt: 6, either: true }],
      ),
    );
    expect(buzzer.outcome).toMatchObject({ settled: false, swinging: ["g0"] });
  });
});

/** The same circuit with an edit drawn in: what the path of a fault must agree with. */
function drawn(c: Circuit, edit: Edit): Circuit {
  const elements: Element[] = c.elements.map((e, i) => {
    const extra = (edit.series ?? []).reduce((sum, s) => (s.element === i ? sum + s.ohm : sum), 0);
    const by = (edit.replace ?? []).filter((r) => r.element === i).reduce((all, r) => ({ ...all, ...r.by }), {});
    return { ...e, ...by, ohm: e.ohm + extra, offOhm: e.offOhm + extra };
  });
  (edit.shunts ?? []).forEach((s, i) =>
    elements.push({
      ...c.elements[0]!,
      type: s.volt === undefined ? "resistor" : "source",
      id: `fault ${i}`,
      a: s.a,
      b: s.b,
      ohm: s.ohm,
      volt: s.volt ?? 0,
      gate: -1,
      connector: "",
      duty: 1,
      steel: "",
      talks: false,
      offOhm: Infinity,
    }),
  );
  return { ...c, elements, elementOf: new Map(elements.map((e, i) => [e.id, i])) };
}

test(
  "differential: a fault along its path says what the circuit drawn with it says, solved from nothing; " +
    "volts, ohms and currents",
  () => {
    const wiring = generateHarness({ nodes: 150, seed: 11 });
    const faults = generateFaults(wiring).filter(
      (f) =>
        f.mode !== "dead" &&
        f.mode !== "referenceDead" &&
        f.mode !== "driverDead" &&
        f.mode !== "busDriverDead" &&
        f.mode !== "moduleUnpowered" &&
        f.mode !== "targetDamaged" &&
        f.mode !== "gapTooLarge",
    );
    let compared = 0;
    let differed = 0;
    for (const key of ["on", "running"] as const) {
      const c = compile(wiring, key);
      const s = createSolver(c);
      const state = { key, unplugged: [] };
      prepare(s, conditionsOf(c, state));
      faults.forEach((f, i) => {
        if (i % 9) return;
        const edit = f.edit(f.severities[f.severities.length >> 1]!, c, batteryVolt(wiring, key));
        if (!settle(s, edit).settled) return;
        measureOhms(s);
        const other = drawn(c, edit);
        const t = createSolver(other);
        if (!prepare(t, conditionsOf(other, state)).settled) return;
        settle(t, {});
        measureOhms(t);
        // starting from healthy and starting from nothing may find two different steady states; they are few and real
        if (c.nodes.some((_, n) => Math.abs(nodeVolt(s, n) - nodeVolt(t, n)) > 0.05)) {
          differed++;
          return;
        }
        c.nodes.forEach((name, n) => {
          const a = nodeVolt(s, n);
          const b = nodeVolt(t, n);
          compared++;
          if (Number.isNaN(a) !== Number.isNaN(b) || Math.abs(a - b) > 1e-7)
            throw new Error(`${f.id} ${key} ${name}: ${a} against ${b}`);
          const x = nodeOhm(s, n);
          const y = nodeOhm(t, n);
          if (x !== y && Math.abs(x - y) > 1e-5 * y + 1e-9)
            throw new Error(`${f.id} ${key} ${name}: ${x} Ω against ${y} Ω`);
        });
        const battery = c.elements.findIndex((e) => e.id.startsWith("battery"));
        expect(elementAmpere(s, battery)).toBeCloseTo(elementAmpere(t, battery), 4);
      });
    }
    expect(compared).toBeGreaterThan(15_000);
    expect(differed).toBeLessThan(10);
  },
);

test("order does not matter: one fault after another on one solver leaves nothing behind", () => {
  const wiring = generateHarness({ nodes: 120, seed: 12 });
  const c = compile(wiring, "running");
  const s = createSolver(c);
  prepare(s, conditionsOf(c, { key: "running", unplugged: [] }));
  const edits = generateFaults(wiring)
    .filter((_, i) => i % 5 === 0)
    .map((f) => f.edit(f.severities.at(-1)!, c, 14));
  const read = (e: Edit) => {
    const { settled } = settle(s, e);
    measureOhms(s);
    return settled ? c.nodes.map((_, n) => [nodeVolt(s, n), nodeOhm(s, n)]) : [];
  };
  const forwards = edits.map(read);
  const backwards = [...edits].reverse().map(read).reverse();
  expect(backwards).toEqual(forwards);
  expect(read({})).toEqual(read({ series: [] }));
});

test("two faults together are the joined edit; a joined nothing is nothing", () => {
  const c = circuit(4, [source(1, 0, 12, 1), resistor(1, 2, 10), resistor(2, 3, 10), resistor(3, 0, 10)]);
  const both = solved(c, joinEdits({ series: [{ element: 1, ohm: 5 }] }, { shunts: [{ a: 3, b: 0, ohm: 10 }] }, {}));
  expect(both.volt(3)).toBeCloseTo((12 * 5) / (1 + 15 + 10 + 5), 12);
  expect(solved(c, joinEdits()).volt(3)).toBe(solved(c).volt(3));
});

test("in a passive network a voltage moves one way as a resistance grows (property)", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(6), fc.nat(6), fc.double({ min: -2, max: 5, noNaN: true })), {
        minLength: 4,
        maxLength: 20,
      }),
      fc.nat(50),
      (list, pick) => {
        const parts = [
          source(1, 0, 12, 0.1),
          ...list.filter(([a, b]) => a !== b).map(([a, b, l]) => resistor(a, b, 10 ** l)),
          ...[2, 3, 4, 5, 6].map((i) => resistor(i, i - 1, 100)),
        ];
        const c = circuit(7, parts);
        const element = 1 + (pick % (parts.length - 1));
        const at = [0.01, 1, 100, 1e4, 1e6].map((ohm) => {
          const x = solved(c, { series: [{ element, ohm }] });
          return [1, 2, 3, 4, 5, 6].map((n) => x.volt(n));
        });
        for (let n = 0; n < 6; n++) {
          const steps = at.slice(1).map((v, i) => v[n]! - at[i]![n]!);
          expect(steps.every((d) => d > -1e-9) || steps.every((d) => d < 1e-9)).toBe(true);
        }
      },
    ),
    { numRuns: 80, seed: 37 },
  );
});
