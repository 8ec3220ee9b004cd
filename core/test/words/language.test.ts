import { catalogue, findReaderLanguage, midSentence, worded, wordedList, type Language } from "../../words/index.js";
import { addGermanWords } from "../../words/german.js";
import { rulesOut, shareText } from "../../words/index.js";

let reader: Language | undefined;
beforeAll(() => findReaderLanguage(() => reader));
beforeEach(() => (reader = undefined));
afterAll(() => findReaderLanguage(() => undefined));

const fruit = () =>
  catalogue({
    none: "no fruit",
    some: "{count, plural, one {# apple} other {# apples}} in {places}",
    quoted: "write '{'name'}'",
  });

test("a message is said with its values, lists with commas, one and many as the language wants", () => {
  const { t } = fruit();
  expect(t("none")).toBe("no fruit");
  expect(t("some", { count: 1, places: "S14" })).toBe("1 apple in S14");
  expect(t("some", { count: 3, places: ["S14", "X5"] })).toBe("3 apples in S14, X5");
  expect(t("some", { count: 0, places: undefined })).toBe("0 apples in ");
  expect(t("quoted")).toBe("write {name}");
});

test("a reader is spoken to in their language where it is loaded, else in English", () => {
  const shop = fruit();
  reader = "de";
  expect(shop.t("none")).toBe("no fruit");
  shop.add("de", {
    none: "kein Obst",
    some: "{count, plural, one {# Apfel} other {# Äpfel}} in {places}",
    quoted: "'{'Name'}' schreiben",
  });
  expect(shop.t("none")).toBe("kein Obst");
  expect(shop.t("some", { count: 2, places: "S14" })).toBe("2 Äpfel in S14");
  reader = "en";
  expect(shop.t("some", { count: 2, places: "S14" })).toBe("2 apples in S14");
});

test("tables and lists of words change with the reader, and are asked like any other", () => {
  const { t, add } = fruit();
  add("de", { none: "kein Obst", some: "{count} {places}", quoted: "" });
  const table: Readonly<Record<string, string>> = worded(() => ({ none: t("none"), volts: "V" }));
  const list: readonly string[] = wordedList(() => [t("none"), "V"]);
  const seen = () => [table["none"], Object.keys(table), "volts" in table, list.map((x) => x), [...list], list.length];
  expect(seen()).toEqual(["no fruit", ["none", "volts"], true, ["no fruit", "V"], ["no fruit", "V"], 2]);
  reader = "de";
  expect(seen()).toEqual(["kein Obst", ["none", "volts"], true, ["kein Obst", "V"], ["kein Obst", "V"], 2]);
  expect(Array.isArray(list)).toBe(true);
  expect({ ...table }).toEqual({ none: "kein Obst", volts: "V" });
});

test("a table that was asked in German before German was there is in German afterwards", () => {
  const { t, add } = fruit();
  const table = worded(() => ({ none: t("none") }));
  reader = "de";
  expect(table.none).toBe("no fruit");
  add("de", { none: "kein Obst", some: "{count} {places}", quoted: "" });
  expect(table.none).toBe("kein Obst");
});

test("the words of the core speak German once they are loaded; German keeps the capital of a noun", () => {
  expect([rulesOut(0.32), shareText(0.001), midSentence("Key on")]).toEqual([
    "Rules out about a third",
    "under 1 %",
    "key on",
  ]);
  addGermanWords();
  reader = "de";
  expect([rulesOut(0.32), shareText(0.001), midSentence("Zündung ein")]).toEqual([
    "Schließt etwa ein Drittel aus",
    "unter 1 %",
    "Zündung ein",
  ]);
});
