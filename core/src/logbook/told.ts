import { isSetCode, type CodeWord, type Folded, type Numbered } from "./fold.js";

/** Every code that was set on this job, before a repair or since: what the job is about. */
export function toldCodes({ codes, codesBefore }: Pick<Folded, "codes" | "codesBefore">): CodeWord["entry"][] {
  const all = [...codesBefore, ...codes].map((c) => c.entry).filter(isSetCode);
  return [...new Map(all.map((c) => [`${c.module} ${c.code}`, c])).values()];
}

/** Codes that were set before the last repair, and that a scan since no longer gives. */
export function codesGone({ codes, codesBefore, scans, since, stale }: Folded): CodeWord["entry"][] {
  const scanned = new Set(scans.flatMap((s) => (s.number > since ? s.entry.modules : [])));
  const name = ({ module, code }: Pick<CodeWord["entry"], "module" | "code">) => `${module} ${code}`;
  // stored ones that nobody cleared may be old, but they are not gone
  const still = new Set([...codes.filter((c) => isSetCode(c.entry)), ...stale].map((c) => name(c.entry)));
  return codesBefore.map((c) => c.entry).filter((e) => scanned.has(e.module) && !still.has(name(e)));
}

/** What was seen of the machine as it is now: what was seen before a repair is of another one. */
export function ofMachineNow(folded: Folded): Folded {
  const { since, readings, traces, clues, seen } = folded;
  if (since === 0) return folded;
  const isLater = (e: Numbered<unknown>) => e.number > since;
  return {
    ...folded,
    readings: readings.filter(isLater),
    traces: traces.filter(isLater),
    clues: clues.filter(isLater),
    seen: seen.filter(isLater),
  };
}

/** Whether anything was seen of the machine at all, before a repair or since. */
export const isToldOf = ({ codesBefore, codes, readings, clues }: Folded): boolean =>
  [codesBefore, codes, readings, clues].some((list) => list.length > 0);
