import type { ELK } from "elkjs/lib/elk-api";
import type { DrawnGraph } from "./graph";
import { elkGraph, placed, type Drawing } from "./layout";

/** One worker for one layout after the other: a warm one is twice as fast. Stopping a layout ends the worker with it. */
let idle: { readonly elk: ELK; readonly worker: Worker } | undefined;

async function engine() {
  const { default: Elk } = await import("elkjs/lib/elk-api");
  const worker = new Worker("/elk-worker.min.js");
  return { elk: new Elk({ workerFactory: () => worker }), worker };
}

/** Lays a graph out in a worker, which can be stopped at any moment. */
export function layOut(graph: DrawnGraph): { readonly drawing: Promise<Drawing>; stop(): void } {
  let worker: Worker | undefined;
  let stopped = false;
  let done = false;
  let refuse: (reason: unknown) => void = () => undefined;
  const stop = () => {
    if (done) return;
    stopped = true;
    worker?.terminate();
    refuse(new DOMException("stopped", "AbortError"));
  };
  const drawing = new Promise<Drawing>((resolve, reject) => {
    refuse = reject;
    const warm = idle;
    idle = undefined;
    (warm ? Promise.resolve(warm) : engine())
      .then(async (mine) => {
        if (stopped) {
          idle ??= mine;
          return;
        }
        worker = mine.worker;
        const placedGraph = placed(graph, await mine.elk.layout(elkGraph(graph)));
        done = true;
        if (idle) mine.worker.terminate();
        else idle = mine;
        resolve(placedGraph);
      })
      .catch(reject);
  });
  return { drawing, stop };
}
