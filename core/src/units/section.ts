/** Diameter of an American wire gauge, millimetre (ASTM B258; value from memory): 0.127 · 92^((36 − n)/39). */
export const gaugeMm2 = (n: number): number => (Math.PI / 4) * (0.127 * 92 ** ((36 - n) / 39)) ** 2;

/**
 * Reads a cross-section: `0.75`, `0,75 mm²`, `18 AWG`, `AWG18`, `2/0 AWG`.
 * @returns mm² to three figures, or undefined where the text is none
 */
export function parseSection(text: string): number | undefined {
  const t = text.trim().toLowerCase().replace(",", ".");
  const gauge = /^(?:awg\s*#?\s*(\d{1,2})(\/0)?|#?(\d{1,2})(\/0)?\s*(?:awg|ga\.?|gauge))$/.exec(t);
  if (gauge) {
    const n = Number(gauge[1] ?? gauge[3]);
    return figures(gaugeMm2((gauge[2] ?? gauge[4]) ? 1 - n : n));
  }
  const m = /^(\d+(?:\.\d+)?|\.\d+)\s*(mm2|mm²|mm\^2|sq\.?\s?mm|q|qmm)?$/.exec(t);
  const value = m ? Number(m[1]) : NaN;
  return value >= 0.05 && value <= 240 ? value : undefined;
}
const figures = (value: number) => Number(value.toPrecision(3));
