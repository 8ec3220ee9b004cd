import { drizzle, type PostgresJsDatabase } from "drizzle-orm/postgres-js";
import postgres from "postgres";
import { env } from "@/env";

/** One pool for the process, also across the server's separate bundles. */
const shared = globalThis as typeof globalThis & { radiculaDatabase?: PostgresJsDatabase };

export function database(): PostgresJsDatabase {
  return (shared.radiculaDatabase ??= drizzle(
    postgres(env().DATABASE_URL, { max: 8, connect_timeout: 3, idle_timeout: 60, onnotice: () => undefined }),
  ));
}

export type Db = PostgresJsDatabase;
