import type { Instrument, State } from "../format/case.js";
import { stateName } from "../network/state.js";
import { QUANTITY } from "./quantity.js";

/** Predictions of one hypothesis in one state of one quantity: for each sample asked for so far one number a place. */
export type Rows = (Float32Array | undefined)[];
/** Predictions of one hypothesis at one place. */
export interface Predicted {
  at(sample: number): number;
}
export class AtPlace implements Predicted {
  constructor(
    private readonly rows: Rows,
    private readonly place: number,
  ) {}
  at(sample: number): number {
    const row = this.rows[sample];
    return row === undefined ? NaN : row[this.place]!;
  }
}

/** What a row of one number takes beside it, in numbers. */
export const ROW_OVERHEAD = 16;

/** Predictions kept by state and quantity; the columns not asked for the longest make room for new ones. */
export class PredictionCache {
  private readonly columns = new Map<string, Map<number, Rows>>();
  private readonly held = new Map<string, number>();
  private numbers = 0;
  private latest = "";
  /** @param most numbers kept, all together */
  constructor(private readonly most: number) {}

  /** The column of a state and quantity: rows by hypothesis. */
  private column(name: string): Map<number, Rows> {
    let column = this.columns.get(name);
    if (name === this.latest && column) return column;
    if (column)
      this.columns.delete(name); // and put back as the latest
    else column = new Map();
    this.columns.set(name, column);
    this.latest = name;
    return column;
  }
  /** The rows of a hypothesis in a column, empty at first: [sample]. */
  rows(name: string, hypothesis: number, samples: number): Rows {
    const column = this.column(name);
    let rows = column.get(hypothesis);
    if (!rows) column.set(hypothesis, (rows = new Array<Float32Array | undefined>(samples).fill(undefined)));
    return rows;
  }
  /** Counts numbers added to a column, and drops the oldest columns where there are too many. */
  count(name: string, numbers: number): void {
    this.numbers += numbers;
    this.held.set(name, (this.held.get(name) ?? 0) + numbers);
    for (const oldest of this.columns.keys()) {
      if (this.numbers <= this.most || oldest === name) return;
      this.columns.delete(oldest);
      this.numbers -= this.held.get(oldest) ?? 0;
      this.held.delete(oldest);
    }
  }
  /** The columns with their rows by hypothesis. */
  all(): readonly { readonly column: string; readonly rowsOf: ReadonlyMap<number, Rows> }[] {
    return [...this.columns].map(([column, rowsOf]) => ({ column, rowsOf }));
  }
  /** Forgets hypotheses from one on. */
  forgetFrom(hypothesis: number): void {
    for (const column of this.columns.values())
      for (const h of [...column.keys()]) if (h >= hypothesis) column.delete(h);
  }
}

/** The name of the column of a state and quantity. */
export const columnName = (state: State, instrument: Instrument): string =>
  `${QUANTITY[instrument]} ${stateName(state)}`;
/** The name of the column of one reading between two leads. */
export const betweenName = (state: State, instrument: Instrument, red: string, black: string): string =>
  `between ${red} ${black} ${QUANTITY[instrument]} ${stateName(state)}`;
/** The name of the column of one place of a state and quantity, predicted by itself. */
export const aloneName = (state: State, instrument: Instrument, place: number): string =>
  `alone ${place} ${columnName(state, instrument)}`;
/** The name of the column of a state and quantity that holds no solve with the meter in the circuit. */
export const barelyName = (state: State, instrument: Instrument): string => `barely ${columnName(state, instrument)}`;
