import {
  createSolver,
  measureOhms,
  nodeOhm,
  nodeVolt,
  NO_EDIT,
  openedBy,
  PLAIN,
  prepare,
  settle,
  voltmeter,
  type Circuit,
  type Conditions,
  type Edit,
  type Element,
  type Gate,
  type Solver,
} from "../src/index.js";

export type Part = Partial<Element> & Pick<Element, "type" | "a" | "b" | "ohm">;

/** A circuit from a few elements, as the compiler would make it. Node 0 is chassis. */
export function circuit(
  nodes: number,
  parts: readonly Part[],
  gates: readonly (Partial<Gate> & Pick<Gate, "high" | "low" | "aboveVolt">)[] = [],
): Circuit {
  const elements = parts.map((p, i): Element => ({
    ...PLAIN,
    id: `e${i}`,
    ...p,
    foldAmpere: p.foldAmpere ?? p.limitAmpere ?? Infinity,
  }));
  const names = Array.from({ length: nodes }, (_, i) => (i ? `n${i}` : "chassis"));
  return {
    key: "on",
    nodes: names,
    nodeOf: new Map(names.map((n, i) => [n, i])),
    elements,
    elementOf: new Map(elements.map((e, i) => [e.id, i])),
    gates: gates.map((g, i) => ({ id: `g${i}`, needsKey: false, either: false, lowBelowVolt: Infinity, ...g })),
    gateOf: new Map(),
  };
}

/** Prepares a circuit and settles it with an edit. */
export function solved(c: Circuit, edit: Edit = NO_EDIT, more: Partial<Conditions> = {}) {
  const s: Solver = createSolver(c);
  const conditions: Conditions = { circuit: c, open: openedBy(c, []), keyOn: true, ...more };
  prepare(s, conditions);
  const outcome = settle(s, edit);
  measureOhms(s);
  return {
    s,
    conditions,
    outcome,
    volt: (n: number) => nodeVolt(s, n),
    ohm: (n: number) => nodeOhm(s, n),
    meter: (n: number) => voltmeter(s, n),
  };
}
export const source = (a: number, b: number, volt: number, ohm: number): Part => ({ type: "source", a, b, volt, ohm });
export const resistor = (a: number, b: number, ohm: number): Part => ({ type: "resistor", a, b, ohm });
