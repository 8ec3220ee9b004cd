import type { FaultAt } from "../instruments/machineState.js";
import { isAt } from "../diagnosis/clues.js";
import type { Wiring } from "../format/wiring.js";
import { wiggleVerdict, type WiggleSample, type WiggleVerdict } from "../procedures/wiggle.js";
import { followPoint } from "../wiring/follow.js";
import { connectorOf } from "../wiring/points.js";
import { SimulatedMachine } from "./machine.js";

/** Values seen while nothing is moved, and while each place is. Judgement: what a minute at the meter gives. */
const STILL_SAMPLES = 30;
const SAMPLES_AT_EACH = 16;
/** How often a loose place lets go while somebody moves it. Judgement. */
const LETS_GO = 0.5;

/**
 * A place watched with the voltmeter, key on, while everything along its copper is moved, on a simulated machine whose
 * faults are there only while their own place is moved.
 * @param point where the red lead is
 * @returns one verdict for each place moved, in the order they were moved
 */
export function playWiggle(
  wiring: Wiring,
  faults: readonly FaultAt[],
  point: string,
  seed: number,
): readonly WiggleVerdict[] {
  const state = { key: "on" as const, unplugged: [] };
  const still = new SimulatedMachine(wiring, [], seed);
  const loose = new SimulatedMachine(wiring, faults, seed, { presence: LETS_GO });
  const samples: WiggleSample[] = [];
  const watch = (place: string, moves: boolean, times: number) => {
    for (let i = 0; i < times; i++) {
      loose.look();
      samples.push({ place, value: (moves ? loose : still).read(point, state, "voltmeter") });
    }
  };
  watch("", false, STILL_SAMPLES);
  const along = followPoint(wiring, point).steps.map((s) => (s.over === "contact" ? connectorOf(s.from) : s.thing));
  for (const place of new Set([connectorOf(point), ...along]))
    watch(
      place,
      faults.some(({ fault }) => isAt(fault, place)),
      SAMPLES_AT_EACH,
    );
  return wiggleVerdict(samples);
}
