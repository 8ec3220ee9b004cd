import { createHash } from "node:crypto";
import type { ElkNode } from "elkjs";
import { LRUCache } from "lru-cache";
import { findWorkedOut, keepWorkedOut } from "./repo/workedOut";
import { threadsOf } from "./threads";

/** Layouts held in memory: many jobs hang on the same wiring and the same codes. Judgement: some 50 kB each. */
const HELD = 200;
const held = new LRUCache<string, Promise<ElkNode>>({ max: HELD });

/**
 * Lays a graph out in a thread of its own. One that was laid out before is remembered, also in the database: the first
 * page after a start is not to wait for what was worked out yesterday.
 */
export function layOutInPool(graph: ElkNode): Promise<ElkNode> {
  const json = JSON.stringify(graph);
  const key = createHash("sha256").update(`layout ${json}`).digest("hex");
  const known = held.get(key);
  if (known) return known;
  const laid = foundOrLaid(key, graph);
  held.set(key, laid);
  laid.catch(() => held.delete(key));
  return laid;
}
async function foundOrLaid(key: string, graph: ElkNode): Promise<ElkNode> {
  const kept = await findWorkedOut("layout", [key]);
  if (kept[key]) return JSON.parse(new TextDecoder().decode(kept[key])) as ElkNode;
  const laid = await threadsOf<ElkNode, ElkNode>("layOut.mjs").run(graph);
  keepWorkedOut("layout", { [key]: new TextEncoder().encode(JSON.stringify(laid)) }).catch((error: unknown) =>
    console.error("a layout was not kept:", error),
  );
  return laid;
}
