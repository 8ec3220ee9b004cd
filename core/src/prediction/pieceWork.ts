import type { CodePiece, Piece, PieceResult, RowsOfHypothesis } from "./piece.js";
import { columnName, ROW_OVERHEAD } from "./predictionCache.js";
import type { Predictor } from "./predictor.js";

// Pieces of predicting that several threads share. Each thread has a predictor of the same machine; what is predicted
// hangs on nothing else, so that it does not matter who works it out.

/** Works out one hypothesis of a piece, by its place in it; the predictor remembers it. */
export function workOutAt(predictor: Predictor, piece: Piece, place: number): void {
  const h = piece.hypotheses[place]!;
  switch (piece.work) {
    case "movesAny":
      predictor.movesAny(h, piece.monitors);
      return;
    case "movesEach":
      for (const m of piece.monitors) predictor.movesAny(h, [m]);
      return;
    case "rough":
      predictor.roughCodesSet(h, piece.monitors);
      return;
    case "full":
      predictor.codesSet(h, piece.monitors);
      return;
    case "values":
      predictor.predict(h, piece.state, piece.instrument, piece.wanted?.[place]);
      return;
    case "reading":
      predictor.predictAt(h, piece.place, piece.wanted?.[place]);
  }
}

/** Works out a piece for another thread. */
export function workOutPiece(predictor: Predictor, piece: Piece): PieceResult[] {
  piece.hypotheses.forEach((_, i) => workOutAt(predictor, piece, i));
  const column = columnOf(predictor, piece);
  return piece.hypotheses.map((hypothesis): PieceResult => {
    const isSettled = !predictor.unsettled.has(hypothesis);
    return column === undefined
      ? { hypothesis, isSettled, codes: predictor.codes.knownOf(hypothesis) }
      : { hypothesis, isSettled, values: rowsOf(predictor, hypothesis, column) };
  });
}
function columnOf(predictor: Predictor, piece: Piece): string | undefined {
  if (piece.work === "values") return columnName(piece.state, piece.instrument);
  return piece.work === "reading" ? predictor.columnOf(piece.place) : undefined;
}
function rowsOf(predictor: Predictor, h: number, column: string): RowsOfHypothesis {
  const known = predictor.cache.rows(column, h, predictor.hypotheses[h]!.samples);
  const there = known.flatMap((row, sample) => (row ? [{ sample, row }] : []));
  const stride = there[0]?.row.length ?? 0;
  const rows = new Float32Array(there.length * stride);
  there.forEach(({ row }, i) => rows.set(row, i * stride));
  return { column, stride, samples: Uint32Array.from(there, (t) => t.sample), rows };
}

/** A piece of codes without the hypotheses of which it is known already. */
export function openPiece({ codes }: Predictor, piece: CodePiece): CodePiece {
  const { work, monitors } = piece;
  const isDone = (h: number) => {
    if (work === "movesAny") return codes.isMoveKnown(h, monitors);
    if (work === "movesEach") return monitors.every((m) => codes.isMoveKnown(h, [m]));
    return codes.isKnown(h, monitors, work === "rough");
  };
  return { ...piece, hypotheses: piece.hypotheses.filter((h) => !isDone(h)) };
}
/** Whether a piece holds nothing that is still to be worked out. */
export function isPieceKnown(predictor: Predictor, piece: Piece): boolean {
  if (piece.work !== "values" && piece.work !== "reading") return openPiece(predictor, piece).hypotheses.length === 0;
  const column = columnOf(predictor, piece)!;
  return piece.hypotheses.every((h, i) => {
    const { samples } = predictor.hypotheses[h]!;
    const rows = predictor.cache.rows(column, h, samples);
    const wanted = piece.wanted?.[i];
    for (let s = 0; s < samples; s++) if (!rows[s] && (!wanted || wanted[s])) return false;
    return true;
  });
}

/** Takes over what another thread found of the same machine: what is known already stays. */
export function takeResults(predictor: Predictor, found: readonly PieceResult[]): void {
  for (const { hypothesis, isSettled, codes, values } of found) {
    if (!isSettled) predictor.unsettled.add(hypothesis);
    if (codes) predictor.codes.takeOver(hypothesis, codes);
    if (values) takeRows(predictor, hypothesis, values);
  }
}
function takeRows({ cache, hypotheses }: Predictor, h: number, more: RowsOfHypothesis): void {
  const { column, stride, samples, rows } = more;
  const own = cache.rows(column, h, hypotheses[h]!.samples);
  let added = 0;
  samples.forEach((sample, i) => {
    if (own[sample]) return;
    own[sample] = rows.subarray(i * stride, (i + 1) * stride);
    added += stride === 1 ? ROW_OVERHEAD : stride;
  });
  cache.count(column, added);
}
