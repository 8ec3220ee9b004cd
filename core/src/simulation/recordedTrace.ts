import type { TraceEntry } from "../format/trace.js";
import { traceEntry } from "../logbook/traceEntry.js";
import { factsOf } from "../traces/facts.js";
import { pairsOf } from "../traces/pairs.js";
import type { Recording } from "../traces/recording.js";
import type { SimulatedMachine } from "./machine.js";
import { simulateRecording, type SimulatedRecordingOptions } from "./recordMachine.js";

/**
 * A recording on a simulated machine together with what it adds to a logbook.
 * @param kept id under which the samples are kept
 * @throws RangeError for a place the machine does not have, too many samples, or a recording in which nothing was read
 */
export function recordedTrace(
  machine: SimulatedMachine,
  options: SimulatedRecordingOptions,
  at: string,
  kept?: string,
): { readonly recording: Recording; readonly entry: TraceEntry } {
  const { places, state, doing, moved } = options;
  const recording = simulateRecording(machine, options);
  const facts = recording.channels.map(factsOf);
  const taken = { at, state, doing, places, ...(moved ? { moved } : {}), recording: kept };
  const entry = traceEntry(recording, facts, pairsOf(recording, facts), taken);
  if (!entry) throw new RangeError("nothing was recorded");
  return { recording, entry };
}
