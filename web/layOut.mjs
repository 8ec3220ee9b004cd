// Laying out a graph, in a thread of its own: it takes longer than anybody else should wait.
import ELK from "elkjs/lib/elk.bundled.js";

const elk = new ELK();
/** @param {import("elkjs").ElkNode} graph */
export default function layOut(graph) {
  return elk.layout(graph);
}
