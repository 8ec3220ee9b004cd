import { WorkshopSettings } from "@radicula/core";
import { database, type Db } from "../db/connection";
import { workshop } from "../db/schema";

/** What the workshop puts on its reports; nothing set yet, or not readable, is as if nothing were set. */
export async function workshopSettings(db: Pick<Db, "select"> = database()): Promise<WorkshopSettings> {
  const [row] = await db.select({ settings: workshop.settings }).from(workshop);
  return WorkshopSettings.safeParse(row?.settings).data ?? WorkshopSettings.parse({});
}
export async function keepWorkshopSettings(settings: WorkshopSettings): Promise<void> {
  await database()
    .insert(workshop)
    .values({ settings })
    .onConflictDoUpdate({ target: workshop.one, set: { settings } });
}
