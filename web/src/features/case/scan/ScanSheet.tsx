"use client";
import {
  readScan,
  type Entry,
  type Folded,
  type Issue,
  type ScanEntry,
  type ScannedCode,
  type Wiring,
  isSetCode,
} from "@radicula/core";
import { issueText, scanWhenText } from "@radicula/core/words";
import { Button, Checkbox, Select } from "antd";
import Link from "next/link";
import { useMemo, useRef, useState, type KeyboardEvent, type RefObject } from "react";
import { disturbable, moduleChoices, partChoices } from "../choices";
import { complete, completions } from "./complete";
import { Sheet } from "../Sheet";
import styles from "./Scan.module.css";
import { ScansCompared } from "./ScansCompared";

type When = ScanEntry["when"];
/** what was changed by hand; null is a part taken out again */
interface Change {
  readonly status?: ScannedCode["status"];
  readonly about?: string | null;
}
const WHENS: readonly When[] = ["before", "afterClear", "afterCrank", "afterDrive", "other"];
const STATUSES: readonly ScannedCode["status"][] = ["active", "pending", "stored", "intermittent", "absent", "notRun"];
const STATUS_WORDS: Readonly<Record<ScannedCode["status"], string>> = {
  active: "active",
  pending: "pending",
  stored: "stored",
  intermittent: "intermittent",
  absent: "not set",
  notRun: "not run",
};
const LEAST_MODULES = 2;

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  /** scans the simulated machine of a practice job; undefined on a real one */
  readonly onSimulated?: ((when: When) => Promise<string | undefined>) | undefined;
  readonly folded: Pick<Folded, "scans" | "disturbedSinceClear">;
  readonly workbench: string | undefined;
  /** codes that scans gave and the library's wiring does not list yet; 0 where there is none to keep them with */
  readonly unkept: number;
  readonly onLog: (entries: Entry[]) => void;
  readonly onKeep: () => void;
  readonly onClose: () => void;
}

/**
 * A scan as it comes: typed, or pasted in whatever layout the scan tool gives. What was read stands below, line for
 * line.
 */
export function ScanSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title="Scan" width={860}>
      <ScanForm {...p} />
    </Sheet>
  );
}

/** The scan as it is being put together. */
function useScanDraft(p: Props) {
  const { wiring, folded } = p;
  const [text, setText] = useState("");
  const [when, setWhen] = useState<When>(folded.scans.length ? "afterClear" : "before");
  const [meant, setMeant] = useState<string | undefined>(undefined);
  const [changes, setChanges] = useState<ReadonlyMap<string, Change>>(new Map());
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set());
  const [modules, setModules] = useState<readonly string[] | undefined>(undefined);
  const [disturbed, setDisturbed] = useState<readonly string[]>(folded.disturbedSinceClear);
  const [wiped, setWiped] = useState(false);
  const units = useMemo(() => moduleChoices(wiring), [wiring]);
  const read = useMemo(() => readScan(text, wiring, meant), [text, wiring, meant]);
  const codes = read.codes.filter((c) => !dropped.has(keyOf(c))).map((c) => changed(c, changes.get(keyOf(c))));
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
    drop: (c: ScannedCode) => setDropped((list) => new Set([...list, keyOf(c)])),
  };
}
type ScanDraft = ReturnType<typeof useScanDraft>;
interface PartProps {
  readonly draft: ScanDraft;
}

function ScanForm(p: Props) {
  const draft = useScanDraft(p);
  const area = useRef<HTMLTextAreaElement>(null);
  const set = draft.codes.filter(isSetCode).length;
  if (draft.units.length === 0)
    return (
      <p className={styles.none}>
        Codes belong to a module, and this wiring has none yet.{" "}
        {p.workbench ? <Link href={p.workbench}>Type the wiring first</Link> : null}
      </p>
    );
  return (
    <div className={styles.sheet}>
      <ScansCompared scans={p.folded.scans.map((s) => s.entry)} />
      {p.unkept ? <KeepCodes count={p.unkept} onKeep={p.onKeep} /> : null}
      <WhenTaken draft={draft} />
      {p.onSimulated ? <ScanSimulated draft={draft} onScanned={() => area.current?.focus()} /> : null}
      <CodeBox draft={draft} area={area} />
      {draft.units.length >= LEAST_MODULES ? <ModuleMeant draft={draft} /> : null}
      {draft.codes.length ? <CodesRead draft={draft} /> : null}
      <LinesNotTaken issues={draft.read.issues} />
      <HowScanned draft={draft} />
      <Button type="primary" size="large" block disabled={!draft.ready} onClick={draft.log} title="Ctrl Enter">
        {set ? `Log the scan, ${set === 1 ? "1 code" : `${set} codes`}` : "Log the scan, no codes"}
      </Button>
    </div>
  );
}

