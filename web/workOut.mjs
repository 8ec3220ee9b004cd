// The whole answer to a logbook, in a thread of its own that gives way to everybody else.
import { readlinkSync } from "node:fs";
import { constants, setPriority } from "node:os";
import { Focus, wholeAnswer } from "@radicula/core";

try {
  // on Linux a thread has a priority of its own, by its number
  setPriority(Number(readlinkSync("/proc/thread-self").split("/").at(-1)), constants.priority.PRIORITY_LOW);
} catch {
  // elsewhere it works like any other thread
}

/**
 * @param {{ wiring: import("@radicula/core").Wiring, entries: readonly import("@radicula/core").Entry[] }} task
 * @returns the same as a device that works at the job
 */
export default function workOut({ wiring, entries }) {
  return wholeAnswer(new Focus(wiring).predictor(entries), entries);
}
