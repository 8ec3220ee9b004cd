import { readLamp, Rig } from "../src/index.js";
import { oneSensor, twoLoads } from "./machines.js";

/**
 * A lamp that is too big: 5 W on a healthy 5 V reference pulls it flat, so a dark lamp there proves nothing and the
 * module may be harmed. The same lamp on a fused feed is bright.
 */
export function lampTooBig() {
  const on = { key: "on" as const, unplugged: [] };
  const reference = readLamp(new Rig(oneSensor()), { ...on, unplugged: ["B1"] }, 5, "B1:1");
  const feed = readLamp(new Rig(twoLoads()), on, 5, "Y1:1");
  return { reference, feed };
}
