"use client";
import { beforeAfter, type Entry, type Instrument } from "@radicula/core";
import { shownText, stateText, type Namer } from "@radicula/core/words";
import { Button, Input, Select } from "antd";
import { useMemo, useState } from "react";
import type { LogLine } from "./lines";
import styles from "./Logbook.module.css";

const SHORT = 4;
type Show = "all" | "readings" | "looks" | "codes" | "changes" | "twice";
const KINDS: Readonly<Record<Exclude<Show, "all" | "twice">, ReadonlySet<Entry["type"]>>> = {
  readings: new Set(["reading", "holds", "meterCheck"]),
  looks: new Set(["look", "wiggle", "swap", "seen", "identity"]),
  codes: new Set(["code", "scan", "cleared"]),
  changes: new Set(["unplugged", "plugged", "disturbed", "restored", "run", "undo", "moved"]),
};

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
  readonly onPerson: (name: string) => void;
}

/** Everything seen and done, newest first. Nothing is erased: what was taken back stays, struck through. */
export function Logbook({ lines, entries, namer, onUndo, onCorrect, csv, person, onPerson }: Props) {
  const [all, setAll] = useState(false);
  const [show, setShow] = useState<Show>("all");
  const [find, setFind] = useState("");
  const [asking, setAsking] = useState<number | undefined>(undefined);
  const [why, setWhy] = useState("");
  const last = lines.find((l) => l.canUndo);
  const wanted = lines.filter(
    (l) =>
      (show === "all" || show === "twice" || KINDS[show].has(l.type)) &&
      (find === "" || `${l.what} ${l.value} ${l.remark} ${l.by} ${l.note}`.toLowerCase().includes(find.toLowerCase())),
  );
  const twice = useMemo(() => (show === "twice" ? beforeAfter(entries) : []), [show, entries]);
  const value = (instrument: Instrument, v: number | string) => (typeof v === "string" ? v : shownText(instrument, v));
  return (
    <section className={styles.book} aria-label="Logbook">
      <div className={styles.over}>
        <span>Logbook · {lines.length === 1 ? "1 entry" : `${lines.length} entries`}</span>
        <span>
          {last ? (
            <button type="button" className="link" onClick={() => onUndo(last.number)}>
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
      {all ? (
        <div className={styles.tools}>
          <Select<Show>
            aria-label="Show"
            size="small"
            value={show}
            onChange={setShow}
            style={{ width: 170 }}
            options={[
              { value: "all", label: "Everything" },
              { value: "readings", label: "Readings" },
              { value: "looks", label: "Looks and moves" },
              { value: "codes", label: "Codes" },
              { value: "changes", label: "What was changed" },
              { value: "twice", label: "Before and after" },
            ]}
          />
          <Input
            size="small"
            allowClear
            aria-label="Find in the logbook"
            placeholder="Find"
            value={find}
            style={{ width: 150 }}
            onChange={(e) => setFind(e.target.value)}
          />
          <Input
            size="small"
            aria-label="Who is working"
            placeholder="Who is working"
            value={person}
            maxLength={60}
            style={{ width: 150 }}
            onChange={(e) => onPerson(e.target.value)}
          />
          <a className="link" href={csv}>
            Save as CSV
          </a>
        </div>
      ) : null}
      {show === "twice" && all ? (
        twice.length === 0 ? (
          <p className="muted">Nothing was read twice at the same place in the same way yet.</p>
        ) : (
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
        )
      ) : (
        <ol className={styles.lines} reversed>
          {(all ? wanted : lines.slice(0, SHORT)).map((l) => (
            <li key={l.number} data-undone={l.undone}>
              <span className={`mono ${styles.time}`}>{l.time}</span>
              <span className={styles.what}>
                {l.what}
                {l.by ? <small className="muted"> · {l.by}</small> : null}
                {l.note ? <small className={styles.note}>{l.note}</small> : null}
              </span>
              <span className={`mono ${styles.value}`}>{l.value}</span>
              <span className={styles.remark}>{l.undone ? "taken back" : l.saved ? l.remark : "not saved yet"}</span>
              {all && l.canUndo ? (
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
                  <button
                    type="button"
                    className="link"
                    onClick={() => {
                      setAsking(l.number);
                      setWhy("");
                    }}
                    aria-label={`Take back entry ${l.number}`}
                  >
                    take back
                  </button>
                </span>
              ) : (
                <span />
              )}
              {asking === l.number ? (
                <form
                  className={styles.why}
                  onSubmit={(e) => {
                    e.preventDefault();
                    onUndo(l.number, why.trim() || undefined);
                    setAsking(undefined);
                  }}
                >
                  <Input
                    autoFocus
                    aria-label={`Why entry ${l.number} is taken back`}
                    placeholder="Why? (may be left empty)"
                    maxLength={400}
                    value={why}
                    onChange={(e) => setWhy(e.target.value)}
                    onKeyDown={(e) => {
                      if (e.key === "Escape") setAsking(undefined);
                    }}
                  />
                  <Button htmlType="submit">Take it back</Button>
                  <Button type="text" onClick={() => setAsking(undefined)}>
                    Keep it
                  </Button>
                </form>
              ) : null}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
