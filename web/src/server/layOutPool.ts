import type { ElkNode } from "elkjs";
import { LRUCache } from "lru-cache";
import { threadsOf } from "./threads";

/** Layouts kept: many jobs hang on the same wiring and the same codes. Judgement: some 50 kB each. */
const KEPT = 200;
const kept = new LRUCache<string, Promise<ElkNode>>({ max: KEPT });

/** Lays a graph out in a thread of its own; one that was laid out lately is remembered. */
export function layOutInPool(graph: ElkNode): Promise<ElkNode> {
  const key = JSON.stringify(graph);
  const known = kept.get(key);
  if (known) return known;
  const laid = threadsOf<ElkNode, ElkNode>("layOut.mjs").run(graph);
  kept.set(key, laid);
  laid.catch(() => kept.delete(key));
  return laid;
}
