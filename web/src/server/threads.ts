import { join } from "node:path";
import { Piscina } from "piscina";
import { env } from "@/env";

/** Pools of threads by the file they run: one each for the process, also across the server's separate bundles. */
const shared = globalThis as typeof globalThis & { radiculaThreads?: Map<string, Piscina> };
const THREADS_EACH = 2;

/** Work that takes longer than anybody else should wait, in threads that run one file of `web`. */
export function threadsOf<Task, Result>(file: string): Piscina<Task, Result> {
  const pools = (shared.radiculaThreads ??= new Map());
  const pool =
    pools.get(file) ??
    new Piscina({
      filename: join(env().RADICULA_ROOT, "web", file),
      maxThreads: THREADS_EACH,
      idleTimeout: 60_000,
    });
  pools.set(file, pool);
  return pool as Piscina<Task, Result>;
}
