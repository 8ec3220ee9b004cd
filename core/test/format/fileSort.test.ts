import {
  fileSort,
  parseJson,
  readCsv,
  readWiringOrChart,
  chartOf,
  graphml,
  writeCsv,
  type FileSort,
} from "../../src/index.js";
import { issueText, logbookCsv } from "../../words/index.js";
import { code, tug } from "../helpers.js";

/** Signatures by the published formats; values from memory. */
const FILES: readonly (readonly [FileSort, string, string?])[] = [
  ["picture", "\u00ff\u00d8\u00ff\u00e1\u0000"],
  ["picture", "\u0089PNG\r\n\u001a\n"],
  ["pdf", "%PDF-1.4\n%"],
  ["zip", "PK\u0003\u0004"],
  ["spreadsheet", "PK\u0003\u0004", "pins.xlsx"],
  ["spreadsheet", "\u00d0\u00cf\u0011\u00e0", "pins.xls"],
  ["page", "<!DOCTYPE html><html>"],
  ["netlist", "* a circuit\nR1 1 0 10k\n.end\n"],
  ["scan", "A1: P0522 low, active\nP0237 active\n"],
  ["pins", "connector;cavity;colour\nB7;1;OG\n"],
  ["table", "B7\t1\tOG\tS14\n"],
  ["table", "time,channel 1\n0.001,4.98\n"],
  ["other", "dear all"],
  ["other", '{"some":"thing"}'],
  ["other", ""],
];
test("told by what stands in it, and by the name only where that leaves it open", () => {
  for (const [sort, text, name] of FILES) expect([text, fileSort(text, name)]).toEqual([text, sort]);
});

test("a file of empty lines is told as fast as any: its length counts once", () => {
  // with a search that goes over the empty lines again from each of them this took a minute
  const began = performance.now();
  fileSort(`x${"\n".repeat(150_000)}y`);
  expect(performance.now() - began).toBeLessThan(2000);
});

describe("what this program writes", () => {
  const wiring = tug();
  const entries = [code("P0522")];
  const chart = chartOf(wiring);
  test("is known again", () => {
    expect(fileSort(JSON.stringify(wiring))).toBe("wiring");
    expect(fileSort(JSON.stringify(chart, null, 1))).toBe("chart");
    expect(fileSort(writeCsv(chart).text)).toBe("pins");
    expect(fileSort(graphml(wiring))).toBe("graph");
    expect(fileSort(logbookCsv(entries))).toBe("logbook");
  });
  test("and refused with where it belongs, where it is not read", () => {
    for (const text of [graphml(wiring), logbookCsv(entries)]) {
      const asTable = readCsv(text);
      const asJson = parseJson(text);
      for (const read of [asTable, asJson]) {
        expect(read.ok).toBe(false);
        if (!read.ok) expect(issueText(read.issues[0]!)).toMatch(/not read back|use its JSON/);
      }
    }
  });
  test("a pin chart is a wiring wherever one is asked for", () => {
    const read = readWiringOrChart(JSON.parse(JSON.stringify(chart)));
    expect(read.ok && read.value.devices.map((d) => d.id).sort()).toEqual(wiring.devices.map((d) => d.id).sort());
    expect(readWiringOrChart({ ...chart, rows: 3 }).ok).toBe(false);
  });
});
