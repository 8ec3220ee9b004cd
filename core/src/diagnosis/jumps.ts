import type { Instrument } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";

/** A fuse that melts moves a voltage by more than this share of the nominal one, or it is of no account. Judgement. */
const MAY_JUMP = 0.05;

/**
 * Between two severities a value usually passes through everything that lies between. Not where a fuse melts at one of
 * them and stays whole at the other: there it jumps.
 * @returns whether the value jumps from one sample of a hypothesis to another; `way` is how far it is, volt or ampere
 */
export function jumpsOf(
  predictor: Predictor,
  h: number,
  instrument: Instrument,
): (one: number, other: number, way: number) => boolean {
  // resistance is measured with the key off, a new fuse or none in place
  if (instrument === "ohmmeter" || instrument === "continuity") return () => false;
  const least = instrument === "clamp" ? 0 : MAY_JUMP * predictor.wiring.nominalVolt;
  return (one, other, way) => Math.abs(way) > least && !predictor.meltAlike(h, one, other);
}
