/** @jest-environment ./test/environments/node.mjs */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { IntlMessageFormat } from "intl-messageformat";
import readability from "text-readability";
import { english as coreEnglish } from "../../core/words/messages/en";
import { german as coreGerman } from "../../core/words/messages/de";
import { english as webEnglish } from "@/messages/en";
import { german as webGerman } from "@/messages/de";
import { problems } from "@/messages/en/problems";

const ROOT = join(__dirname, "..", "..");

type Messages = Readonly<Record<string, string>>;
const CATALOGUES: readonly (readonly [string, Messages, Messages])[] = [
  ["core", coreEnglish, coreGerman],
  ["web", webEnglish, webGerman],
];
const all = CATALOGUES.flatMap(([, english, german]) =>
  Object.entries(english).map(([key, message]) => ({ key, message, german: german[key]! })),
);

/** Names of the values a message takes. @throws where it is no ICU message */
function valuesOf(message: string, language: string): string[] {
  const found = new Set<string>();
  const walk = (parts: ReturnType<IntlMessageFormat["getAst"]>) => {
    for (const part of parts) {
      if (!("value" in part) || part.type === 0) continue;
      if ("options" in part) {
        found.add(part.value);
        for (const option of Object.values(part.options)) walk(option.value);
      } else found.add(part.value);
    }
  };
  walk(new IntlMessageFormat(message, language, undefined, { ignoreTag: true }).getAst());
  return [...found].sort();
}
/** Parts that are put together with others keep the space or comma they begin and end with. */
const joints = (message: string) => [/^\s/.test(message), /^[,;:]/.test(message), /\s$/.test(message)];

test.each(CATALOGUES)("%s: German says every message, with the same values", (_, english, german) => {
  expect(Object.keys(german).sort()).toEqual(Object.keys(english).sort());
  for (const [key, message] of Object.entries(english))
    expect({ key, takes: valuesOf(german[key]!, "de") }).toEqual({ key, takes: valuesOf(message, "en") });
});

test("parts of a sentence fit together in German as they do in English", () => {
  const odd = all.filter(({ message, german }) => joints(message).join() !== joints(german).join());
  // German has no comma before its or
  expect(odd.map((m) => m.key)).toEqual(["faults.orJoin"]);
});

test("no sentence is left in English", () => {
  const words = (text: string) => text.replace(/\{[^}]*\}/g, " ").match(/\p{L}{3,}/gu) ?? [];
  const same = all.filter(({ message, german }) => message === german && words(message).length > 1);
  expect(same.map((m) => m.message)).toEqual(['npm run people -- add "YOUR NAME" SIGN-IN-NAME administrator']);
});

test("every message is said somewhere", () => {
  const source = ["core/words", "web/src"]
    .flatMap((folder) =>
      readdirSync(join(ROOT, folder), { recursive: true, encoding: "utf8" })
        .filter((f) => /\.tsx?$/.test(f) && !/messages\/(en|de)\//.test(f))
        .map((f) => readFileSync(join(ROOT, folder, f), "utf8")),
    )
    .join("\n");
  // problems are said by their code
  const keys = all.map((m) => m.key).filter((key) => !(key in problems));
  expect(keys.filter((key) => !source.includes(`"${key}"`))).toEqual([]);
});

/** A message as it is read: a name for each value, the last of its cases. */
const asRead = (message: string) =>
  message.replace(/\{\w+, (?:plural|select),(?:[^{}]|\{[^{}]*\})*\}/g, "one").replace(/\{\w+\}/g, "B7");
/** Shorter ones are labels; a grade says nothing of them. */
const LEAST_WORDS = 8;
test("sentences are read with eight years of school (Flesch and Kincaid), none needs more than twelve", () => {
  const sentences = all
    .map(({ message }) => asRead(message))
    .filter((m) => m.split(/\s+/).filter((w) => /[a-z]/i.test(w)).length >= LEAST_WORDS);
  const grades = sentences.map((s) => ({ s, grade: readability.fleschKincaidGrade(s) }));
  const mean = grades.reduce((sum, { grade }) => sum + grade, 0) / grades.length;
  console.log(`${grades.length} sentences of ${LEAST_WORDS} words or more, grade ${mean.toFixed(1)} on average`);
  expect(sentences.length).toBeGreaterThan(400);
  expect(grades.filter(({ grade }) => grade > 12)).toEqual([]);
  expect(mean).toBeLessThanOrEqual(8);
});
