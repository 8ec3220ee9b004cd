// Making a report, in a thread of its own: the circuit is solved for what a sound machine shows, and a PDF takes a
// second; nobody else should wait for that.
import { reportPdf } from "@radicula/core/pdf";
import { findReaderLanguage, makeReport, reportFacts } from "@radicula/core/words";
import { addGermanWords } from "@radicula/core/words/german";

addGermanWords();

/** @typedef {import("@radicula/core/words").ReportSource} Source */
/** @typedef {import("@radicula/core/words").ReportLength} Length */
/** @typedef {import("@radicula/core/words").Language} Language */

/**
 * Of an open job it is a draft: nothing is weighed here.
 * @param {{ source: Omit<Source, "facts">, length: Length, language: Language }} task
 */
export function report({ source, length, language }) {
  findReaderLanguage(() => language);
  return makeReport({ ...source, facts: reportFacts(source.wiring, source.entries) }, length);
}

/** @typedef {import("@radicula/core/words").Report} Report */
/** @typedef {import("@radicula/core/pdf").PdfFonts} Fonts */

/**
 * @param {{ made: Report, fonts: Fonts, photos: ReadonlyMap<string, Uint8Array>, language: Language }} task
 * @returns {Promise<Uint8Array>} a PDF
 */
export function pdf({ made, fonts, photos, language }) {
  findReaderLanguage(() => language);
  return reportPdf(made, fonts, (id) => photos.get(id));
}
