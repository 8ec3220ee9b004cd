import { findFault, generateFaults, issue, middleSeverity, resolvePlace, indexWiring, signOf, SimulatedMachine, State, yesLikelihood } from "@radicula/core";
import { z } from "zod";
import { answer, answering, isJson, notJson, refuse } from "@/server/answers";
import { findJob, hiddenOf, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";
const Measure = z.object({ points: z.array(z.string().max(90)).min(1).max(2), instrument: z.enum(["voltmeter", "ohmmeter", "scanTool", "scope", "none"]), kind: z.enum(["look", "wiggle", "swap", "partNumber", "identity"]).optional(), state: State });

/** What a meter shows on the simulated machine of a practice job. The hidden fault never leaves the server. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) => answering(async () => {
  if (!isJson(request)) return notJson();
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await findJob(id.data) : undefined;
  const hidden = id.success ? await hiddenOf(id.data) : undefined;
  if (!job || !hidden) return refuse(404, [issue("server.no-simulated-machine")]);
  const body = Measure.safeParse(await request.json().catch(() => undefined));
  if (!body.success) return refuse(400, [issue("schema.request", [], { message: body.error.issues[0]?.message ?? "" })]);
  const index = indexWiring(job.wiring);
  if (body.data.instrument !== "none" && body.data.points.some((p) => !resolvePlace(index, p).ok)) return refuse(400, [issue("remark.point-not-in-wiring", [], { point: body.data.points.join(", ") })]);
  const found = findFault(generateFaults(job.wiring), hidden.fault);
  const faults = found ? [{ fault: found.fault, severity: hidden.ohm ?? middleSeverity(found.fault) }] : [];
  const { points, state, instrument, kind } = body.data;
  // eyes and hands on a machine that is not there: what the hidden fault would most likely show
  if (instrument === "none") {
    const list = faults.map((f) => f.fault), clue = { kind: kind ?? "look", points } as const;
    const yes = yesLikelihood(clue, list, false) > 0.4;
    return answer({ values: [yes ? 1 : 0], ...(yes && clue.kind === "look" ? { found: signOf(list, points[0] ?? "", () => 0) } : {}) });
  }
  const machine = new SimulatedMachine(job.wiring, faults, hidden.seed);
  const values = points.map((p) => machine.read(p, state, instrument));
  return answer({ values: values.map((v) => (v === Infinity ? "OL" : Number.isNaN(v) ? null : v)) });
});