function KeepCodes({ count, onKeep }: { readonly count: number; readonly onKeep: () => void }) {
  return (
    <p className={styles.keep}>
      {count === 1 ? "1 code is" : `${count} codes are`} not in the wiring of this machine type.{" "}
      <button type="button" className="link" onClick={onKeep}>
        Keep {count === 1 ? "it" : "them"} with the wiring, texts and all
      </button>
    </p>
  );
}

function WhenTaken({ draft }: PartProps) {
  const { folded, when, setWhen, onLog } = draft;
  return (
    <div className={styles.row}>
      <div className={styles.when} role="radiogroup" aria-label="When the scan was taken">
        {WHENS.map((w) => (
          <label key={w} data-chosen={w === when}>
            <input
              type="radio"
              name="when"
              className="visually-hidden"
              checked={w === when}
              onChange={() => setWhen(w)}
            />
            {scanWhenText[w]}
          </label>
        ))}
      </div>
      {folded.scans.length ? (
        <button
          type="button"
          className="link"
          onClick={() => onLog([{ type: "cleared", at: new Date().toISOString() }])}
        >
          Codes were cleared just now
        </button>
      ) : null}
    </div>
  );
}

function ScanSimulated({ draft, onScanned }: PartProps & { readonly onScanned: () => void }) {
  const { onSimulated, when, setText, setModules, units } = draft;
  const scan = async () => {
    const list = await onSimulated?.(when);
    if (list === undefined) return;
    setText(list);
    setModules(units.map((u) => u.value));
    onScanned();
  };
  return (
    <p className={styles.keep}>
      This machine is simulated.{" "}
      <button type="button" className="link" onClick={() => void scan()}>
        Scan it
      </button>
    </p>
  );
}

function CodeBox({ draft, area }: PartProps & { readonly area: RefObject<HTMLTextAreaElement | null> }) {
  const { wiring, text, setText, log } = draft;
  const [caret, setCaret] = useState(0);
  const offered = useMemo(() => completions(wiring, text, caret), [wiring, text, caret]);
  const take = (code: string) => {
    const made = complete(text, caret, code);
    setText(made.text);
    setCaret(made.caret);
    requestAnimationFrame(() => {
      area.current?.focus();
      area.current?.setSelectionRange(made.caret, made.caret);
    });
  };
  const onKey = (e: KeyboardEvent) => {
    if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      log();
    } else if (e.key === "Tab" && !e.shiftKey && offered[0]) {
      e.preventDefault();
      take(offered[0].code);
    }
  };
  return (
    <div className={styles.paste}>
      <textarea
        ref={area}
        autoFocus
        className="mono"
        aria-label="Codes, typed or pasted"
        rows={Math.min(8, Math.max(3, text.split("\n").length + 1))}
        value={text}
        spellCheck={false}
        placeholder={"P0642 active\nor a whole list, table, or hex reply from the scan tool"}
        onChange={(e) => {
          setText(e.target.value);
          setCaret(e.target.selectionStart);
        }}
        onSelect={(e) => setCaret(e.currentTarget.selectionStart)}
        onKeyDown={onKey}
      />
      <p className={styles.offered} aria-live="polite">
        {offered.map((c, i) => (
          <button key={c.code} type="button" tabIndex={-1} onClick={() => take(c.code)}>
            <b className="mono">{c.code}</b> {c.title}
            {i === 0 ? <kbd>Tab</kbd> : null}
          </button>
        ))}
      </p>
    </div>
  );
}

function ModuleMeant({ draft }: PartProps) {
  const { meant, setMeant, units } = draft;
  return (
    <div className={styles.row}>
      <label className={styles.label} htmlFor="scan-module">
        Module
      </label>
      <Select
        id="scan-module"
        allowClear
        placeholder="as each line says"
        value={meant}
        style={{ width: 230 }}
        onChange={(v: string | undefined) => setMeant(v)}
        options={units}
      />
      <span className="muted">for lines that name none</span>
    </div>
  );
}

