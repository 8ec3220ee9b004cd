import type { ConnectorRow, PartRow } from "../format/chart.js";
import { Caution, Device, type Connector } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { parseValues, PIN } from "./values.js";
import { splitZones, zonesOf } from "./wires.js";
import { cutText } from "../units/cutText.js";

type Kind = Device["kind"];

/** What a row of a connector or a part says of where the thing is and how it is reached. */
function whereOf(row: ConnectorRow | PartRow | undefined, path: readonly (string | number)[], issues: Issue[]) {
  if (!row) return { zones: [], reachMinutes: 1, cautions: [] };
  const bad = (column: string, code: string, params: Issue["params"]) =>
    issues.push(issue(`chart.${code}`, [...path, column], params));
  const minutes =
    row.minutes.trim() === ""
      ? 1
      : Number(
          row.minutes
            .trim()
            .replace(",", ".")
            .replace(/\s*min(utes?)?$/, ""),
        );
  const fine = minutes >= 0 && minutes <= 600;
  if (!fine) bad("minutes", "not-minutes", { text: cutText(row.minutes, 40) });
  const cautions = [...new Set(row.cautions.split(/[\s,;/]+/).filter(Boolean))].flatMap((c) => {
    const x = Caution.safeParse(c);
    if (!x.success) {
      bad("cautions", "unknown-caution", { text: cutText(c, 40), known: Caution.options });
      return [];
    }
    return [x.data];
  });
  const text = (key: "name" | "place" | "side" | "comesOff" | "partNumber", most: number) =>
    row[key].trim() ? { [key]: cutText(row[key].trim(), most) } : {};
  const alike = row.lookAlikes.split(/[\s,;]+/).filter(Boolean);
  const also = row.alsoNumbers
    .split(/[,;]/)
    .map((n) => n.trim().slice(0, 60))
    .filter(Boolean);
  return {
    ...text("name", 400),
    ...text("place", 400),
    ...text("side", 60),
    ...text("comesOff", 400),
    ...text("partNumber", 60),
    ...(alike.length ? { lookAlikes: alike.slice(0, 20) } : {}),
    ...(also.length ? { alsoNumbers: also.slice(0, 20) } : {}),
    zones: zonesOf(splitZones(row.zones).join(" "), (z) => bad("zones", "unknown-zone", { text: z })),
    reachMinutes: fine ? minutes : 1,
    cautions,
  };
}

export function connectorFor(
  id: string,
  cavities: string[],
  inline: boolean,
  found: { row: ConnectorRow; index: number } | undefined,
  issues: Issue[],
): Connector {
  const { row, index } = found ?? { row: undefined, index: 0 };
  return {
    id,
    cavities,
    inline,
    backProbe: !/^(n|no|false|0)$/i.test(row?.backProbe.trim() ?? ""),
    ...whereOf(row, ["connectors", index], issues),
  };
}

export type FoundRow = { row: PartRow; index: number } | undefined;
export const AMPERE = /^(\d+(?:[.,]\d+)?)\s*A$/i;
export function bareDevice(
  id: string,
  kind: Kind,
  found: FoundRow,
  functions: readonly string[],
  issues: Issue[],
): Device {
  const stated = functions.map((f) => AMPERE.exec(f.trim())?.[1]).find((a) => a !== undefined);
  const rating =
    kind === "fuse" || kind === "breaker" ? { rating: stated ? Number(stated.replace(",", ".")) : 10 } : {};
  return deviceOf(id, kind, found, rating, issues) ?? deviceOf(id, kind, undefined, rating, issues)!;
}
/** One device, checked against the format. @returns undefined where its values do not fit; an issue says so */
export function deviceOf(
  id: string,
  kind: Kind,
  found: FoundRow,
  more: Record<string, unknown>,
  issues: Issue[],
): Device | undefined {
  const path = ["parts", found?.index ?? 0];
  const { values, wrong } = parseValues(found?.row.values ?? "");
  if (wrong.length) issues.push(issue("chart.bad-values", [...path, "values"], { text: wrong }));
  const own = Object.fromEntries(Object.entries(values).filter(([key]) => !key.startsWith(PIN)));
  const parsed = Device.safeParse({ kind, id, ...whereOf(found?.row, path, issues), ...more, ...own });
  if (parsed.success) return parsed.data;
  const first = parsed.error.issues[0];
  issues.push(
    issue("chart.values-do-not-fit", [...path, "values"], {
      part: id,
      kind,
      message: `${first?.path.map(String).join(".") ?? ""} ${first?.message ?? ""}`.trim(),
    }),
  );
  const bareParse = found?.row.values
    ? Device.safeParse({ kind, id, ...whereOf(undefined, path, []), ...more })
    : undefined;
  return bareParse?.success ? bareParse.data : undefined;
}
