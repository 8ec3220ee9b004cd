/** Letters that a reader of pictures takes for figures that look alike (common practice, no source). */
const FIGURES: Readonly<Record<string, string>> = { l: "1", I: "1", "|": "1", O: "0", o: "0", S: "5", Z: "2" };
/** A name with its number, of which some figures were read as letters: Bl, B1O, SI2. */
const NAME = /^([A-Z]{1,3}?)([\dlI|OoSZ]{1,3})([;:.,]?)$/;

/**
 * A name as it most likely stands on a drawing, where it was read from a picture: `Bl` is B1. Words that are no such
 * name stay as they are.
 */
export function ocrName(text: string): string {
  const m = NAME.exec(text);
  if (!m || !/[\dlI|]/.test(m[2]!)) return text;
  return m[1]! + m[2]!.replace(/[lI|OoSZ]/g, (c) => FIGURES[c] ?? c);
}
