/**
 * Cells that a spreadsheet would take for a formula; the CSV library puts an apostrophe before them, which keeps them
 * text. Numbers are left as they are; a cell that already begins with apostrophes gets one more, so that taking one off
 * gives back what was written.
 */
export const FORMULA_CELL = /^(?!-?[\d.]+(; -?[\d.]+)*$)'*[=+\-@\t\r]/;
