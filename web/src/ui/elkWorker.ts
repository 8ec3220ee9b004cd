import type { ELK, ElkNode } from "elkjs/lib/elk-api";

/**
 * One worker for one layout after the other: a warm one is twice as fast. Stopping a layout ends the worker with it.
 */
let idle: Engine | undefined;
interface Engine {
  readonly elk: ELK;
  readonly worker: Worker;
}

async function engine(): Promise<Engine> {
  const { default: Elk } = await import("elkjs/lib/elk-api");
  const worker = new Worker("/elk-worker.min.js");
  return { elk: new Elk({ workerFactory: () => worker }), worker };
}

export interface RunningLayout {
  readonly laidOut: Promise<ElkNode>;
  /** ends it at once; `laidOut` is then refused with an AbortError */
  stop(): void;
}

/** Lays a graph out in a worker of the browser, which can be stopped at any moment. */
export function layOutInWorker(graph: ElkNode): RunningLayout {
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
  const laidOut = new Promise<ElkNode>((resolve, reject) => {
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
        const root = await mine.elk.layout(graph);
        done = true;
        if (idle) mine.worker.terminate();
        else idle = mine;
        resolve(root);
      })
      .catch(reject);
  });
  return { laidOut, stop };
}
