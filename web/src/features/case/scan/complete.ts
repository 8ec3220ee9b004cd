import { genericCodes, type Wiring } from "@radicula/core";

export interface Completion {
  readonly code: string;
  readonly title: string;
}
const WORD = /[\p{L}\p{N}_]+$/u;
const MOST = 4;

/** The word that stands before the caret. */
export function wordBefore(text: string, caret: number): string {
  return WORD.exec(text.slice(0, caret))?.[0] ?? "";
}

/** Codes that begin with what stands before the caret: those of the wiring first, then generic ones. */
export function completions(wiring: Wiring, text: string, caret: number): Completion[] {
  const word = wordBefore(text, caret).toUpperCase();
  if (word.length < 2) return [];
  const own = wiring.codes.map((c) => ({ code: c.id, title: c.title ?? "" }));
  const found = new Map<string, Completion>();
  for (const c of [...own, ...genericCodes()])
    if (found.size < MOST && c.code.toUpperCase().startsWith(word) && !found.has(c.code)) found.set(c.code, c);
  // a code typed in full needs no completing
  return found.size === 1 && found.has(word) ? [] : [...found.values()].filter((c) => c.code !== word);
}

/** The text with the word before the caret made whole, and where the caret then stands. */
export function complete(text: string, caret: number, code: string): { readonly text: string; readonly caret: number } {
  const start = caret - wordBefore(text, caret).length;
  const rest = text.slice(caret);
  return { text: `${text.slice(0, start)}${code}${rest}`, caret: start + code.length };
}
