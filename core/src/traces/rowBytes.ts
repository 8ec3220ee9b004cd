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

/**
 * Reads a row that holds nothing but numbers in one go: nearly all rows do, and twenty million of them are to be read
 * while somebody waits.
 * @returns where the next row begins; −1 where this one is not so simple, or not whole
 */
export function plainRow(
  all: Uint8Array,
  from: number,
  { divides, point, width }: PlainRow,
  cells: Float64Array,
): number {
  let i = from;
  for (let c = 0; ;) {
    let b = all[i]!;
    while (b === SPACE && divides !== SPACE) b = all[++i]!;
    const isNegative = b === MINUS;
    if (isNegative) b = all[++i]!;
    let digits = 0;
    let mantissa = 0;
    for (; b >= ZERO && b <= NINE; b = all[++i]!, digits++) mantissa = mantissa * 10 + (b - ZERO);
    let power = 0;
    if (b === point && point !== divides)
      for (b = all[++i]!; b >= ZERO && b <= NINE; b = all[++i]!, power--) mantissa = mantissa * 10 + (b - ZERO);
    digits -= power;
    if (digits === 0 || digits > MOST_DIGITS) return -1;
    if ((b | 32) === LETTER_E) {
      b = all[++i]!;
      const isDown = b === MINUS;
      if (isDown || b === PLUS) b = all[++i]!;
      let exponent = 0;
      const first = i;
      for (; b >= ZERO && b <= NINE; b = all[++i]!) exponent = exponent * 10 + (b - ZERO);
      if (i === first || exponent > POWERS.length - MOST_DIGITS) return -1;
      power += isDown ? -exponent : exponent;
    }
    if (power <= -POWERS.length) return -1;
    const value = power < 0 ? mantissa / POWERS[-power]! : power > 0 ? mantissa * POWERS[power]! : mantissa;
    cells[c++] = isNegative ? -value : value;
    if (c < width) {
      if (b !== divides) return -1;
      i++;
      continue;
    }
    if (b === RETURN) b = all[++i]!;
    return b === NEWLINE ? i + 1 : -1;
  }
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
