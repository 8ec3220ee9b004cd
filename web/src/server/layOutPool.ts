import { join } from "node:path";
import type { ElkNode } from "elkjs";
import { LRUCache } from "lru-cache";
import { Piscina } from "piscina";
import { env } from "@/env";

/** Layouts kept: many jobs hang on the same wiring and the same codes. Judgement: some 50 kB each. */
const KEPT = 200;
const kept = new LRUCache<string, Promise<ElkNode>>({ max: KEPT });

/** One pool for the process, also across the server's separate bundles. */
const shared = globalThis as typeof globalThis & { radiculaLayouts?: Piscina<ElkNode, ElkNode> };
const pool = () =>
  (shared.radiculaLayouts ??= new Piscina<ElkNode, ElkNode>({
    filename: join(env().RADICULA_ROOT, "web", "layOut.mjs"),
    maxThreads: 2,
    idleTimeout: 60_000,
  }));

/** Lays a graph out in a thread of its own; one that was laid out lately is remembered. */
export function layOutInPool(graph: ElkNode): Promise<ElkNode> {
  const key = JSON.stringify(graph);
  const known = kept.get(key);
  if (known) return known;
  const laid = pool().run(graph);
  kept.set(key, laid);
  laid.catch(() => kept.delete(key));
  return laid;
}
