import { DOING, generateFaults, recordedTrace, recordingCsv, SimulatedMachine, State, type Case } from "@radicula/core";
import { gzipSync } from "node:zlib";
import { z } from "zod";
import type { Hidden } from "./repo/jobs";
import { faultsHidden } from "./simulated";

/** A recording that a demo job comes with, taken on its simulated machine when the demo is loaded. */
export const DemoRecording = z.strictObject({
  name: z.string(),
  at: z.string(),
  places: z.array(z.strictObject({ on: z.string(), by: z.enum(["scope", "clamp", "scanTool"]) })),
  doing: z.enum(DOING),
  state: State,
  seconds: z.number(),
  perSecond: z.number(),
  presence: z.number().optional(),
  moved: z.array(z.strictObject({ thing: z.string(), from: z.number(), to: z.number() })).optional(),
});
export type DemoRecording = z.infer<typeof DemoRecording>;

/** The samples of a demo job's recordings, compressed, and the job with what they add to its logbook. */
export function withRecordings(job: Case, hidden: Hidden, asked: readonly DemoRecording[]) {
  const machine = new SimulatedMachine(job.wiring, faultsHidden(generateFaults(job.wiring), hidden), hidden.seed);
  const kept = asked.map(({ name, at, presence, moved, ...more }) => {
    const id = crypto.randomUUID();
    const options = {
      ...more,
      seed: hidden.seed,
      ...(presence === undefined ? {} : { presence }),
      ...(moved ? { moved } : {}),
    };
    const { recording, entry } = recordedTrace(machine, options, at, id);
    return { id, name, entry, bytes: gzipSync(recordingCsv(recording)) };
  });
  return { job: { ...job, entries: [...job.entries, ...kept.map((k) => k.entry)] }, kept };
}