function CodesRead({ draft }: PartProps) {
  const { wiring, codes } = draft;
  const parts = useMemo(() => partChoices(wiring), [wiring]);
  const known = useMemo(() => new Set(wiring.codes.map((c) => `${c.module} ${c.id}`)), [wiring]);
  return (
    <div className={styles.read}>
      <table>
        <thead>
          <tr>
            <th>Module</th>
            <th>Code</th>
            <th>Status</th>
            <th>Text</th>
            <th>Names</th>
            <th>
              <span className="visually-hidden">Leave out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {codes.map((c) => (
            <CodeRow key={keyOf(c)} draft={draft} code={c} known={known} parts={parts} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function CodeRow({
  draft,
  code: c,
  known,
  parts,
}: PartProps & {
  readonly code: ScannedCode;
  readonly known: ReadonlySet<string>;
  readonly parts: ReturnType<typeof partChoices>;
}) {
  return (
    <tr>
      <td>{c.module}</td>
      <td className="mono">
        <b>{c.code}</b>
        {c.failureType ? ` ${c.failureType}` : ""}
      </td>
      <td>
        <Select
          size="small"
          variant="borderless"
          aria-label={`Status of ${c.code}`}
          value={c.status}
          popupMatchSelectWidth={false}
          onChange={(status: ScannedCode["status"]) => draft.change(c, { status })}
          options={STATUSES.map((s) => ({ value: s, label: STATUS_WORDS[s] }))}
        />
      </td>
      <td>
        {c.title ?? <span className="muted">no text</span>}
        {c.seen ? <span className="muted"> · {c.seen}</span> : null}
      </td>
      <td>
        {known.has(`${c.module} ${c.code}`) ? (
          <span className="muted">{c.about ?? "as the wiring says"}</span>
        ) : (
          <Select
            size="small"
            variant={c.about ? "borderless" : "outlined"}
            aria-label={`Part ${c.code} names`}
            allowClear
            placeholder="which part?"
            value={c.about}
            showSearch={{ optionFilterProp: "label" }}
            style={{ width: 150 }}
            onChange={(about: string | undefined) => draft.change(c, { about: about ?? null })}
            options={parts}
          />
        )}
      </td>
      <td>
        <button type="button" className={styles.drop} aria-label={`Leave out ${c.code}`} onClick={() => draft.drop(c)}>
          ×
        </button>
      </td>
    </tr>
  );
}

/** Lines listed before the rest is only counted. */
const LISTED = 20;

function LinesNotTaken({ issues }: { readonly issues: readonly Issue[] }) {
  if (issues.length === 0) return null;
  return (
    <ul className={styles.issues} aria-label="Lines not taken">
      {issues.slice(0, LISTED).map((i, n) => (
        <li key={n}>
          {typeof i.path[1] === "number" ? `line ${i.path[1] + 1}: ` : ""}
          {issueText(i)}
        </li>
      ))}
      {issues.length > LISTED ? <li>and {issues.length - LISTED} more</li> : null}
    </ul>
  );
}

function HowScanned({ draft }: PartProps) {
  const { wiring, scanned, setModules, units, disturbed, setDisturbed, wiped, setWiped } = draft;
  const things = useMemo(() => disturbable(wiring), [wiring]);
  return (
    <>
      <div className={styles.row}>
        <label className={styles.label} htmlFor="scan-modules">
          Scanned
        </label>
        <Select
          id="scan-modules"
          mode="multiple"
          placeholder="modules that answered"
          value={[...scanned]}
          style={{ minWidth: 230 }}
          onChange={(v: string[]) => setModules(v)}
          options={units}
        />
        <span className="muted">a code they did not give counts as not set</span>
      </div>
      <div className={styles.row}>
        <label className={styles.label} htmlFor="scan-disturbed">
          Disturbed
        </label>
        <Select
          id="scan-disturbed"
          mode="multiple"
          placeholder="nothing unplugged or pulled since codes were cleared"
          value={[...disturbed]}
          style={{ flex: "1 1 300px" }}
          showSearch={{ optionFilterProp: "label" }}
          onChange={(v: string[]) => setDisturbed(v)}
          options={things}
        />
        <Checkbox checked={wiped} onChange={(e) => setWiped(e.target.checked)}>
          battery was off or flat
        </Checkbox>
      </div>
      {disturbed.length ? (
        <p className="muted">Codes that unplugging {disturbed.join(", ")} would set are not taken as evidence.</p>
      ) : null}
      {wiped ? <p className="muted">A battery off or flat wipes codes: those missing here say nothing.</p> : null}
    </>
  );
}

const keyOf = (c: Pick<ScannedCode, "module" | "code">) => `${c.module} ${c.code}`;
const withChange = (map: ReadonlyMap<string, Change>, c: ScannedCode, change: Change): ReadonlyMap<string, Change> =>
  new Map([...map, [keyOf(c), { ...map.get(keyOf(c)), ...change }]]);
function changed(c: ScannedCode, change: Change | undefined): ScannedCode {
  const { about: read, ...rest } = c;
  const about = change?.about === undefined ? read : change.about;
  return { ...rest, ...(change?.status ? { status: change.status } : {}), ...(about ? { about } : {}) };
}
