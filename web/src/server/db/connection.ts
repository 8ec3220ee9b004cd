import { drizzle, type PostgresJsDatabase } from "drizzle-orm/postgres-js";
import postgres from "postgres";
import { env } from "@/env";

/** A statement, a wait for somebody else's lock, and a transaction left open each end by themselves, ms. */
const LIMITS = { statement_timeout: 30_000, lock_timeout: 8_000, idle_in_transaction_session_timeout: 30_000 } as const;
/** The longest wait before a lost connection is tried again, seconds. */
const LONGEST_WAIT = 2;

/** One pool for the process, also across the server's separate bundles. */
const shared = globalThis as typeof globalThis & { radiculaDatabase?: PostgresJsDatabase };

export function database(): PostgresJsDatabase {
  return (shared.radiculaDatabase ??= drizzle(
    postgres(env().DATABASE_URL, {
      max: 8,
      connect_timeout: 3,
      idle_timeout: 60,
      backoff: (tries) => Math.min(LONGEST_WAIT, 0.1 * 2 ** tries),
      connection: LIMITS,
      onnotice: () => undefined,
    }),
  ));
}

export type Db = PostgresJsDatabase;
