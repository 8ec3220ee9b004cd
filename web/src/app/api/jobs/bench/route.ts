import { cutText, hideFaults, issue, type Case, type Wiring } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { createJob, findJob, JobId } from "@/server/repo/jobs";
import { freezeRevision, WiringId } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";
const Bench = z
  .strictObject({
    job: JobId.optional(),
    wiring: WiringId.optional(),
    faults: z.number().int().min(1).max(3).default(1),
    comesAndGoes: z.boolean().default(false),
    seed: z.number().int().min(0).max(1e9).optional(),
  })
  .refine((b) => (b.job === undefined) !== (b.wiring === undefined), { error: "a job or a wiring" });

/** Puts a machine on the bench: a practice job on the wiring of a job, or of the library, with faults hidden on it. */
export const POST = (request: Request) =>
  answering(async () => {
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const body = Bench.safeParse(sent.value);
    if (!body.success)
      return refuse(400, [issue("schema.request", [], { message: body.error.issues[0]?.message ?? "" })]);
    const { faults, comesAndGoes } = body.data;
    const seed = body.data.seed ?? crypto.getRandomValues(new Uint32Array(1))[0]! % 1_000_000;
    const source: { readonly wiring: Wiring; readonly machine?: string | null } | undefined =
      body.data.job !== undefined
        ? await findJob(body.data.job)
        : body.data.wiring !== undefined
          ? await freezeRevision(body.data.wiring)
          : undefined;
    if (!source)
      return refuse(404, [issue(body.data.job !== undefined ? "server.no-such-job" : "server.no-such-wiring")]);
    const hidden = hideFaults(source.wiring, faults, seed);
    const [first, ...also] = hidden ?? [];
    if (!first) return refuse(422, [issue("bench.no-fault-sets-a-code")]);
    const job: Case = {
      format: "radicula/case",
      version: 1,
      title: cutText(`Practice ${seed}: ${source.machine ?? source.wiring.name}`, 160),
      ...(source.machine ? { machine: source.machine } : {}),
      wiring: source.wiring,
      entries: [],
    };
    const plain = (f: typeof first) => ({ fault: f.fault.id, ohm: Number.isFinite(f.severity) ? f.severity : null });
    return answer(
      {
        id: await createJob(job, {
          hidden: {
            ...plain(first),
            seed,
            ...(also.length ? { also: also.map(plain) } : {}),
            ...(comesAndGoes ? { presence: 0.5 } : {}),
          },
        }),
      },
      201,
    );
  });
