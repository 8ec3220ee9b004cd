import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import { phi } from "./likelihood.js";

/** A circuit is up above half of what feeds it, within this part of the nominal voltage. Judgement. */
const EDGE_SHARE = 0.05;

/** Whether a new fuse or a breaker holds: the circuit behind it is up in that state. */
export function addHoldsLikelihood(
  predictor: Predictor,
  h: number,
  clue: { readonly fuse: string; readonly held: boolean; readonly state: State },
  wanted: Uint8Array,
  places: Float64Array,
): void {
  const { draws } = predictor;
  const used = predictor.drawsUsed(h);
  const at = (end: "in" | "out") =>
    predictor.predictAt(
      h,
      { instrument: "voltmeter", point: `${clue.fuse}:${end}`, black: undefined, state: clue.state },
      wanted,
    );
  const into = at("in");
  const out = at("out");
  const sure = DEFAULTS.clues.holds;
  for (let place = 0; place < places.length; place++) {
    if (!wanted[place * draws]) continue;
    let up = 0;
    for (let s = place * draws; s < place * draws + used; s++)
      up += phi((out.at(s) - 0.5 * into.at(s)) / (EDGE_SHARE * predictor.wiring.nominalVolt)) / used;
    const p = (2 * sure - 1) * up + (1 - sure);
    places[place] = places[place]! + Math.log(clue.held ? p : 1 - p);
  }
}
