/** Sets of present codes as bits, 32 to a word, for as many codes as there are. */
export type CodeCover = Uint32Array;

/** Bits in one number of a typed array of 32-bit numbers. */
const WORD = 32;
export const emptyCover = (codes: number): CodeCover => new Uint32Array(Math.max(1, Math.ceil(codes / WORD)));
export function addToCover(cover: CodeCover, code: number): void {
  cover[code >>> 5] = cover[code >>> 5]! | (1 << (code & 31));
}
export const covers = (cover: CodeCover, code: number): boolean => ((cover[code >>> 5]! >>> (code & 31)) & 1) === 1;
export const isEmpty = (cover: CodeCover): boolean => cover.every((word) => word === 0);
export const union = (a: CodeCover, b: CodeCover): CodeCover => a.map((word, i) => word | b[i]!);

/** Whether a with b is exactly c. */
export function unionIs(a: CodeCover, b: CodeCover, c: CodeCover): boolean {
  for (let i = 0; i < c.length; i++) if (((a[i]! | b[i]!) ^ c[i]!) !== 0) return false;
  return true;
}
/** Whether b adds nothing to a. */
export const addsNothing = (a: CodeCover, b: CodeCover): boolean => unionIs(a, b, a);
