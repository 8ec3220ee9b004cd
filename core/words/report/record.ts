import { logbookRows } from "../logbookCsv.js";
import { section, type ReportSection } from "./blocks.js";
import type { ReportSource } from "./source.js";

/** Every entry, by the names of the document: with the case file anybody can replay it. */
export function recordSections({ entries, wiring }: ReportSource): ReportSection[] {
  return [
    ...section("Every entry", [
      {
        kind: "table",
        head: ["Entry", "When", "Who", "What", "Where", "Value", "Said"],
        rows: logbookRows(entries).map((r) => [
          r.number + (r.takenBack ? " (taken back)" : ""),
          r.at.slice(0, 16).replace("T", " "),
          r.by,
          r.type,
          r.where,
          [r.values, r.values ? r.unit : ""].filter(Boolean).join(" "),
          [r.said, r.state, r.note].filter(Boolean).join("; "),
        ]),
      },
    ]),
    ...section("Wiring", [
      {
        kind: "facts",
        rows: [
          ["Name", wiring.name],
          ["Machine type", wiring.machineType ?? ""],
          ["Parts, connectors, wires", `${wiring.devices.length}, ${wiring.connectors.length}, ${wiring.wires.length}`],
        ],
      },
      {
        kind: "text",
        text: "The job saved as JSON holds the wiring and all entries: radicula analyse weighs it again.",
      },
    ]),
  ];
}
