export const fileSorts = {
  "fileSorts.thisIsAJobOpenIt": "This is a job. Open it under Jobs.",
  "fileSorts.thisIsAWiringOpenIt": "This is a wiring. Open it under Wirings.",
  "fileSorts.thisIsAPinChartOpen": "This is a pin chart. Open it under Wirings.",
  "fileSorts.thisIsANotebookOfClosed": "This is a notebook of closed jobs. Open it under Notebook.",
  "fileSorts.thisIsATableIfIt": "This is a table. If it is a pin chart, open it under Wirings.",
  "fileSorts.thisIsAZipAJob": "This is a zip. A job saved with its photos is opened under Jobs.",
  "fileSorts.thisIsAGraphGraphmlIt":
    "This is a graph (GraphML). It is written for other programs and not read back. Open the wiring or its chart.",
  "fileSorts.thisIsASpiceNetlistIt":
    "This is a SPICE netlist. It is written for other programs and not read back. Open the wiring or its chart.",
  "fileSorts.thisIsALogbookAsA":
    "This is a logbook as a table, for spreadsheets. To open the job, use its JSON or zip file.",
  "fileSorts.thisIsAListOfCodes": "This is a list of codes. Open the job it belongs to and drop it there.",
  "fileSorts.thisIsAPictureAddIt": "This is a picture. Add it in the wiring, at the connector it shows.",
  "fileSorts.thisIsAPdfCopyIts": "This is a PDF. Copy its table and paste it into the wiring.",
  "fileSorts.thisIsASpreadsheetSaveIt": "This is a spreadsheet. Save it as CSV and open that.",
  "fileSorts.thisIsAWebPageCopy": "This is a web page. Copy its table and paste it instead.",
} as const;
