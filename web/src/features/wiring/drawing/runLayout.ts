import { layOutInWorker } from "@/ui/elkWorker";
import type { DrawnGraph } from "./graph";
import { elkGraph, placed, type Drawing } from "./layout";

/** Lays a drawing out in a worker, which can be stopped at any moment. */
export function layOut(graph: DrawnGraph): { readonly drawing: Promise<Drawing>; stop(): void } {
  const { laidOut, stop } = layOutInWorker(elkGraph(graph));
  return { drawing: laidOut.then((root) => placed(graph, root)), stop };
}
