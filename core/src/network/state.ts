import type { State } from "../format/case.js";
import type { KeyState, Wiring } from "../format/wiring.js";
import type { StimulusOf, ValueOf } from "./builder.js";
import { compile, middle, nominalValue, type Fitted } from "./compile.js";
import type { Circuit } from "./element.js";
import { connectorOf, pinBehind } from "../wiring/points.js";
import { openedBy, type Conditions } from "./solver.js";

/** The circuit as it stands in a machine state: key, true conditions set on purpose, jumpers, loads, fuses pulled. */
export function compileState(
  wiring: Wiring,
  state: State,
  value: ValueOf = nominalValue,
  stimulus: StimulusOf = middle,
): Circuit {
  return compile(wiring, state.key, value, stimulus, fittedOf(state));
}

export const fittedOf = ({ jumpers, loads, pulled, breakers, stimulus }: State): Fitted => ({
  jumpers,
  loads,
  pulled,
  breakers,
  conditions: stimulus,
});

/** Whether the engine turns: speed sensors see steel pass. */
export const isTurning = (key: KeyState): boolean => key === "cranking" || key === "running";
/**
 * Whether a state changes more than the key and what is plugged: its circuit is then not that of the plain document.
 */
export const isSpecial = (s: State): boolean =>
  Boolean(s.stimulus || s.jumpers?.length || s.loads?.length || s.pulled?.length || s.breakers?.length);

/** A state whose jumpers stand on a loose part: at its own pins, not at the harness side of its unplugged connector. */
export function onLoosePart(state: State): State {
  if (!state.jumpers) return state;
  const own = (p: string) => (state.unplugged.includes(connectorOf(p)) ? pinBehind(p) : p);
  return { ...state, jumpers: state.jumpers.map((j) => ({ ...j, from: own(j.from), to: own(j.to) })) };
}

/** What is solved under in a machine state. */
export function conditionsOf(
  circuit: Circuit,
  state: State,
  look: { steel?: boolean | undefined; phase?: number | undefined; talker?: number | undefined } = {},
): Conditions {
  const asleep = state.asleep?.flatMap((id) => {
    const gate = circuit.gateOf.get(id);
    return gate === undefined ? [] : [gate];
  });
  return {
    circuit,
    open: openedBy(circuit, state.unplugged),
    keyOn: state.key !== "off",
    ...(asleep?.length ? { asleep } : {}),
    ...look,
  };
}

/** One name for equal states, whatever order things stand in. */
export function stateName(s: State): string {
  let name = names.get(s);
  if (name === undefined) names.set(s, (name = nameOf(s)));
  return name;
}
/** Names by state: states are never altered, and asked for their names all the time. */
const names = new WeakMap<State, string>();
function nameOf(s: State): string {
  const plain = `${s.key} -${[...s.unplugged].sort().join(",")}`;
  const more = [s.stimulus, s.jumpers, s.loads, s.pulled, s.breakers, s.asleep];
  return more.some((x) => x !== undefined) ? `${plain} ${JSON.stringify(more)}` : plain;
}
