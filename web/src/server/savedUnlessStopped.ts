import { setImmediate } from "node:timers/promises";
import { issue } from "@radicula/core";
import { answer, refuse } from "./answers";
import { database, type Db } from "./db/connection";

type Transaction = Parameters<Parameters<Db["transaction"]>[0]>[0];

/** Thrown inside a transaction that nobody waits for any more: it is taken back. */
class Stopped extends Error {}

/**
 * Saves something that may take a while, unless who asked has stopped it meanwhile: then all of it is taken back.
 * @returns 201 with what `save` gives, or 499, which nobody reads
 */
export async function savedUnlessStopped<T extends object>(
  request: Request,
  save: (tx: Transaction) => Promise<T>,
): Promise<Response> {
  try {
    const saved = await database().transaction(async (tx) => {
      const made = await save(tx);
      // two turns: in the first the server hears of what came during the work, in the second it is known here
      await setImmediate();
      await setImmediate();
      if (request.signal.aborted) throw new Stopped();
      return made;
    });
    return answer(saved, 201);
  } catch (error) {
    if (error instanceof Stopped) return refuse(499, [issue("server.stopped")]);
    throw error;
  }
}
