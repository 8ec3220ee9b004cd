import type { Translation } from "../../language.js";
import type { shares as english } from "../en/shares.js";

export const shares: Translation<typeof english> = {
  "shares.almostCertain": "fast sicher",
  "shares.oneOfSeveral": "einer von mehreren",
  "shares.stronglyFor": "spricht stark dafür",
  "shares.stronglyAgainst": "spricht stark dagegen",
  "shares.saysLittle": "sagt wenig",
  "shares.aboutATenth": "etwa ein Zehntel",
  "shares.aboutAFifth": "etwa ein Fünftel",
  "shares.aboutAQuarter": "etwa ein Viertel",
  "shares.aboutAThird": "etwa ein Drittel",
  "shares.aboutHalf": "etwa die Hälfte",
  "shares.aboutTwoThirds": "etwa zwei Drittel",
  "shares.aboutThreeQuarters": "etwa drei Viertel",
  "shares.nearlyEverything": "fast alles",
  "shares.rulesOut": "Schließt {part} aus",
  "shares.under": "unter 1 %",
  "shares.over": "über 99 %",
  "shares.likely": "wahrscheinlich",
  "shares.possible": "möglich",
  "shares.unlikely": "unwahrscheinlich",
  "shares.for": "dafür",
  "shares.against": "dagegen",
  "shares.little": "wenig",
};
