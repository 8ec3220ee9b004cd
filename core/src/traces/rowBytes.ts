export const NEWLINE = 10;
export const RETURN = 13;
export const QUOTE = 34;
export const SPACE = 32;
const PLUS = 43;
const MINUS = 45;
const ZERO = 48;
const NINE = 57;
const LETTER_E = 101;
/** Digits that a whole number of the machine holds exactly. */
const MOST_DIGITS = 15;
const POWERS = Float64Array.from({ length: 48 }, (_, i) => 10 ** i);

/** How a row is written that holds nothing but numbers. */
export interface PlainRow {
  readonly divides: number;
  readonly point: number;
  readonly width: number;
}

/** Digits that fit a machine's short whole number. */
const SHORT_DIGITS = 9;

/**
 * Reads rows that hold nothing but numbers, one after the other: nearly all rows do, and twenty million of them are to
 * be read while somebody waits. Digits are gathered as short whole numbers, which a processor adds up at once.
 * @param rows filled with the cells of each row, row after row; no more rows are read than have room in it
 * @param found told where the next row begins and how many rows were read; it ends before a row that is not so
 *   simple, or not whole
 */
export function plainRows(
  all: Uint8Array,
  from: number,
  { divides, point, width }: PlainRow,
  rows: Float64Array,
  found: { next: number; rows: number },
): void {
  const bySpaces = divides === SPACE;
  const most = Math.floor(rows.length / width);
  const pointed = point !== divides;
  let row = 0;
  let begin = from;
  let at = 0;
  reading: for (let i = from; row < most; row++) {
    for (let c = 1; ; c++) {
      let b = all[i]! | 0;
      if (!bySpaces) while (b === SPACE) b = all[++i]! | 0;
      const isNegative = b === MINUS;
      if (isNegative) b = all[++i]! | 0;
      const first = i;
      let whole = 0;
      while (b >= ZERO && b <= NINE) {
        whole = (Math.imul(whole, 10) + (b - ZERO)) | 0;
        b = all[++i]! | 0;
      }
      let digits = (i - first) | 0;
      let value: number = whole;
      let power = 0;
      if (digits > SHORT_DIGITS) value = longWhole(all, first, i);
      if (b === point && pointed) {
        b = all[++i]! | 0;
        const start = i;
        let part = 0;
        while (b >= ZERO && b <= NINE) {
          part = (Math.imul(part, 10) + (b - ZERO)) | 0;
          b = all[++i]! | 0;
        }
        const places = (i - start) | 0;
        digits = (digits + places) | 0;
        if (places > 0 && digits <= MOST_DIGITS) {
          value = value * POWERS[places]! + (places > SHORT_DIGITS ? longWhole(all, start, i) : part);
          power = -places;
        }
      }
      if (digits === 0 || digits > MOST_DIGITS) break reading;
      if ((b | 32) === LETTER_E) {
        b = all[++i]! | 0;
        const isDown = b === MINUS;
        if (isDown || b === PLUS) b = all[++i]! | 0;
        let exponent = 0;
        const start = i;
        while (b >= ZERO && b <= NINE) {
          exponent = (exponent * 10 + (b - ZERO)) | 0;
          b = all[++i]! | 0;
        }
        if (i === start || i > start + 3 || exponent > POWERS.length - MOST_DIGITS) break reading;
        power += isDown ? -exponent : exponent;
      }
      if (power <= -POWERS.length) break reading;
      if (power < 0) value /= POWERS[-power]!;
      else if (power > 0) value *= POWERS[power]!;
      rows[at++] = isNegative ? -value : value;
      if (c < width) {
        if (b !== divides) break reading;
        i++;
        continue;
      }
      if (b === RETURN) b = all[++i]! | 0;
      if (b !== NEWLINE) break reading;
      begin = ++i;
      break;
    }
  }
  found.next = begin;
  found.rows = row;
}

/** Digits between two places as a number: exact up to 15 of them. */
function longWhole(all: Uint8Array, from: number, to: number): number {
  let value = 0;
  for (let i = from; i < to; i++) value = value * 10 + (all[i]! - ZERO);
  return value;
}

/** A plain number between two places; NaN where it is none. */
export function numberIn(all: Uint8Array, begin: number, stop: number, point: number): number {
  let i = begin;
  while (i < stop && all[i] === SPACE) i++;
  let end = stop;
  while (end > i && all[end - 1] === SPACE) end--;
  if (i === end) return NaN;
  let sign = 1;
  if (all[i] === MINUS) {
    sign = -1;
    i++;
  } else if (all[i] === PLUS) i++;
  let mantissa = 0;
  let digits = 0;
  let behind = 0;
  let seenPoint = false;
  for (; i < end; i++) {
    const b = all[i]!;
    if (b >= ZERO && b <= NINE) {
      digits++;
      if (mantissa < 9e14) {
        mantissa = mantissa * 10 + b - ZERO;
        if (seenPoint) behind++;
      } else if (!seenPoint) behind--;
    } else if (b === point && !seenPoint) seenPoint = true;
    else break;
  }
  if (digits === 0) return NaN;
  let exponent = 0;
  if (i < end) {
    if ((all[i]! | 32) !== 101 || i + 1 >= end) return NaN; // e or E
    i++;
    let down = false;
    if (all[i] === MINUS) {
      down = true;
      i++;
    } else if (all[i] === PLUS) i++;
    if (i >= end) return NaN;
    for (; i < end; i++) {
      const b = all[i]!;
      if (b < ZERO || b > NINE) return NaN;
      exponent = Math.min(9_999, exponent * 10 + b - ZERO);
    }
    if (down) exponent = -exponent;
  }
  const power = exponent - behind;
  const scaled =
    power === 0
      ? mantissa
      : power < 0
        ? mantissa / (POWERS[-power] ?? 10 ** -power)
        : mantissa * (POWERS[power] ?? 10 ** power);
  return sign * scaled;
}

/** `12:34:56.789`, with or without a day in front: seconds. */
export function clockSeconds(text: string): number | undefined {
  const m = /^(?:(\d{4}-\d\d-\d\d)[T ])?(\d{1,2}):(\d\d)(?::(\d\d(?:[.,]\d+)?))?Z?$/.exec(text);
  if (!m) return undefined;
  const day = m[1] === undefined ? 0 : Date.parse(`${m[1]}T00:00:00Z`) / 1000;
  return day + Number(m[2]) * 3600 + Number(m[3]) * 60 + Number((m[4] ?? "0").replace(",", "."));
}
