import { findFault, generateFaults, issue, middleSeverity, resolvePlace, indexWiring, signOf, SimulatedMachine, State, undoneEntries, uniform, yesLikelihood } from "@radicula/core";
import { z } from "zod";
import { answer, answering, isJson, notJson, refuse } from "@/server/answers";
import { entriesAfter, findJob, hiddenOf, JobId } from "@/server/repo/jobs";

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
  const known = generateFaults(job.wiring);
  const faults = [hidden, ...(hidden.also ?? [])].flatMap(({ fault, ohm }) => { const found = findFault(known, fault); return found ? [{ fault: found.fault, severity: ohm ?? middleSeverity(found.fault) }] : []; });
  const { points, state, instrument, kind } = body.data;
  // eyes and hands on a machine that is not there: what the hidden fault would most likely show
  const logged = await entriesAfter(job.id, 0);
  // until its readings are moved to where they were really taken
  const undone = undoneEntries(logged);
  const mistaken = hidden.mistaken && !logged.some((e, i) => !undone.has(i + 1) && e.type === "moved" && e.from === hidden.mistaken?.from) ? hidden.mistaken : undefined;
  if (instrument === "none") {
    const list = faults.map((f) => f.fault), clue = { kind: kind ?? "look", points } as const;
    const yes = yesLikelihood(clue, list, hidden.presence !== undefined, mistaken) > 0.4;
    return answer({ values: [yes ? 1 : 0], ...(yes && clue.kind === "look" ? { found: signOf(list, points[0] ?? "", () => 0) } : {}) });
  }
  // what comes and goes is there or not, entry by entry
  const there = hidden.presence === undefined || uniform(hidden.seed * 7919 + logged.length)() < hidden.presence;
  const machine = new SimulatedMachine(job.wiring, there ? faults : [], hidden.seed, mistaken ? { mistaken } : {});
  const values = points.map((p) => machine.read(p, state, instrument));
  return answer({ values: values.map((v) => (v === Infinity ? "OL" : Number.isNaN(v) ? null : v)) });
});
