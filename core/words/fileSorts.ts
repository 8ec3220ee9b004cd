import { t } from "./messages/index.js";
import { worded } from "./language.js";
/** What a file seems to be, and where it belongs: for one that was opened where it cannot be taken. */
export const OTHER_SORTS: Readonly<Record<string, string>> = worded(() => ({
  case: t("fileSorts.thisIsAJobOpenIt"),
  wiring: t("fileSorts.thisIsAWiringOpenIt"),
  chart: t("fileSorts.thisIsAPinChartOpen"),
  notebook: t("fileSorts.thisIsANotebookOfClosed"),
  pins: t("fileSorts.thisIsAPinChartOpen"),
  table: t("fileSorts.thisIsATableIfIt"),
  zip: t("fileSorts.thisIsAZipAJob"),
  graph: t("fileSorts.thisIsAGraphGraphmlIt"),
  netlist: t("fileSorts.thisIsASpiceNetlistIt"),
  logbook: t("fileSorts.thisIsALogbookAsA"),
  scan: t("fileSorts.thisIsAListOfCodes"),
  picture: t("fileSorts.thisIsAPictureAddIt"),
  pdf: t("fileSorts.thisIsAPdfCopyIts"),
  spreadsheet: t("fileSorts.thisIsASpreadsheetSaveIt"),
  page: t("fileSorts.thisIsAWebPageCopy"),
}));
