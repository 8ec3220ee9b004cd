import { logbookRows } from "../logbookCsv.js";
import { section, type ReportSection } from "./blocks.js";
import type { ReportSource } from "./source.js";
import { t } from "../messages/index.js";

/** Every entry, by the names of the document: with the case file anybody can replay it. */
export function recordSections({ entries, wiring }: ReportSource): ReportSection[] {
  return [
    ...section(t("report.everyEntry"), [
      {
        kind: "table",
        head: [
          t("report.entry"),
          t("report.when"),
          t("report.who"),
          t("report.what"),
          t("report.where"),
          t("report.value"),
          t("report.said"),
        ],
        rows: logbookRows(entries).map((r) => [
          r.number + (r.takenBack ? t("report.takenBack") : ""),
          r.at.slice(0, 16).replace("T", " "),
          r.by,
          r.type,
          r.where,
          [r.values, r.values ? r.unit : ""].filter(Boolean).join(" "),
          [r.said, r.state, r.note].filter(Boolean).join("; "),
        ]),
      },
    ]),
    ...section(t("report.wiring"), [
      {
        kind: "facts",
        rows: [
          [t("report.name"), wiring.name],
          [t("report.machineType"), wiring.machineType ?? ""],
          [
            t("report.partsConnectorsWires"),
            `${wiring.devices.length}, ${wiring.connectors.length}, ${wiring.wires.length}`,
          ],
        ],
      },
      {
        kind: "text",
        text: t("report.theJobSavedAsJsonHolds"),
      },
    ]),
  ];
}
