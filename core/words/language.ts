import type { GetICUArgs } from "@schummar/icu-type-parser";
import { IntlMessageFormat } from "intl-messageformat";

/** Languages in which everything is said. */
export const LANGUAGES = ["en", "de"] as const;
export type Language = (typeof LANGUAGES)[number];
export const isLanguage = (text: string | undefined): text is Language => LANGUAGES.some((l) => l === text);

/**
 * Who is spoken to is a matter of where the program runs: one reader in a browser tab or at a command line, another in
 * each request of a server. Several bundles of one process share the answer, so it stands where all of them find it.
 */
const READER = Symbol.for("radicula.reader-language");
const shared = globalThis as { [READER]?: () => Language | undefined };

/** The language of who is spoken to now; English where nobody said. */
export const readerLanguage = (): Language => shared[READER]?.() ?? "en";

/** How the reader writes dates and times. */
export const readerLocale = (): string => (readerLanguage() === "de" ? "de-DE" : "en-GB");

/** Says how the language of the reader is found out from here on. @param ask undefined where it is not known */
export function findReaderLanguage(ask: () => Language | undefined): void {
  shared[READER] = ask;
}

/** What stands in a message: lists are said with commas between, nothing as nothing. */
type Value = string | number | readonly string[] | undefined;
type ValuesOf<M extends string> = GetICUArgs<M, { ICUArgument: Value; ICUNumberArgument: number }>;
/** What a message of ICU syntax asks for; none where it asks for nothing. */
export type MessageValues<M extends string> = Record<never, never> extends ValuesOf<M> ? [] : [values: ValuesOf<M>];
export type Translation<M> = Readonly<Record<keyof M, string>>;

/** Messages by key, and the one function that says them. English is always there, other languages once added. */
export interface Catalogue<M extends Readonly<Record<string, string>>> {
  /** @returns the message in the language of the reader, in English where that language is not loaded */
  t<K extends keyof M & string>(key: K, ...values: MessageValues<M[K]>): string;
  add(language: Language, messages: Translation<M>): void;
  has(language: Language): boolean;
}

/** Browsers know the languages of ours; asking a browser which it knows takes it up to a tenth of a second. */
IntlMessageFormat.resolveLocale = (locale) => new Intl.Locale(String(locale));

/** How often a language was added: tables made before are made anew. */
let languagesAdded = 0;

/** @param english messages of ICU syntax (FormatJS) by key, as constants: their values are read off by type */
export function catalogue<const M extends Readonly<Record<string, string>>>(english: M): Catalogue<M> {
  const languages = new Map<Language, Translation<M>>([["en", english]]);
  const formats = new Map<string, IntlMessageFormat>();
  return {
    t(key, ...[values]) {
      const wanted = readerLanguage();
      const language = languages.has(wanted) ? wanted : "en";
      const message = languages.get(language)![key];
      // most messages are plain words
      if (!/[{']/.test(message)) return message;
      const name = `${language} ${key}`;
      let format = formats.get(name);
      if (!format)
        formats.set(name, (format = new IntlMessageFormat(message, language, undefined, { ignoreTag: true })));
      return String(format.format(values && sayable(values)));
    },
    add(language, messages) {
      languages.set(language, messages);
      formats.clear();
      languagesAdded++;
    },
    has: (language) => languages.has(language),
  };
}

const sayable = (values: object) =>
  Object.fromEntries(
    Object.entries(values as Record<string, Value>).map(([k, v]) => [k, typeof v === "object" ? v.join(", ") : v]),
  );

/** A table of words that is made anew in the language of each reader: its words are said when they are asked for. */
export const worded = <T extends object>(make: () => T): T => inReadersLanguage({} as T, make);
/** As `worded`, for a list. */
export const wordedList = <const T extends readonly unknown[]>(make: () => T): T =>
  inReadersLanguage<T>([] as unknown as T, make);

/** @param shape an empty one of its kind, as long as nobody asks */
function inReadersLanguage<T extends object>(shape: T, make: () => T): T {
  const made = new Map<Language, { readonly table: T; readonly of: number }>();
  const table = (): T => {
    const language = readerLanguage();
    let found = made.get(language);
    if (found?.of !== languagesAdded) made.set(language, (found = { table: make(), of: languagesAdded }));
    return found.table;
  };
  return new Proxy(shape, {
    get: (_, name) => Reflect.get(table(), name) as unknown,
    has: (_, name) => Reflect.has(table(), name),
    ownKeys: () => Reflect.ownKeys(table()),
    getOwnPropertyDescriptor: (target, name) => {
      const found = Reflect.getOwnPropertyDescriptor(table(), name);
      // a list has its length from the start
      return found && { ...found, configurable: !Reflect.has(target, name) };
    },
  });
}

/** A label as it stands inside a sentence: English takes a small first letter, German keeps that of its nouns. */
export const midSentence = (label: string): string =>
  readerLanguage() === "en" ? label.charAt(0).toLowerCase() + label.slice(1) : label;
