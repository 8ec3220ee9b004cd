import { DOING, issue, recordingCsv, simulateRecording, State } from "@radicula/core";
import { z } from "zod";
import { answering, jsonBody, refuse } from "@/server/answers";
import { simulatedOf } from "@/server/simulated";

export const dynamic = "force-dynamic";

/** Samples of one recording that the server is asked for: more takes too long. Judgement. */
const MOST = 400_000;
const Asked = z.object({
  places: z
    .array(
      z.object({
        on: z.string().max(90),
        by: z.enum(["scope", "clamp", "scanTool"]),
        black: z.string().max(90).optional(),
      }),
    )
    .min(1)
    .max(8),
  state: State,
  doing: z.enum(DOING),
  seconds: z.number().positive().max(120),
  perSecond: z.number().min(1).max(200_000),
  moved: z
    .array(z.object({ thing: z.string().max(90), from: z.number(), to: z.number() }))
    .max(40)
    .optional(),
});
/** How often what comes and goes shows itself while the harness is moved. Judgement. */
const STIRRED = 0.06;

/** What a recording on the simulated machine of a practice job shows, as CSV. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const simulated = await simulatedOf((await params).id);
    if (!simulated) return refuse(404, [issue("server.no-simulated-machine")]);
    const body = Asked.safeParse(sent.value);
    if (!body.success || body.data.seconds * body.data.perSecond * body.data.places.length > MOST)
      return refuse(400, [
        issue("schema.request", [], { message: body.error?.issues[0]?.message ?? "too many samples" }),
      ]);
    const { places, moved, ...asked } = body.data;
    const { hidden, logged } = simulated;
    try {
      const recording = simulateRecording(simulated.machine(true), {
        ...asked,
        places: places.map(({ black, ...p }) => ({ ...p, ...(black === undefined ? {} : { black }) })),
        ...(moved ? { moved } : {}),
        seed: hidden.seed + 7919 * logged,
        ...(hidden.presence === undefined
          ? {}
          : { presence: asked.doing === "move" ? STIRRED : STIRRED * hidden.presence }),
      });
      return new Response(recordingCsv(recording), {
        headers: { "Content-Type": "text/csv; charset=utf-8", "Cache-Control": "no-store" },
      });
    } catch (error) {
      if (error instanceof RangeError) return refuse(400, [issue("schema.request", [], { message: error.message })]);
      throw error;
    }
  });
