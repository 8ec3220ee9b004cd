import {
  CANDIDATE_KINDS,
  indexWiring,
  isPoint,
  issue,
  observe,
  State,
  uniform,
  watchedBy,
  wireId,
} from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { simulatedOf } from "@/server/simulated";

export const dynamic = "force-dynamic";
const Point = z.string().max(90);
const Measure = z.object({
  points: z.array(Point).min(1).max(2),
  black: Point.optional(),
  part: z.enum(["removed", "new"]).optional(),
  instrument: z.enum(["voltmeter", "ohmmeter", "scanTool", "scope", "clamp", "continuity", "lamp", "none"]),
  kind: z.enum(CANDIDATE_KINDS).default("voltage"),
  state: State,
  watch: z.object({ tick: z.number().int().min(0).max(1e9), moving: Point.optional() }).optional(),
});

/**
 * What an instrument, eyes or hands find on the simulated machine of a practice job. The hidden fault leaves the
 * server only once the job is closed.
 */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const simulated = await simulatedOf((await params).id);
    if (!simulated) return refuse(404, [issue("server.no-simulated-machine")]);
    const { job, hidden, logged } = simulated;
    const body = Measure.safeParse(sent.value);
    if (!body.success)
      return refuse(400, [issue("schema.request", [], { message: body.error.issues[0]?.message ?? "" })]);
    const step = body.data;
    const { watch, state } = step;
    const index = indexWiring(job.wiring);
    const leads =
      step.instrument === "none" || step.instrument === "clamp"
        ? []
        : [...step.points, ...(step.black === undefined ? [] : [step.black])];
    const lost =
      leads.find((p) => !isPoint(job.wiring, p)) ??
      (step.instrument === "clamp"
        ? step.points.find((p) => !job.wiring.wires.some((w) => wireId(w) === p))
        : undefined) ??
      [...(state.jumpers ?? []), ...(state.loads ?? [])]
        .flatMap((x) => [x.from, x.to])
        .find((p) => !isPoint(job.wiring, p)) ??
      state.unplugged.find((c) => !index.connectors.has(c)) ??
      (step.kind === "breaker" && !index.devices.has(step.points[0]!) ? step.points[0] : undefined);
    if (lost !== undefined) return refuse(400, [issue("remark.point-not-in-wiring", [], { point: lost })]);
    // what comes and goes is there or not, entry by entry; while it is watched it stays away until its place is moved
    const u = uniform(hidden.seed * 7919 + logged * 101 + (watch?.tick ?? 0) * 31)();
    const moved = watch?.moving !== undefined && simulated.isWrong(watch.moving);
    const there =
      hidden.presence === undefined ||
      (watch ? moved && u < STIRRED : uniform(hidden.seed * 7919 + logged)() < hidden.presence);
    const seen = observe(
      simulated.machine(step.instrument === "none" || there || watchedBy(step.kind) !== undefined),
      step,
      hidden.presence !== undefined,
      () => LIKELIER,
    );
    if (!seen) return answer({ values: step.points.map(() => null) });
    if (seen.swings)
      return answer({
        values: seen.values!.map((v, i) => (typeof v === "number" ? (seen.swings![i]?.[0] ?? v) : v)),
        swings: seen.swings.map((ends) => ends ?? null),
      });
    const noise = watch ? 0.01 * (uniform(hidden.seed + watch.tick * 7 + 3)() - 0.5) : 0;
    return answer(
      seen.values
        ? { values: seen.values.map((v) => (typeof v === "number" ? Number((v + noise).toFixed(3)) : v)) }
        : { values: [seen.yes ? 1 : 0], ...(seen.found ? { found: seen.found[0] } : {}) },
    );
  });
/**
 * How often a place that comes and goes shows itself while it is moved; and the draw that gives the likelier of two
 * answers.
 */
const STIRRED = 0.45;
const LIKELIER = 0.4;
