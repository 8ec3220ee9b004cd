import { issue, ScanEntry, type ScannedCode } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { simulatedOf } from "@/server/simulated";

export const dynamic = "force-dynamic";
const Scan = z.strictObject({ when: ScanEntry.shape.when });
/** Key states whose monitors have run by then. */
const RUN = {
  before: ["on", "cranking", "running"],
  other: ["on", "cranking", "running"],
  afterClear: ["on"],
  afterCrank: ["on", "cranking"],
  afterDrive: ["on", "cranking", "running"],
} as const;

/** What a scan of the simulated machine of a practice job gives, as it stands now. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const body = Scan.safeParse(sent.value);
    if (!body.success)
      return refuse(400, [issue("schema.request", [], { message: body.error.issues[0]?.message ?? "" })]);
    const simulated = await simulatedOf((await params).id);
    if (!simulated) return refuse(404, [issue("server.no-simulated-machine")]);
    const { job, hidden, machine } = simulated;
    const run: ReadonlySet<string> = new Set(RUN[body.data.when]);
    const { unplugged, pulled } = simulated.folded.state;
    const { rig } = machine(true);
    const set = (["on", "cranking", "running"] as const)
      .filter((k) => run.has(k))
      .flatMap((key) => rig.codesIn({ key, unplugged, ...(pulled ? { pulled } : {}) }));
    const codes = [...new Set(set)].map((i): ScannedCode => {
      const { code } = rig.monitors[i]!;
      return {
        module: code.module,
        code: code.id,
        status: hidden.presence === undefined ? "active" : "stored",
        ...(code.title ? { title: code.title } : {}),
      };
    });
    return answer({ modules: job.wiring.devices.flatMap((d) => (d.kind === "module" ? [d.id] : [])), codes });
  });
