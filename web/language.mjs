// In which language a request is answered: as its cookie says, else as its browser asks.
import { AsyncLocalStorage } from "node:async_hooks";
import Negotiator from "negotiator";

const LANGUAGES = ["en", "de"];
const reader = new AsyncLocalStorage();
// what runs inside asks here, through core/words/language.ts
globalThis[Symbol.for("radicula.reader-language")] = () => reader.getStore();

/**
 * @template T
 * @param {import("node:http").IncomingMessage} request
 * @param {() => T} answer in which the language of the reader is known
 * @returns {T}
 */
export const inLanguageOf = (request, answer) => reader.run(languageOf(request), answer);

/** @param {Pick<import("node:http").IncomingMessage, "headers">} request */
export function languageOf({ headers }) {
  const kept = /(?:^|;\s*)radicula-language=(\w+)/.exec(headers.cookie ?? "")?.[1];
  if (kept && LANGUAGES.includes(kept)) return kept;
  return new Negotiator({ headers }).language(LANGUAGES) ?? "en";
}
