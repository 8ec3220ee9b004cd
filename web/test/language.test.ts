/** @jest-environment ./test/environments/node.mjs */
import { languageOf } from "../language.mjs";

const asked = (headers: Record<string, string>) => languageOf({ headers });

test.each([
  ["nobody said anything", {}, "en"],
  ["the browser asks for German", { "accept-language": "de-AT,de;q=0.9,en;q=0.5" }, "de"],
  ["the browser prefers English", { "accept-language": "en-GB,de;q=0.4" }, "en"],
  ["a language that is not here", { "accept-language": "fr,it;q=0.8" }, "en"],
  ["the cookie counts more", { "accept-language": "en", cookie: "a=b; radicula-language=de" }, "de"],
  ["a cookie of no language", { "accept-language": "de", cookie: "radicula-language=xx" }, "de"],
  ["another cookie that ends alike", { cookie: "not-radicula-language=de" }, "en"],
  ["a header of nonsense", { "accept-language": "\u0000;;q=,;" }, "en"],
])("%s", (_, headers, language) => expect(asked(headers)).toBe(language));
