import { issue, WorkshopSettings } from "@radicula/core";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { keepWorkshopSettings, workshopSettings } from "@/server/repo/workshop";

export const dynamic = "force-dynamic";

/** What the workshop puts on its reports. */
export const GET = () => answering(async () => answer(await workshopSettings()));
export const PUT = (request: Request) =>
  answering(async () => {
    const sent = await jsonBody(request, 10_000);
    if (!sent.ok) return sent.refused;
    const settings = WorkshopSettings.safeParse(sent.value);
    if (!settings.success) {
      const first = settings.error.issues[0];
      return refuse(422, [issue("schema.request", [], { message: `${first?.path.join(".")}: ${first?.message}` })]);
    }
    await keepWorkshopSettings(settings.data);
    return answer({});
  });
