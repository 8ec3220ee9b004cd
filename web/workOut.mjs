// The whole answer to a logbook, in a thread of its own that gives way to everybody else.
import { readlinkSync } from "node:fs";
import { constants, setPriority } from "node:os";
import {
  analyse,
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
  takeOver(predictor, kept);
  const answer = wholeAnswer(predictor, entries);
  // whatever codes the next job on such a machine has
  if (!focus.isLarge) for (const piece of codesOfAll(predictor)) workOutPiece(predictor, piece);
  return { answer, found: grownSince(predictor, kept) };
}

/** First cards are thought of for so many codes, each by itself. Judgement: time. */
const MOST_CODES = 40;
const ANY_DAY = "2026-01-01T08:00:00Z";
/**
 * What the first codes of any job on a machine will need. Of a large one nobody knows yet which part that is.
 * @param {{ wiring: import("@radicula/core").Wiring, kept: Readonly<Record<string, Uint8Array>> }} task
 * @returns {Record<string, Uint8Array>} by key, where it is more than was kept
 */
export function predict({ wiring, kept }) {
  const focus = new Focus(wiring);
  if (focus.isLarge) return {};
  const predictor = focus.predictor([]);
  takeOver(predictor, kept);
  for (const piece of codesOfAll(predictor)) workOutPiece(predictor, piece);
  // where a first card would have something read
  for (const { module, id } of wiring.codes.slice(0, MOST_CODES))
    analyse(predictor, [{ type: "code", at: ANY_DAY, module, code: id, status: "active" }], { quick: true });
  return grownSince(predictor, kept);
}

/**
 * @param {import("@radicula/core").Predictor} predictor
 * @param {Readonly<Record<string, Uint8Array>>} kept
 */
function takeOver(predictor, kept) {
  const keys = keptKeys(predictor, ENGINE_VERSION);
  if (kept[keys.codes]) takeCodes(predictor, kept[keys.codes]);
  if (kept[keys.values]) takeValues(predictor, kept[keys.values]);
}
/**
 * @param {import("@radicula/core").Predictor} predictor
 * @param {Readonly<Record<string, Uint8Array>>} kept
 * @returns {Record<string, Uint8Array>}
 */
function grownSince(predictor, kept) {
  const keys = keptKeys(predictor, ENGINE_VERSION);
  const found = { [keys.codes]: packCodes(predictor), [keys.values]: packValues(predictor) };
  // it only grows
  return Object.fromEntries(Object.entries(found).filter(([key, bytes]) => bytes.length !== kept[key]?.length));
}
