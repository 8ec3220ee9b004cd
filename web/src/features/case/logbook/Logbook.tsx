"use client";
import { beforeAfter, type Entry, type Instrument } from "@radicula/core";
import { shownText, stateText, type Namer } from "@radicula/core/words";
import { Button, Input, Select } from "antd";
import { useMemo, useState } from "react";
import type { LogLine } from "./lines";
import styles from "./Logbook.module.css";

/** Entries shown before the whole logbook is asked for. */
const SHORT = 4;
type Show = "all" | "readings" | "looks" | "codes" | "changes" | "twice";
const KINDS: Readonly<Record<Exclude<Show, "all" | "twice">, ReadonlySet<Entry["type"]>>> = {
  readings: new Set(["reading", "holds", "meterCheck"]),
  looks: new Set(["look", "wiggle", "swap", "seen", "identity"]),
  codes: new Set(["code", "scan", "cleared"]),
  changes: new Set(["unplugged", "plugged", "disturbed", "restored", "run", "undo", "moved"]),
};

const SHOWS: readonly { readonly value: Show; readonly label: string }[] = [
  { value: "all", label: "Everything" },
  { value: "readings", label: "Readings" },
  { value: "looks", label: "Looks and moves" },
  { value: "codes", label: "Codes" },
  { value: "changes", label: "What was changed" },
  { value: "twice", label: "Before and after" },
];

interface Props {
  readonly lines: readonly LogLine[];
  readonly entries: readonly Entry[];
  readonly namer: Namer;
  /** takes an entry back, with a reason where one was given */
  readonly onUndo: (number: number, why?: string) => void;
  /** puts a reading back in the box, to be entered again in the place of the first */
  readonly onCorrect: (number: number) => void;
  readonly csv: string;
  readonly person: string;
  /** none where the name is that of who is signed in */
  readonly onPerson: ((name: string) => void) | undefined;
}

/** Everything seen and done, newest first. Nothing is erased: what was taken back stays, struck through. */
export function Logbook(p: Props) {
  const { lines, entries, namer } = p;
  const [all, setAll] = useState(false);
  const [show, setShow] = useState<Show>("all");
  const [find, setFind] = useState("");
  const last = lines.find((l) => l.canUndo);
  const wanted = all ? lines.filter((l) => isWanted(l, show, find)) : lines.slice(0, SHORT);
  return (
    <section className={styles.book} aria-label="Logbook">
      <div className={styles.over}>
        <span>Logbook · {lines.length === 1 ? "1 entry" : `${lines.length} entries`}</span>
        <span>
          {last ? (
            <button type="button" className="link" onClick={() => p.onUndo(last.number)}>
              Undo entry {last.number}
            </button>
          ) : null}
          {lines.length ? (
            <button type="button" className="link" style={{ marginLeft: 14 }} onClick={() => setAll(!all)}>
              {all ? "Latest only" : "Whole logbook"}
            </button>
          ) : null}
        </span>
      </div>
      {all ? <Tools {...p} show={show} onShow={setShow} find={find} onFind={setFind} /> : null}
      {show === "twice" && all ? (
        <Twice entries={entries} namer={namer} />
      ) : (
        <ol className={styles.lines} reversed>
          {wanted.map((l) => (
            <Line key={l.number} line={l} canChange={all && l.canUndo} onUndo={p.onUndo} onCorrect={p.onCorrect} />
          ))}
        </ol>
      )}
    </section>
  );
}

function isWanted(l: LogLine, show: Show, find: string): boolean {
  const said = `${l.what} ${l.value} ${l.remark} ${l.by} ${l.note}`.toLowerCase();
  const isShown = show === "all" || show === "twice" || KINDS[show].has(l.type);
  return isShown && said.includes(find.toLowerCase());
}

