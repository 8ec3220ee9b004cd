import type { DrawnGraph } from "./graph";
import { elkGraph, placed, type Drawing } from "./layout";

/** Lays a graph out in a worker of its own, which can be stopped at any moment. */
export function layOut(graph: DrawnGraph): { readonly drawing: Promise<Drawing>; stop(): void } {
  let stop: () => void = () => undefined;
  const drawing = new Promise<Drawing>((resolve, reject) => {
    let worker: Worker | undefined, stopped = false;
    stop = () => { stopped = true; worker?.terminate(); reject(new DOMException("stopped", "AbortError")); };
    void import("elkjs/lib/elk-api").then(async ({ default: ELK }) => {
      if (stopped) return;
      const elk = new ELK({ workerFactory: () => (worker = new Worker("/elk-worker.min.js")) });
      resolve(placed(graph, await elk.layout(elkGraph(graph))));
      worker?.terminate();
    }).catch(reject);
  });
  return { drawing, stop: () => stop() };
}
