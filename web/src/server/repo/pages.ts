import { and, eq, sql } from "drizzle-orm";
import { SheetContent } from "@radicula/core";
import { PAGE } from "@/ui/pageLimits";
import { database, type Db } from "../db/connection";
import { pages, pageTiles, wirings } from "../db/schema";
import { joined, topLevel, type TiledPage } from "../pages";

export interface KeptPage {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  /** whether the wiring had this very picture before */
  readonly known: boolean;
}

/**
 * Keeps a page with all its tiles, or nothing of it. A picture that the wiring has already is not kept twice.
 * @throws PageRefused where the wiring has too many, or nobody waits for it any longer
 */
export async function keepPage(
  wiringId: string,
  page: TiledPage,
  isStopped: () => boolean,
): Promise<KeptPage | "gone"> {
  const { hash, width, height } = page;
  return database().transaction(async (tx) => {
    const [wiring] = await tx.select({ id: wirings.id }).from(wirings).where(eq(wirings.id, wiringId));
    if (!wiring) return "gone";
    const [count] = await tx
      .select({ n: sql<number>`count(*)::int` })
      .from(pages)
      .where(eq(pages.wiringId, wiringId));
    // the wiring is not locked: its chart goes on being saved while a large picture is cut up
    const [row] = await tx
      .insert(pages)
      .values({ wiringId, hash, width, height })
      .onConflictDoNothing()
      .returning({ id: pages.id });
    if (!row) {
      const [known] = await tx
        .select({ id: pages.id })
        .from(pages)
        .where(and(eq(pages.wiringId, wiringId), eq(pages.hash, hash)));
      return known ? { id: known.id, width, height, known: true } : "gone";
    }
    if ((count?.n ?? 0) >= PAGE.each) throw new PageRefused("full");
    const { id } = row;
    for await (const tile of page.tiles()) {
      if (isStopped()) throw new PageRefused("stopped");
      await tx.insert(pageTiles).values({ pageId: id, ...tile });
    }
    return { id, width, height, known: false };
  });
}
/** Thrown inside the transaction: nothing of the page is kept. */
export class PageRefused extends Error {
  constructor(readonly why: "full" | "stopped") {
    super(why);
  }
}

export async function findTile(id: string, level: number, x: number, y: number): Promise<Buffer | undefined> {
  const [row] = await database()
    .select({ jpeg: pageTiles.jpeg })
    .from(pageTiles)
    .where(and(eq(pageTiles.pageId, id), eq(pageTiles.level, level), eq(pageTiles.x, x), eq(pageTiles.y, y)));
  return row?.jpeg;
}

/** A page's picture size and what is written and drawn on it. */
export async function findPage(id: string) {
  const [row] = await database()
    .select({ width: pages.width, height: pages.height, content: pages.content })
    .from(pages)
    .where(eq(pages.id, id));
  if (!row) return undefined;
  const content = SheetContent.safeParse(row.content);
  return { width: row.width, height: row.height, content: content.success ? content.data : null };
}

/** @returns false where there is no such page */
export async function setContent(id: string, content: SheetContent): Promise<boolean> {
  return (
    (await database().update(pages).set({ content }).where(eq(pages.id, id)).returning({ id: pages.id })).length > 0
  );
}

/** The pictures of pages, each whole again, with what stands on them: for a file that holds the whole job. */
export async function wholePages(ids: readonly string[], most: number) {
  const all: { readonly id: string; readonly jpeg: Buffer; readonly content: unknown }[] = [];
  let left = most;
  for (const id of ids.filter((i) => isUuid(i))) {
    const [row] = await database()
      .select({ width: pages.width, height: pages.height, content: pages.content })
      .from(pages)
      .where(eq(pages.id, id));
    if (!row) continue;
    const level = topLevel(row);
    const tiles = await database()
      .select({ x: pageTiles.x, y: pageTiles.y, jpeg: pageTiles.jpeg })
      .from(pageTiles)
      .where(and(eq(pageTiles.pageId, id), eq(pageTiles.level, level)));
    const jpeg = await joined(row, tiles);
    if (jpeg.byteLength > left) continue;
    left -= jpeg.byteLength;
    all.push({ id, jpeg, content: row.content });
  }
  return all;
}
const isUuid = (id: string) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id);

/**
 * Keeps a page that came with a job under the id that its wiring names it by. One that is here already stays as it is.
 * @returns whether it is there now
 */
export async function keepPageAs(
  wiringId: string,
  id: string,
  page: TiledPage,
  content: SheetContent | undefined,
  tx: Pick<Db, "insert" | "select">,
): Promise<boolean> {
  if (!isUuid(id)) return false;
  const { hash, width, height } = page;
  const [row] = await tx
    .insert(pages)
    .values({ id, wiringId, hash, width, height, ...(content ? { content } : {}) })
    .onConflictDoNothing()
    .returning({ id: pages.id });
  if (!row) return (await tx.select({ id: pages.id }).from(pages).where(eq(pages.id, id))).length > 0;
  for await (const tile of page.tiles()) await tx.insert(pageTiles).values({ pageId: id, ...tile });
  return true;
}
