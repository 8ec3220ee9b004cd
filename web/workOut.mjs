// The whole answer to a logbook, in a thread of its own that gives way to everybody else.
import { readlinkSync } from "node:fs";
import { constants, setPriority } from "node:os";
import {
  codesOfAll,
  ENGINE_VERSION,
  Focus,
  keptKeys,
  packCodes,
  packValues,
  takeCodes,
  takeValues,
  wholeAnswer,
  workOutPiece,
} from "@radicula/core";

try {
  // on Linux a thread has a priority of its own, by its number
  setPriority(Number(readlinkSync("/proc/thread-self").split("/").at(-1)), constants.priority.PRIORITY_LOW);
} catch {
  // elsewhere it works like any other thread
}

/** @typedef {import("@radicula/core").Entry} Entry */
/** @typedef {{ wiring: import("@radicula/core").Wiring, entries: readonly Entry[] }} Logbook */

/**
 * By what kept predictions for a logbook are found, see `keptKeys`.
 * @param {Logbook} logbook
 */
export function keysOf({ wiring, entries }) {
  return keptKeys(new Focus(wiring).predictor(entries), ENGINE_VERSION);
}

/**
 * The same answer as on a device that works at the job, and what was predicted for it where that is more than was
 * kept.
 * @param {Logbook & { kept: Readonly<Record<string, Uint8Array>> }} task what is kept, by key
 * @returns {{ answer: import("@radicula/core").WholeAnswer, found: Record<string, Uint8Array> }}
 */
export default function workOut({ wiring, entries, kept }) {
  const focus = new Focus(wiring);
  const predictor = focus.predictor(entries);
  const keys = keptKeys(predictor, ENGINE_VERSION);
  if (kept[keys.codes]) takeCodes(predictor, kept[keys.codes]);
  if (kept[keys.values]) takeValues(predictor, kept[keys.values]);
  const answer = wholeAnswer(predictor, entries);
  // whatever codes the next job on such a machine has
  if (!focus.isLarge) for (const piece of codesOfAll(predictor)) workOutPiece(predictor, piece);
  const found = { [keys.codes]: packCodes(predictor), [keys.values]: packValues(predictor) };
  // it only grows
  const grown = Object.entries(found).filter(([key, bytes]) => bytes.length !== kept[key]?.length);
  return { answer, found: Object.fromEntries(grown) };
}
