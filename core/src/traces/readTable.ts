import { fileSort, isForeign } from "../format/fileSort.js";
import { fail, issue, ok, type Issue, type Result } from "../issues/issue.js";
import { cutText } from "../units/cutText.js";
import { notText } from "../units/notText.js";
import { Clock, Growing } from "./clock.js";
import { MOST_CHANNELS, MOST_SAMPLES, type Channel, type Recording } from "./recording.js";
import { clockSeconds, numberIn, NEWLINE, plainRows, QUOTE, RETURN, SPACE, type PlainRow } from "./rowBytes.js";
import { layoutOf, type TableLayout } from "./tableLayout.js";

/** What was understood of a file, and what was not. */
export interface RecordingRead {
  readonly recording: Recording;
  /** `trace.…`: rows and cells that were left out, with their row; what had to be assumed */
  readonly issues: readonly Issue[];
}

/** Bytes by which a table's layout is told. */
const HEAD = 64 * 1024;
/** Rows read in one go. */
const ROWS_AT_ONCE = 512;
/** Rows at the head of a file are somewhat longer or shorter than those that follow. */
const SOME_MORE = 1.05;
/** A line longer than this is no row of a table. Judgement. */
const LONGEST_LINE = 200_000;
/** So many rows that could not be taken are named one by one. */
const NAMED = 3;
/** Assumed where a table tells no time: one row a second would be as arbitrary, and looks measured. */
const NO_TIME_STEP = 1;

/** One series of times and the channels that go by it. */
interface Strand {
  readonly timeColumn: number | undefined;
  readonly clock: Clock;
  readonly columns: readonly number[];
}

/**
 * Reads a table of samples as it comes, in any usual layout: CSV and TSV of oscilloscopes and loggers. Cells are parsed
 * from the bytes: a text for each of twenty million cells would take most of the time.
 */
export class TableReader {
  private pending: Uint8Array = new Uint8Array(0);
  private layout: TableLayout | undefined;
  private failed: readonly Issue[] | undefined;
  private plain: PlainRow = { divides: 0, point: 0, width: 0 };
  private strands: Strand[] = [];
  private values: Growing[] = [];
  private row = 0;
  private samples = 0;
  private full = false;
  private decoder: InstanceType<typeof TextDecoder> | undefined;
  private begun = false;
  /** lines end with a carriage return alone, as in files of very old programs */
  private endsWithReturn = false;
  private readonly counts = new Map<string, number>();
  private readonly issues: Issue[] = [];
  private cells = new Float64Array(MOST_CHANNELS * 2);
  private plainCells = new Float64Array(0);
  private readonly found = { next: 0, rows: 0 };
  /** whether more bytes are of any use */
  get wantsMore(): boolean {
    return !this.full && this.failed === undefined;
  }

  /**
   * @param interval seconds between two rows, for a table that does not tell
   * @param size bytes that will come, where that is known
   */
  constructor(
    private readonly interval?: number,
    private readonly size = 0,
  ) {}

  push(bytes: Uint8Array): void {
    if (!this.wantsMore || bytes.length === 0) return;
    const own = this.asUtf8(bytes);
    if (this.endsWithReturn) returnsToNewlines(own);
    if (this.layout && this.pending.length > 0) {
      // the row that was cut through by itself: the rest need not be copied
      const end = own.indexOf(NEWLINE) + 1;
      this.take(join(this.pending, own.subarray(0, end || own.length)), false);
      if (end > 0 && this.wantsMore) this.take(own.subarray(end), false);
      return;
    }
    const all = join(this.pending, own);
    if (!this.layout && all.length < HEAD) this.pending = all;
    else this.take(all, false);
  }

  /**
   * @returns what was read, or why nothing was: `file.empty`, `file.other-sort`, `table.not-text`, `trace.no-numbers`
   */
  end(): Result<RecordingRead> {
    if (this.wantsMore) this.take(this.pending, true);
    if (this.failed) return fail(this.failed);
    return this.done();
  }

  /** UTF-16, as some programs write it, becomes UTF-8. */
  private asUtf8(bytes: Uint8Array): Uint8Array {
    if (!this.begun) {
      this.begun = true;
      if (bytes[0] === 0xff && bytes[1] === 0xfe) this.decoder = new TextDecoder("utf-16le");
      if (bytes[0] === 0xfe && bytes[1] === 0xff) this.decoder = new TextDecoder("utf-16be");
      if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return bytes.subarray(3);
    }
    return this.decoder ? new TextEncoder().encode(this.decoder.decode(bytes, { stream: true })) : bytes;
  }

