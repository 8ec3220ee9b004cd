import { undoneEntries } from "./undone.js";
import type { Entry, ScannedCode } from "../format/case.js";
import type { Code, Wiring } from "../format/wiring.js";
import { genericTitle } from "../codes/generic.js";

/**
 * The wiring with the codes that scans gave and it does not list: each with the text and subject the scan gave, else
 * with the generic text. So a code weighs by its family as soon as somebody says what it names.
 * @returns the same wiring where there is nothing to add
 */
export function withScannedCodes(wiring: Wiring, entries: readonly Entry[]): Wiring {
  const modules = new Set(wiring.devices.filter((d) => d.kind === "module").map((d) => d.id));
  const devices = new Set(wiring.devices.map((d) => d.id));
  const known = new Set(wiring.codes.map((c) => `${c.module} ${c.id}`));
  const undone = undoneEntries(entries);
  const added = new Map<string, Code>();
  entries.forEach((e, i) => {
    if (undone.has(i + 1) || e.type !== "scan") return;
    for (const c of e.codes) {
      if (known.has(`${c.module} ${c.code}`) || !modules.has(c.module)) continue;
      added.set(`${c.module} ${c.code}`, { ...added.get(`${c.module} ${c.code}`), ...codeOf(c, devices) });
    }
  });
  return added.size ? { ...wiring, codes: [...wiring.codes, ...added.values()] } : wiring;
}

function codeOf(c: ScannedCode, devices: ReadonlySet<string>): Code {
  const title = c.title ?? genericTitle(c.code);
  return {
    id: c.code,
    module: c.module,
    ...(title ? { title } : {}),
    ...(c.about && devices.has(c.about) ? { about: c.about } : {}),
    ...(c.family ? { family: c.family } : {}),
    ...(c.failureType ? { failureType: c.failureType } : {}),
  };
}
