import { issue } from "@radicula/core";
import { answer, answering, refuse } from "@/server/answers";
import { simulatedOf } from "@/server/simulated";

export const dynamic = "force-dynamic";

/** What was wrong with the simulated machine of a practice job. Told once the job is closed, and not before. */
export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const simulated = await simulatedOf((await params).id);
    if (!simulated) return refuse(404, [issue("server.no-simulated-machine")]);
    if (simulated.folded.closed === undefined) return refuse(409, [issue("hidden.not-closed")]);
    const { hidden, faults } = simulated;
    return answer({
      faults: faults.map(({ fault, severity }) => ({ id: fault.id, severity })),
      seed: hidden.seed,
      ...(hidden.presence === undefined ? {} : { presence: hidden.presence }),
      ...(hidden.mistaken ? { mistaken: hidden.mistaken } : {}),
    });
  });