  private take(all: Uint8Array, isEnd: boolean): void {
    if (!this.layout && !this.findLayout(all, isEnd)) return;
    let from = 0;
    const { headRows } = this.layout!;
    while (!this.full) {
      if (this.row >= headRows) {
        from = this.takePlain(all, from);
        if (this.full) break;
      }
      let to = all.indexOf(NEWLINE, from);
      if (to < 0) {
        if (!isEnd || from >= all.length) break;
        to = all.length;
      }
      this.takeLine(all, from, to > from && all[to - 1] === RETURN ? to - 1 : to, to === all.length && isEnd);
      from = to + 1;
    }
    this.pending = all.slice(Math.min(from, all.length));
    if (this.pending.length > LONGEST_LINE) this.failed = [issue("trace.no-numbers")];
  }

  private findLayout(all: Uint8Array, isEnd: boolean): boolean {
    const isWhole = isEnd && all.length <= HEAD;
    const head = new TextDecoder().decode(all.subarray(0, HEAD));
    if (head.trim() === "") this.failed = [issue("file.empty")];
    else if (isForeign(fileSort(head))) this.failed = [issue("file.other-sort", [], { sort: fileSort(head) })];
    else if (notText(head)) this.failed = [issue("table.not-text")];
    if (this.failed) return false;
    this.endsWithReturn = !head.includes("\n") && head.includes("\r");
    if (this.endsWithReturn) returnsToNewlines(all);
    const layout = layoutOf(head.replace(/\r\n?/g, "\n"), isWhole);
    const used = layout?.columns.filter((c) => c.is === "values") ?? [];
    if (!layout || used.length === 0) {
      this.failed = [issue("trace.no-numbers")];
      return false;
    }
    if (used.length > MOST_CHANNELS) {
      this.failed = [issue("trace.many-channels", [], { channels: used.length, limit: MOST_CHANNELS })];
      return false;
    }
    this.layout = layout;
    this.cells = new Float64Array(layout.columns.length);
    this.plainCells = new Float64Array(ROWS_AT_ONCE * layout.columns.length);
    this.plain = {
      divides: layout.delimiter.charCodeAt(0),
      point: layout.decimal.charCodeAt(0),
      width: layout.columns.length,
    };
    const lines = head.split("\n").length;
    const rows = this.size > HEAD ? (SOME_MORE * this.size * lines) / HEAD : 0;
    const expected = Math.ceil(Math.min(rows, MOST_SAMPLES / used.length));
    this.values = layout.columns.map((c) => new Growing(c.is === "values" ? expected : 0));
    const byTime = new Map<number | undefined, number[]>();
    layout.columns.forEach((c, i) => {
      if (c.is === "values") byTime.set(c.timedBy, [...(byTime.get(c.timedBy) ?? []), i]);
    });
    this.strands = [...byTime].map(([timeColumn, columns]) => ({
      timeColumn,
      columns,
      clock: new Clock(),
    }));
    if (byTime.has(undefined) && layout.interval === undefined && this.interval === undefined)
      this.issues.push(issue("trace.no-time"));
    return true;
  }

  /** Takes rows of nothing but numbers as far as they go. @returns where the next row begins */
  private takePlain(all: Uint8Array, from: number): number {
    const { found } = this;
    found.next = from;
    do {
      plainRows(all, found.next, this.plain, this.plainCells, found);
      this.takePlainRows(found.rows);
    } while (found.rows === ROWS_AT_ONCE && !this.full);
    return found.next;
  }
  private takePlainRows(rows: number): void {
    const { plainCells, cells, strands } = this;
    const { width } = this.plain;
    const { columns } = this.layout!;
    const used = strands.reduce((sum, s) => sum + s.columns.length, 0);
    if (this.samples + rows * used >= MOST_SAMPLES || strands.some((s) => s.timeColumn === undefined)) {
      for (let r = 0; r < rows && !this.full; r++) {
        for (let c = 0; c < width; c++) cells[c] = plainCells[r * width + c]!;
        this.row++;
        this.takeCells();
      }
      return;
    }
    for (const { clock, timeColumn, columns: own } of strands)
      for (let r = 0; r < rows; r++) {
        const end = clock.pushColumn(plainCells, width, timeColumn!, columns[timeColumn!]!.factor, r, rows);
        for (const c of own) this.values[c]!.pushColumn(plainCells, width, c, columns[c]!.factor, r, end);
        this.samples += (end - r) * own.length;
        if (end < rows) this.note("time-backwards", { row: this.row + end + 1 });
        r = end;
      }
    this.row += rows;
  }

  private takeLine(all: Uint8Array, from: number, end: number, isLast: boolean): void {
    this.row++;
    const { headRows, columns } = this.layout!;
    if (this.row <= headRows || end <= from) return;
    const found = this.readCells(all, from, end);
    if (isLast && found < columns.length && this.strands.some((s) => s.columns.some((c) => c >= found)))
      this.note("cut-short", { row: this.row });
    if (found > columns.length) this.note("wide-row", { row: this.row, cells: found, expected: columns.length });
    this.takeCells();
  }

