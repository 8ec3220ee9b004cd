import type { ReadingPlace } from "../prediction/piece.js";
import type { Predictor } from "../prediction/predictor.js";

/** Values this near are the same, whatever is read: volt, ohm or ampere, as a share of them from one up. */
const SAME = 2e-3;

/** Whether faults leave a reading as it is on a sound machine, at every severity and draw they are predicted in. */
export function isUnmovedAt(predictor: Predictor, h: number, reading: ReadingPlace): boolean {
  const { draws } = predictor;
  const { samples } = predictor.hypotheses[h]!;
  const used = predictor.drawsUsed(h);
  const wanted = Uint8Array.from({ length: samples }, (_, s) => (s % draws < used ? 1 : 0));
  const own = predictor.predictAt(h, reading, wanted);
  const sound = predictor.predictAt(0, reading);
  for (let s = 0; s < samples; s++) if (wanted[s] && !isSame(own.at(s), sound.at(s % draws))) return false;
  return true;
}
const isSame = (a: number, b: number) =>
  a === b || (Number.isNaN(a) && Number.isNaN(b)) || Math.abs(a - b) < SAME * Math.max(1, Math.abs(b));
