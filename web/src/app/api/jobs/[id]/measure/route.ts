import { findFault, generateFaults, indexWiring, isPoint, issue, middleSeverity, observe, SimulatedMachine, State, undoneEntries, uniform } from "@radicula/core";
import { z } from "zod";
import { answer, answering, isJson, notJson, refuse } from "@/server/answers";
import { entriesAfter, findJob, hiddenOf, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";
const Point = z.string().max(90);
const Measure = z.object({
  points: z.array(Point).min(1).max(2), black: Point.optional(), part: z.enum(["removed", "new"]).optional(), instrument: z.enum(["voltmeter", "ohmmeter", "scanTool", "scope", "clamp", "continuity", "lamp", "none"]),
  kind: z.enum(["voltage", "voltageUnplugged", "watch", "fuse", "ohms", "ohmsWatch", "scan", "scanWatch", "activity", "look", "wiggle", "swap", "partNumber", "identity", "drop", "jumper", "lamp", "breaker", "bench", "codeSets"]).default("voltage"), state: State,
  watch: z.object({ tick: z.number().int().min(0).max(1e9), moving: Point.optional() }).optional(),
});

/** What an instrument, eyes or hands find on the simulated machine of a practice job. The hidden fault never leaves the server. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) => answering(async () => {
  if (!isJson(request)) return notJson();
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await findJob(id.data) : undefined;
  const hidden = id.success ? await hiddenOf(id.data) : undefined;
  if (!job || !hidden) return refuse(404, [issue("server.no-simulated-machine")]);
  const body = Measure.safeParse(await request.json().catch(() => undefined));
  if (!body.success) return refuse(400, [issue("schema.request", [], { message: body.error.issues[0]?.message ?? "" })]);
  const step = body.data, { watch, state } = step, index = indexWiring(job.wiring);
  const leads = step.instrument === "none" || step.instrument === "clamp" ? [] : [...step.points, ...(step.black === undefined ? [] : [step.black])];
  const lost = leads.find((p) => !isPoint(job.wiring, p)) ?? [...state.jumpers ?? [], ...state.loads ?? []].flatMap((x) => [x.from, x.to]).find((p) => !isPoint(job.wiring, p)) ?? state.unplugged.find((c) => !index.connectors.has(c)) ?? (step.kind === "breaker" && !index.devices.has(step.points[0]!) ? step.points[0] : undefined);
  if (lost !== undefined) return refuse(400, [issue("remark.point-not-in-wiring", [], { point: lost })]);
  const known = generateFaults(job.wiring);
  const faults = [hidden, ...(hidden.also ?? [])].flatMap(({ fault, ohm }) => { const found = findFault(known, fault); return found ? [{ fault: found.fault, severity: ohm ?? middleSeverity(found.fault) }] : []; });
  const logged = await entriesAfter(job.id, 0);
  // until its readings are moved to where they were really taken
  const undone = undoneEntries(logged);
  const mistaken = hidden.mistaken && !logged.some((e, i) => !undone.has(i + 1) && e.type === "moved" && e.from === hidden.mistaken?.from) ? hidden.mistaken : undefined;
  // what comes and goes is there or not, entry by entry; while it is watched it stays away until its place is moved
  const u = uniform(hidden.seed * 7919 + logged.length * 101 + (watch?.tick ?? 0) * 31)();
  const moved = watch?.moving !== undefined && faults.some((f) => f.fault.place.id === watch.moving || f.fault.at === watch.moving || f.fault.place.id.startsWith(`${watch.moving}:`));
  const there = hidden.presence === undefined || (watch ? moved && u < STIRRED : uniform(hidden.seed * 7919 + logged.length)() < hidden.presence);
  const machine = new SimulatedMachine(job.wiring, step.instrument === "none" || there ? faults : [], hidden.seed, mistaken ? { mistaken } : {});
  const seen = observe(machine, step, hidden.presence !== undefined, () => LIKELIER);
  if (!seen) return answer({ values: step.points.map(() => null) });
  const noise = watch ? 0.01 * (uniform(hidden.seed + watch.tick * 7 + 3)() - 0.5) : 0;
  return answer(seen.values ? { values: seen.values.map((v) => (typeof v === "number" ? Number((v + noise).toFixed(3)) : v)) } : { values: [seen.yes ? 1 : 0], ...(seen.found ? { found: seen.found[0] } : {}) });
});
/** How often a place that comes and goes shows itself while it is moved; and the draw that gives the likelier of two answers. */
const STIRRED = 0.45, LIKELIER = 0.4;
