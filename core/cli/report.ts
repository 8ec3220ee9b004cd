import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { analyse, Focus, parseJson, withScannedCodes, WorkshopSettings } from "../src/index.js";
import { PDF_FONTS, reportPdf } from "../pdf/reportPdf.js";
import { addGermanWords } from "../words/german.js";
import {
  findReaderLanguage,
  isLanguage,
  LANGUAGES,
  makeReport,
  REPORT_LENGTHS,
  reportFacts,
  reportHtml,
  type ReportLength,
} from "../words/index.js";
import { EXIT, loadCase, printJson, Refusal, type Io } from "./io.js";

interface Options {
  readonly as?: string | undefined;
  readonly length?: string | undefined;
  readonly settings?: string | undefined;
  readonly language?: string | undefined;
  readonly json?: boolean | undefined;
}
const FORMS = ["html", "pdf", "json"] as const;

/** The report of a case: for the customer, for the workshop, or the whole record. */
export function reportCommand(file: string, options: Options, io: Io): void {
  const as = options.as ?? (options.json ? "json" : "html");
  if (!(FORMS as readonly string[]).includes(as))
    throw new Refusal(EXIT.usage, [`--as: there is no "${as}". One of ${FORMS.join(", ")}.`]);
  const length = (options.length ?? "customer") as ReportLength;
  if (!REPORT_LENGTHS.includes(length))
    throw new Refusal(EXIT.usage, [`--length: there is no "${length}". One of ${REPORT_LENGTHS.join(", ")}.`]);
  const language = options.language ?? "en";
  if (!isLanguage(language))
    throw new Refusal(EXIT.usage, [`--language: there is no "${language}". One of ${LANGUAGES.join(", ")}.`]);
  const settings = readSettings(options.settings, io);
  const job = loadCase(file, io);
  const wiring = withScannedCodes(job.wiring, job.entries);
  const facts = reportFacts(wiring, job.entries, () =>
    analyse(new Focus(wiring).predictor(job.entries), job.entries, { quick: true }),
  );
  if (language === "de") addGermanWords();
  findReaderLanguage(() => language);
  try {
    const report = makeReport({ ...job, wiring, facts, settings }, length);
    if (as === "json") printJson(io, length === "record" ? { ...report, case: job } : report);
    else if (as === "html") io.out(reportHtml(report));
    else io.bytes(reportPdf(report, { plain: font("plain"), strong: font("strong") }));
  } finally {
    // what else the program says is in English
    findReaderLanguage(() => undefined);
  }
}

const font = (name: keyof typeof PDF_FONTS) => readFileSync(createRequire(import.meta.url).resolve(PDF_FONTS[name]));

function readSettings(file: string | undefined, io: Io): WorkshopSettings {
  if (file === undefined) return WorkshopSettings.parse({});
  const json = parseJson(io.read(file));
  const read = json.ok ? WorkshopSettings.safeParse(json.value) : undefined;
  if (!read?.success)
    throw new Refusal(EXIT.document, [
      `${file}: no settings of a workshop: ${read?.error.issues[0]?.path.join(".") ?? "not JSON"}. ` +
        "Fields: name, address, contact, currency, labourPerHour, taxPercent.",
    ]);
  return read.data;
}
