import prand from "pure-rand";
import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { KeyState, Wiring } from "../format/wiring.js";
import type { StimulusOf, ValueOf } from "../network/builder.js";
import { middle, nominalValue } from "../network/compile.js";
import type { Circuit } from "../network/element.js";
import { compileState, isSpecial } from "../network/state.js";

/** Uniform numbers in [0, 1), repeatable from a seed. */
export function uniform(seed: number): () => number {
  const generator = prand.mersenne(seed);
  return () => (prand.unsafeUniformIntDistribution(0, 0x3fffffff, generator) + 0.5) / 0x40000000;
}

/**
 * One of several joint guesses at everything not exactly known: values within their tolerance and the true
 * conditions at each sensor. Draw 0 is nominal. The same draw gives the same guesses in every key state, so that
 * an unknown pressure stays one and the same unknown at every pin of its signal.
 *
 * Draws are stratified (Latin hypercube; McKay, Beckman & Conover 1979): among those that are not nominal each
 * parameter visits every one of as many strata once.
 */
export class Draws {
  private readonly strata = new Map<string, Float64Array>();
  private readonly random: () => number;
  private readonly circuits: Partial<Record<KeyState, Circuit[]>> = {};
  constructor(
    private readonly wiring: Wiring,
    readonly count: number,
    seed: number,
  ) {
    this.random = uniform(seed);
    // fixes the order in which parameters are met
    for (let draw = 0; draw < count; draw++) this.circuit({ key: "on", unplugged: [] }, draw);
  }

  /** The circuit of one draw in a machine state. Those of plain states are kept. */
  circuit(state: State, draw: number): Circuit {
    const make = () =>
      compileState(
        this.wiring,
        state,
        draw === 0 ? nominalValue : this.value(draw),
        draw === 0 ? middle : this.stimulus(draw),
      );
    if (isSpecial(state)) return make();
    return ((this.circuits[state.key] ??= [])[draw] ??= make());
  }

  /** Where in its range a sensor's true condition lies in each draw, 0 to 1; undefined for what has none. */
  restOf(thing: string): readonly number[] | undefined {
    const strata = this.strata.get(`${thing} at rest`);
    return strata ? Array.from(strata, (u, d) => (d === 0 ? 0.5 : u)) : undefined;
  }

  private position(parameter: string, draw: number): number {
    let strata = this.strata.get(parameter);
    if (!strata) {
      const drawn = Math.max(1, this.count - 1); // the nominal draw has none
      strata = Float64Array.from({ length: this.count }, (_, i) => (i === 0 ? 0.5 : (i - 1 + this.random()) / drawn));
      for (let i = strata.length - 1; i > 1; i--) {
        // Fisher & Yates
        const j = 1 + Math.floor(this.random() * i);
        [strata[i], strata[j]] = [strata[j]!, strata[i]!];
      }
      this.strata.set(parameter, strata);
    }
    return strata[draw]!;
  }
  private value(draw: number): ValueOf {
    return (thing, parameter, nominal, kind) =>
      nominal * (1 + (2 * this.position(`${thing} ${parameter}`, draw) - 1) * DEFAULTS.tolerance[kind]);
  }
  private stimulus(draw: number): StimulusOf {
    return (thing, range) => range[0] + (range[1] - range[0]) * this.position(`${thing} at rest`, draw);
  }
}
