import { DEFAULTS } from "../defaults.js";
import { KeyState, type Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { BLOWN } from "../network/conductances.js";
import { NO_EDIT } from "../network/element.js";
import { elementAmpere, nodeVolt } from "../network/observe.js";
import { prepare, settle } from "../network/settle.js";
import { createSolver } from "../network/solver.js";
import { conditionsOf } from "../network/state.js";
import { Rig } from "./rig.js";

/**
 * A healthy battery giving more than this contradicts the document, ampere. Cranking is left out: starters are not
 * drawn.
 */
const HEAVY_AMPERE = 300;
/** Two steady states further apart than this anywhere are two, volt. */
const APART_VOLT = 0.01;

/**
 * Solves the document as drawn in every key position and says by name what cannot be: no steady state, two of them, a
 * fuse that melts, a battery that is shorted, a module that stays asleep, a code that a healthy machine would set.
 */
export function inspectCircuit(wiring: Wiring): Issue[] {
  const found = new Map<string, Issue>();
  const add = (name: string, i: Issue) => {
    if (!found.has(name)) found.set(name, i);
  };
  for (const d of wiring.devices)
    if (d.kind === "module" && !d.pins.some((p) => p.role === "ground"))
      add(`ground ${d.id}`, issue("circuit.module-without-ground", [], { module: d.id }));
  const rig = new Rig(wiring);
  for (const key of KeyState.options) {
    const state = { key, unplugged: [] };
    const circuit = rig.circuit(state);
    const s = createSolver(circuit);
    const conditions = conditionsOf(circuit, state);
    const outcome = prepare(s, conditions);
    settle(s, NO_EDIT);
    if (!outcome.settled) {
      add(
        `swings ${outcome.swinging.join()}`,
        issue("circuit.no-steady-state", [], { key, devices: outcome.swinging.slice(0, 8) }),
      );
      continue;
    }
    const volts = circuit.nodes.map((_, i) => nodeVolt(s, i));
    circuit.elements.forEach((e, i) => {
      if (e.type === "fuse" && s.operating.mode[i] === BLOWN)
        add(`melts ${e.id}`, issue("circuit.fuse-melts", [], { key, fuse: e.id.replace(/^fuse /, "") }));
      if (e.id.startsWith("battery ") && key !== "cranking" && Math.abs(elementAmpere(s, i)) > HEAVY_AMPERE)
        add(
          `heavy ${e.id}`,
          issue("circuit.battery-shorted", [], {
            key,
            battery: e.id.replace(/^battery /, ""),
            ampere: Math.round(Math.abs(elementAmpere(s, i))),
          }),
        );
    });
    for (const d of wiring.devices) {
      const gate = circuit.gateOf.get(d.id);
      if (d.kind === "module" && key === "on" && gate !== undefined && s.operating.awake[gate] === 0)
        add(
          `asleep ${d.id}`,
          issue("circuit.module-asleep", [], { module: d.id, share: DEFAULTS.module.wakesAtShare }),
        );
    }
    if (prepare(s, conditions, "asleep").settled) {
      settle(s, NO_EDIT);
      const other = circuit.nodes.findIndex((_, i) => Math.abs(nodeVolt(s, i) - volts[i]!) > APART_VOLT);
      if (other >= 0)
        add(
          `two ${circuit.nodes[other]}`,
          issue("circuit.two-steady-states", [], {
            key,
            point: circuit.nodes[other]!,
            first: volts[other]!,
            second: nodeVolt(s, other),
          }),
        );
    }
  }
  for (const m of rig.codes())
    add(`code ${m.index}`, issue("circuit.code-when-healthy", ["codes", m.index], { code: m.code.id, key: m.key }));
  return [...found.values()];
}
