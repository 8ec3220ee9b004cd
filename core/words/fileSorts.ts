/** What a file seems to be, and where it belongs: for one that was opened where it cannot be taken. */
export const OTHER_SORTS: Readonly<Record<string, string>> = {
  case: "This is a job. Open it under Jobs.",
  wiring: "This is a wiring. Open it under Wirings.",
  chart: "This is a pin chart. Open it under Wirings.",
  notebook: "This is a notebook of closed jobs. Open it under Notebook.",
  pins: "This is a pin chart. Open it under Wirings.",
  table: "This is a table. If it is a pin chart, open it under Wirings.",
  zip: "This is a zip. A job saved with its photos is opened under Jobs.",
  graph: "This is a graph (GraphML). It is written for other programs and not read back. Open the wiring or its chart.",
  netlist: "This is a SPICE netlist. It is written for other programs and not read back. Open the wiring or its chart.",
  logbook: "This is a logbook as a table, for spreadsheets. To open the job, use its JSON or zip file.",
  scan: "This is a list of codes. Open the job it belongs to and drop it there.",
  picture: "This is a picture. Add it in the wiring, at the connector it shows.",
  pdf: "This is a PDF. Copy its table and paste it into the wiring.",
  spreadsheet: "This is a spreadsheet. Save it as CSV and open that.",
  page: "This is a web page. Copy its table and paste it instead.",
};
