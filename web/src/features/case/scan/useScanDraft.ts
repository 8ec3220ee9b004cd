import { readScan, type Entry, type Folded, type ScanEntry, type ScannedCode, type Wiring } from "@radicula/core";
import { useMemo, useState } from "react";
import { moduleChoices } from "../choices";
import type { GivenCodes } from "../session/sheetNames";

export type When = ScanEntry["when"];
/** what was changed by hand; null is a part taken out again */
interface Change {
  readonly status?: ScannedCode["status"];
  readonly about?: string | null;
}
/** From so many modules on, which of them answered has to be said. */
export const LEAST_MODULES = 2;

export interface ScanProps {
  readonly open: boolean;
  readonly wiring: Wiring;
  /** scans the simulated machine of a practice job; undefined on a real one */
  readonly onSimulated?: ((when: When) => Promise<string | undefined>) | undefined;
  readonly folded: Pick<Folded, "scans" | "disturbedSinceClear">;
  readonly workbench: string | undefined;
  /** a list of codes that was dropped on the job */
  readonly given?: GivenCodes | undefined;
  /** when the scan that is asked for next is taken */
  readonly due?: When | undefined;
  /** codes that scans gave and the library's wiring does not list yet; 0 where there is none to keep them with */
  readonly unkept: number;
  readonly onLog: (entries: Entry[]) => void;
  readonly onKeep: () => void;
  readonly onClose: () => void;
}

/** The scan as it is being put together. */
export function useScanDraft(p: ScanProps) {
  const { wiring, folded } = p;
  const [text, setText] = useState(p.given?.text ?? "");
  const [taken, setTaken] = useState(p.given);
  // what was typed before stays above it
  if (p.given && p.given !== taken) {
    setTaken(p.given);
    setText([text.trimEnd(), p.given.text].filter(Boolean).join("\n"));
  }
  const [when, setWhen] = useState<When>(p.due ?? (folded.scans.length ? "afterClear" : "before"));
  const [meant, setMeant] = useState<string | undefined>(undefined);
  const [changes, setChanges] = useState<ReadonlyMap<string, Change>>(new Map());
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set());
  const [modules, setModules] = useState<readonly string[] | undefined>(undefined);
  const [disturbed, setDisturbed] = useState<readonly string[]>(folded.disturbedSinceClear);
  const [wiped, setWiped] = useState(false);
  const units = useMemo(() => moduleChoices(wiring), [wiring]);
  const read = useMemo(() => readScan(text, wiring, meant), [text, wiring, meant]);
  const codes = read.codes.filter((c) => !dropped.has(codeKey(c))).map((c) => changed(c, changes.get(codeKey(c))));
  const scanned = modules ?? (units.length < LEAST_MODULES ? units.map((u) => u.value) : read.modules);
  const says = codes.length > 0 || modules !== undefined || read.modules.length > 0 || text.trim() === "";
  const ready = scanned.length > 0 && says;
  const log = () => {
    if (!ready) return;
    const at = new Date().toISOString();
    p.onLog([{ type: "scan", at, when, modules: [...scanned], codes, disturbed: [...disturbed], wiped }]);
  };
  return {
    ...p,
    text,
    setText,
    when,
    setWhen,
    meant,
    setMeant,
    setModules,
    disturbed,
    setDisturbed,
    wiped,
    setWiped,
    units,
    read,
    codes,
    scanned,
    ready,
    log,
    change: (c: ScannedCode, to: Change) => setChanges((m) => withChange(m, c, to)),
    drop: (c: ScannedCode) => setDropped((list) => new Set([...list, codeKey(c)])),
  };
}
export type ScanDraft = ReturnType<typeof useScanDraft>;
export interface ScanPartProps {
  readonly draft: ScanDraft;
}

/** Which code it is, whatever was changed of it. */
export const codeKey = (c: Pick<ScannedCode, "module" | "code">) => `${c.module} ${c.code}`;
const withChange = (map: ReadonlyMap<string, Change>, c: ScannedCode, change: Change): ReadonlyMap<string, Change> =>
  new Map([...map, [codeKey(c), { ...map.get(codeKey(c)), ...change }]]);
function changed(c: ScannedCode, change: Change | undefined): ScannedCode {
  const { about: read, ...rest } = c;
  const about = change?.about === undefined ? read : change.about;
  return { ...rest, ...(change?.status ? { status: change.status } : {}), ...(about ? { about } : {}) };
}