function Tools({
  csv,
  person,
  onPerson,
  show,
  onShow,
  find,
  onFind,
}: Pick<Props, "csv" | "person" | "onPerson"> & {
  readonly show: Show;
  readonly onShow: (show: Show) => void;
  readonly find: string;
  readonly onFind: (find: string) => void;
}) {
  return (
    <div className={styles.tools}>
      <Select<Show>
        aria-label="Show"
        size="small"
        value={show}
        onChange={onShow}
        style={{ width: 170 }}
        options={[...SHOWS]}
      />
      <Input
        size="small"
        allowClear
        aria-label="Find in the logbook"
        placeholder="Find"
        value={find}
        style={{ width: 150 }}
        onChange={(e) => onFind(e.target.value)}
      />
      {onPerson ? (
        <Input
          size="small"
          aria-label="Who is working"
          placeholder="Who is working"
          value={person}
          maxLength={60}
          style={{ width: 150 }}
          onChange={(e) => onPerson(e.target.value)}
        />
      ) : null}
      <a className="link" href={csv}>
        Save as CSV
      </a>
    </div>
  );
}

/** What was read twice at one place in the same way: before beside after. */
function Twice({ entries, namer }: Pick<Props, "entries" | "namer">) {
  const twice = useMemo(() => beforeAfter(entries), [entries]);
  const value = (instrument: Instrument, v: number | string) => (typeof v === "string" ? v : shownText(instrument, v));
  if (twice.length === 0) return <p className="muted">Nothing was read twice at the same place in the same way yet.</p>;
  return (
    <table className={styles.twice}>
      <thead>
        <tr>
          <th>Where</th>
          <th>How</th>
          <th>Before</th>
          <th>After</th>
        </tr>
      </thead>
      <tbody>
        {twice.map((t) => (
          <tr key={`${t.before.number} ${t.point}`}>
            <td>{t.point.includes(":") ? namer.point(t.point) : t.point}</td>
            <td className="muted">{stateText(t.state)}</td>
            <td className="mono">
              {value(t.instrument, t.before.value)} <small className="muted">({t.before.number})</small>
            </td>
            <td className="mono">
              <b>{value(t.instrument, t.after.value)}</b> <small className="muted">({t.after.number})</small>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Line({
  line: l,
  canChange,
  onUndo,
  onCorrect,
}: Pick<Props, "onUndo" | "onCorrect"> & { readonly line: LogLine; readonly canChange: boolean }) {
  const [asking, setAsking] = useState(false);
  return (
    <li data-undone={l.undone}>
      <span className={`mono ${styles.time}`}>{l.time}</span>
      <span className={styles.what}>
        {l.what}
        {l.by ? <small className="muted"> · {l.by}</small> : null}
        {l.note ? <small className={styles.note}>{l.note}</small> : null}
      </span>
      <span className={`mono ${styles.value}`}>{l.value}</span>
      <span className={styles.remark}>{l.undone ? "taken back" : l.saved ? l.remark : "not saved yet"}</span>
      {canChange ? <Acts line={l} onCorrect={onCorrect} onTakeBack={() => setAsking(true)} /> : <span />}
      {asking ? (
        <WhyTakenBack
          number={l.number}
          onTakeBack={(why) => {
            onUndo(l.number, why);
            setAsking(false);
          }}
          onKeep={() => setAsking(false)}
        />
      ) : null}
    </li>
  );
}

function Acts({
  line: l,
  onCorrect,
  onTakeBack,
}: Pick<Props, "onCorrect"> & { readonly line: LogLine; readonly onTakeBack: () => void }) {
  return (
    <span className={styles.acts}>
      {l.type === "reading" ? (
        <button
          type="button"
          className="link"
          onClick={() => onCorrect(l.number)}
          aria-label={`Correct entry ${l.number}`}
        >
          correct
        </button>
      ) : null}
      <button type="button" className="link" onClick={onTakeBack} aria-label={`Take back entry ${l.number}`}>
        take back
      </button>
    </span>
  );
}

function WhyTakenBack({
  number,
  onTakeBack,
  onKeep,
}: {
  readonly number: number;
  readonly onTakeBack: (why: string | undefined) => void;
  readonly onKeep: () => void;
}) {
  const [why, setWhy] = useState("");
  return (
    <form
      className={styles.why}
      onSubmit={(e) => {
        e.preventDefault();
        onTakeBack(why.trim() || undefined);
      }}
    >
      <Input
        autoFocus
        aria-label={`Why entry ${number} is taken back`}
        placeholder="Why? (may be left empty)"
        maxLength={400}
        value={why}
        onChange={(e) => setWhy(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Escape") onKeep();
        }}
      />
      <Button htmlType="submit">Take it back</Button>
      <Button type="text" onClick={onKeep}>
        Keep it
      </Button>
    </form>
  );
}
