/** Wording of the core's data for people, in English; used by the command line and the web alike. */
export { issueText, KIND_WORDS, placeOf, wordedCodes } from "./issues.js";
export { Namer } from "./faults.js";
export { thousands } from "./figures.js";
export { cavityOf, DANGER_WORDS, Instructor, keyText, type Danger, type Instruction } from "./readings.js";
export { probabilityWord, rulesOut, shareShort, shareText, strengthWord } from "./shares.js";
export { failureTypeText, repairText, severityText, statusWord } from "./repairs.js";
export { CAUTION_WORDS, CHOICE_WORDS, feedText, followEnd, scanWhenText, storyText, toldText } from "./intake.js";
export { isOneOfSeveral, outcomeText, repairName, verdictText, type OutcomeText } from "./outcome.js";
export { sharedText, thingText } from "./shared.js";
export * from "./reasons.js";
export { DISTURBED_WORDS, MARK_WORDS, RUN_WORDS } from "./runs.js";
export { CALCULATOR_WORDS } from "./calculators.js";
export { stimulusOf, stimulusText, type StimulusWords } from "./stimulus.js";
export { readingValue } from "./readingValue.js";
export { logbookCsv, stateText } from "./logbookCsv.js";
export { playedStepText } from "./tests.js";
export { busText, patternText } from "./busLines.js";
export { channelEvents, channelValue, gapText, pairEvents, secondsText, seenText, type TraceEvent } from "./traces.js";
export * from "./proof.js";
export * from "./notebook.js";
export { makeReport, reportFacts } from "./report/report.js";
export type { ReportFacts, ReportSource } from "./report/source.js";
export { REPORT_LENGTHS, REPORT_WORDS, type Block, type Report, type ReportLength } from "./report/blocks.js";
export { reportHtml } from "./report/html.js";
export {
  catalogue,
  findReaderLanguage,
  isLanguage,
  LANGUAGES,
  midSentence,
  readerLanguage,
  readerLocale,
  worded,
  wordedList,
  type Catalogue,
  type Language,
  type Translation,
} from "./language.js";
