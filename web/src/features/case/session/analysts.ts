import type { Wiring } from "@radicula/core";
import { transfer, wrap, type Remote } from "comlink";
import type { AnalystApi } from "@/workers/analyst.worker";

/** Workers beside the first, at most: each keeps predictions of its own, some hundred megabytes. Judgement. */
const MOST_HELPERS = 1;

/** The workers of one job: one that is asked, and others that it shares its work with. */
export interface Analysts {
  readonly first: Remote<AnalystApi>;
  readonly end: () => void;
}

/**
 * Starts a second worker where there are cores to spare: one stays with the page. With two cores there is none: the
 * answer then came no sooner.
 * @param failed told when the first worker stops; one of the others is done without
 */
export function startAnalysts(wiring: Wiring, failed: (error: unknown) => void): Analysts {
  const workers: Worker[] = [];
  const start = () => {
    const worker = new Worker(new URL("../../../workers/analyst.worker.ts", import.meta.url), { type: "module" });
    workers.push(worker);
    const api = wrap<AnalystApi>(worker);
    return { worker, api, opened: api.open(wiring) };
  };
  const { worker, api: first, opened } = start();
  worker.onerror = failed;
  opened.catch(failed);
  const cores = navigator.hardwareConcurrency;
  const spare = Math.min(MOST_HELPERS, cores - 2);
  for (let i = 0; i < spare; i++) {
    const { port1, port2 } = new MessageChannel();
    const helper = start();
    const isThere = Promise.all([helper.opened, helper.api.helpAt(transfer(port2, [port2]))]);
    isThere.catch(() => undefined); // done without
    void first.helpedBy(transfer(port1, [port1]));
  }
  return {
    first,
    end: () => {
      for (const w of workers) w.terminate();
    },
  };
}
