import { isDatabaseGone } from "./db/gone";
import { SchemaTooNew, setUpDatabase } from "./setup";

/** Whether the database was brought up to date, and why not. */
export type Readiness =
  | { readonly isReady: true }
  | { readonly isReady: false; readonly why: "starting" | "database-gone" | "schema-newer" | "failed" };

/** Kept for the whole process, across the server's separate bundles. */
const shared = globalThis as typeof globalThis & { radiculaReadiness?: Readiness; radiculaDatabaseId?: string };
/** Which database this server keeps; said with every answer, so that a device knows who answered. */
export const databaseId = (): string => shared.radiculaDatabaseId ?? "";
export const readiness = (): Readiness => shared.radiculaReadiness ?? { isReady: false, why: "starting" };

const AGAIN_MS = 1000;

/**
 * Brings the database up to date, again and again until it can be reached: the order in which database and server are
 * started does not matter.
 * @returns after the first try
 */
export async function becomeReady(setUp: () => Promise<string> = setUpDatabase): Promise<void> {
  try {
    shared.radiculaDatabaseId = await setUp();
    shared.radiculaReadiness = { isReady: true };
  } catch (error) {
    const why = error instanceof SchemaTooNew ? "schema-newer" : isDatabaseGone(error) ? "database-gone" : "failed";
    const known = readiness();
    // once for each reason, not once a second
    if (known.isReady || known.why !== why) console.error(`not ready: ${error instanceof Error ? error.message : why}`);
    shared.radiculaReadiness = { isReady: false, why };
    setTimeout(() => void becomeReady(setUp), AGAIN_MS).unref();
  }
}