  /** Takes what stands in `cells`: a row of every strand that has a time in it. */
  private takeCells(): void {
    const { cells } = this;
    const { columns } = this.layout!;
    for (const strand of this.strands) {
      const { timeColumn } = strand;
      if (timeColumn === undefined) {
        strand.clock.push(this.values[strand.columns[0]!]!.length * this.evenStep);
      } else {
        const t = cells[timeColumn]! * columns[timeColumn]!.factor;
        if (t !== t) {
          if (strand.columns.some((c) => cells[c] === cells[c])) this.note("no-time-here", { row: this.row });
          continue;
        }
        if (!strand.clock.push(t)) {
          this.note("time-backwards", { row: this.row });
          continue;
        }
      }
      for (const c of strand.columns) this.values[c]!.push(cells[c]! * columns[c]!.factor);
      this.samples += strand.columns.length;
    }
    if (this.samples < MOST_SAMPLES) return;
    this.full = true;
    this.note("too-long", { row: this.row, limit: MOST_SAMPLES });
  }
  private get evenStep(): number {
    return this.layout!.interval ?? this.interval ?? NO_TIME_STEP;
  }

  /** Parses the cells of one line into `cells`, NaN where there is nothing. @returns how many there are */
  private readCells(all: Uint8Array, from: number, end: number): number {
    const { delimiter, decimal, columns } = this.layout!;
    const divides = delimiter.charCodeAt(0);
    const point = decimal.charCodeAt(0);
    const bySpaces = divides === SPACE;
    const { cells } = this;
    cells.fill(NaN);
    let c = 0;
    let i = from;
    if (bySpaces) while (i < end && all[i] === SPACE) i++;
    for (;;) {
      let begin = i;
      let stop: number;
      if (all[begin] === QUOTE && i < end) {
        begin++;
        stop = begin;
        while (stop < end && all[stop] !== QUOTE) stop++;
        i = stop;
        while (i < end && all[i] !== divides) i++;
      } else {
        while (i < end && all[i] !== divides) i++;
        stop = i;
      }
      if (c < cells.length && columns[c]!.is !== "ignored") {
        const v = numberIn(all, begin, stop, point);
        cells[c] = v === v ? v : this.slowly(all, begin, stop, c);
      }
      c++;
      if (i >= end) return c;
      i++;
      if (bySpaces) {
        while (i < end && all[i] === SPACE) i++;
        if (i >= end) return c;
      }
    }
  }

  /** A cell that is no plain number: nothing, a time of day, or a mistake, which is said. */
  private slowly(all: Uint8Array, begin: number, stop: number, c: number): number {
    if (stop <= begin) return NaN;
    const text = new TextDecoder().decode(all.subarray(begin, stop)).trim();
    if (/^(|ol|\+?inf|-inf|nan|---?|n\/?a|null|[-+]?∞)$/i.test(text)) return NaN;
    const clock = clockSeconds(text);
    if (clock !== undefined) return clock / this.layout!.columns[c]!.factor;
    this.note("not-a-number", { row: this.row, column: c + 1, text: cutText(text, 40) });
    return NaN;
  }

  private note(code: string, params: Issue["params"]): void {
    const count = (this.counts.get(code) ?? 0) + 1;
    this.counts.set(code, count);
    if (count <= NAMED) this.issues.push(issue(`trace.${code}`, [], params));
  }

  private done(): Result<RecordingRead> {
    const { layout, strands, values } = this;
    for (const [code, count] of this.counts)
      if (count > NAMED)
        this.issues.push(issue("trace.more-of-it", [], { first: `trace.${code}`, count: count - NAMED }));
    const channels = strands.flatMap((strand): Channel[] => {
      const times = strand.clock.times();
      return strand.columns.map((c, k) => ({
        name: layout!.columns[c]!.name || `channel ${channelNumber(layout!, c, k)}`,
        unit: layout!.columns[c]!.unit,
        ...times,
        values: values[c]!.done(),
      }));
    });
    const filled = channels.filter((c) => c.values.length > 0);
    if (filled.length === 0) return fail([issue("trace.no-numbers"), ...this.issues]);
    return ok({ recording: { channels: filled }, issues: this.issues });
  }
}
function returnsToNewlines(bytes: Uint8Array): void {
  for (let i = 0; i < bytes.length; i++) if (bytes[i] === RETURN) bytes[i] = NEWLINE;
}
const channelNumber = ({ columns }: TableLayout, c: number, k: number) =>
  columns.slice(0, c + 1).filter((x) => x.is === "values").length || k + 1;

function join(a: Uint8Array, b: Uint8Array): Uint8Array {
  if (a.length === 0) return b;
  const out = new Uint8Array(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
}
