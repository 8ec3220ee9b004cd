import { and, asc, eq, sql } from "drizzle-orm";
import { database, type Db } from "../db/connection";
import { photos, wirings } from "../db/schema";
import { PHOTO } from "../photos";

export async function addPhoto(
  wiringId: string,
  connector: string,
  picture: { readonly jpeg: Buffer; readonly width: number; readonly height: number },
  db: Pick<Db, "transaction"> = database(),
): Promise<string> {
  return db.transaction(async (tx) => {
    const [wiring] = await tx.select({ id: wirings.id }).from(wirings).where(eq(wirings.id, wiringId)).for("update");
    if (!wiring) return "gone";
    const [count] = await tx
      .select({ n: sql<number>`count(*)::int` })
      .from(photos)
      .where(and(eq(photos.wiringId, wiringId), eq(photos.connector, connector)));
    if ((count?.n ?? 0) >= PHOTO.each) return "full";
    const [row] = await tx
      .insert(photos)
      .values({ wiringId, connector, ...picture })
      .returning({ id: photos.id });
    return row!.id;
  });
}
export async function findPhoto(id: string): Promise<Buffer | undefined> {
  const [row] = await database().select({ jpeg: photos.jpeg }).from(photos).where(eq(photos.id, id));
  return row?.jpeg;
}
export async function removePhoto(id: string): Promise<boolean> {
  return (await database().delete(photos).where(eq(photos.id, id)).returning({ id: photos.id })).length > 0;
}
/** Connectors of a wiring that have photos. */
export const photographed = async (wiringId: string, db: Pick<Db, "selectDistinct">): Promise<string[]> =>
  (await db.selectDistinct({ connector: photos.connector }).from(photos).where(eq(photos.wiringId, wiringId))).map(
    (p) => p.connector,
  );

/** All photos of a wiring, with their bytes: for a file that holds the whole job. */
export const photosOf = (wiringId: string) =>
  database()
    .select({ id: photos.id, connector: photos.connector, jpeg: photos.jpeg })
    .from(photos)
    .where(eq(photos.wiringId, wiringId))
    .orderBy(asc(photos.at));

/** The photos of one wiring for another: where connectors are does not change with a copy of their chart. */
export async function copyPhotos(from: string, to: string, db: Pick<Db, "insert" | "select">): Promise<void> {
  await db.insert(photos).select(
    db
      .select({
        id: sql<string>`gen_random_uuid()`.as("id"),
        wiringId: sql<string>`${to}::uuid`.as("wiring_id"),
        connector: photos.connector,
        jpeg: photos.jpeg,
        width: photos.width,
        height: photos.height,
        at: photos.at,
      })
      .from(photos)
      .where(eq(photos.wiringId, from)),
  );
}
