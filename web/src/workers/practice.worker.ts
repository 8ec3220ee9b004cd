import { play, Predictor, type Entry, type Played } from "@radicula/core";
import { expose } from "comlink";
import { hiddenFaults, HiddenMachine } from "@/features/case/revealed/hidden";
import { Entries, readMessage, Wiring } from "./messages";

const api = {
  /**
   * Plays the job of a closed practice machine again, by the plan alone.
   * @param before what was known before the first scan
   */
  play(wiring: unknown, hidden: unknown, before: unknown): Played | undefined {
    const told = readMessage(HiddenMachine, hidden);
    const { seed, presence, mistaken } = told;
    const machine = readMessage(Wiring, wiring);
    const known: readonly Entry[] = readMessage(Entries, before);
    const at = hiddenFaults(machine, told);
    if (at.length < told.faults.length) return undefined; // the wiring has changed since
    return play(new Predictor(machine), at, {
      school: "information",
      seed,
      before: known,
      ...(presence === undefined ? {} : { presence }),
      ...(mistaken === undefined ? {} : { mistaken }),
      ...(at.length > 1 ? { repairs: true } : {}),
    });
  },
};
export type PracticeApi = typeof api;
expose(api);
