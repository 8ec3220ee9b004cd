"use client";
import { beforeAfter, type Entry } from "@radicula/core";
import { readingValue, stateText, type Namer, wordedList } from "@radicula/core/words";
import { Button } from "antd";
import { useMemo, useState } from "react";
import type { LogLine } from "./lines";
import styles from "./Logbook.module.css";
import { t } from "@/messages";

/** Entries shown before the whole logbook is asked for. */
const SHORT = 4;
type Show = "all" | "readings" | "looks" | "codes" | "changes" | "twice";
const KINDS: Readonly<Record<Exclude<Show, "all" | "twice">, ReadonlySet<Entry["type"]>>> = {
  readings: new Set(["reading", "trace", "holds", "meterCheck"]),
  looks: new Set(["look", "wiggle", "swap", "seen", "identity"]),
  codes: new Set(["code", "scan", "cleared"]),
  changes: new Set(["unplugged", "plugged", "disturbed", "restored", "run", "undo", "moved"]),
};

const SHOWS: readonly { readonly value: Show; readonly label: string }[] = wordedList(() => [
  { value: "all", label: t("logbook.everything") },
  { value: "readings", label: t("logbook.readings") },
  { value: "looks", label: t("logbook.looksAndMoves") },
  { value: "codes", label: t("logbook.codes") },
  { value: "changes", label: t("logbook.whatWasChanged") },
  { value: "twice", label: t("logbook.beforeAndAfter") },
]);

interface Props {
  readonly lines: readonly LogLine[];
  readonly entries: readonly Entry[];
  readonly namer: Namer;
  /** takes an entry back, with a reason where one was given */
  readonly onUndo: (number: number, why?: string) => void;
  /** shows a recording again, by its id */
  readonly onRecording?: (id: string) => void;
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
    <section className={styles.book} aria-label={t("logbook.logbook2")}>
      <div className={styles.over}>
        <span>{t("logbook.logbook", { count: lines.length })}</span>
        <span>
          {last ? (
            <button type="button" className="link" onClick={() => p.onUndo(last.number)}>
              {t("logbook.undoEntry", { number: last.number })}
            </button>
          ) : null}
          {lines.length ? (
            <button type="button" className="link" style={{ marginLeft: 14 }} onClick={() => setAll(!all)}>
              {all ? t("logbook.latestOnly") : t("logbook.wholeLogbook")}
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
            <Line
              key={l.number}
              line={l}
              canChange={all && l.canUndo}
              onUndo={p.onUndo}
              onCorrect={p.onCorrect}
              onRecording={p.onRecording}
            />
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
      <select aria-label={t("logbook.show")} value={show} onChange={(e) => onShow(e.target.value as Show)}>
        {SHOWS.map(({ value, label }) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
      <input
        type="search"
        aria-label={t("logbook.findInTheLogbook")}
        placeholder={t("logbook.find")}
        value={find}
        onChange={(e) => onFind(e.target.value)}
      />
      {onPerson ? (
        <input
          aria-label={t("logbook.whoIsWorking")}
          placeholder={t("logbook.whoIsWorking")}
          value={person}
          maxLength={60}
          onChange={(e) => onPerson(e.target.value)}
        />
      ) : null}
      <a className="link" href={csv}>
        {t("logbook.saveAsCsv")}
      </a>
    </div>
  );
}

/** What was read twice at one place in the same way: before beside after. */
function Twice({ entries, namer }: Pick<Props, "entries" | "namer">) {
  const twice = useMemo(() => beforeAfter(entries), [entries]);
  if (twice.length === 0) return <p className="muted">{t("logbook.nothingWasReadTwiceAtThe")}</p>;
  return (
    <table className={styles.twice}>
      <thead>
        <tr>
          <th>{t("logbook.where")}</th>
          <th>{t("logbook.how")}</th>
          <th>{t("logbook.before")}</th>
          <th>{t("logbook.after")}</th>
        </tr>
      </thead>
      <tbody>
        {twice.map((pair) => (
          <tr key={`${pair.before.number} ${pair.instrument} ${pair.point}`}>
            <td>{pair.point.includes(":") ? namer.point(pair.point) : pair.point}</td>
            <td className="muted">{stateText(pair.state)}</td>
            <td className="mono">
              {readingValue(pair, pair.before.value)} <small className="muted">({pair.before.number})</small>
            </td>
            <td className="mono">
              <b>{readingValue(pair, pair.after.value)}</b> <small className="muted">({pair.after.number})</small>
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
  onRecording,
}: Pick<Props, "onUndo" | "onCorrect" | "onRecording"> & { readonly line: LogLine; readonly canChange: boolean }) {
  const [asking, setAsking] = useState(false);
  return (
    <li data-undone={l.undone}>
      <span className={`mono ${styles.time}`}>{l.time}</span>
      <span className={styles.what}>
        {l.what}
        {l.recording !== undefined && onRecording ? (
          <button type="button" className="link" style={{ marginLeft: 8 }} onClick={() => onRecording(l.recording!)}>
            {t("logbook.lookAtIt")}
          </button>
        ) : null}
        {l.by ? <small className="muted"> · {l.by}</small> : null}
        {l.note ? <small className={styles.note}>{l.note}</small> : null}
      </span>
      <span className={`mono ${styles.value}`}>{l.value}</span>
      <span className={styles.remark}>
        {l.undone ? t("logbook.takenBack") : l.saved ? l.remark : t("logbook.notSavedYet")}
      </span>
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
          aria-label={t("logbook.correctEntry", { number: l.number })}
        >
          {t("logbook.correct")}
        </button>
      ) : null}
      <button
        type="button"
        className="link"
        onClick={onTakeBack}
        aria-label={t("logbook.takeBackEntry", { number: l.number })}
      >
        {t("logbook.takeBack")}
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
      <input
        autoFocus
        aria-label={t("logbook.whyEntryIsTakenBack", { number })}
        placeholder={t("logbook.whyMayBeLeftEmpty")}
        maxLength={400}
        value={why}
        onChange={(e) => setWhy(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Escape") onKeep();
        }}
      />
      <Button htmlType="submit">{t("logbook.takeItBack")}</Button>
      <Button type="text" onClick={onKeep}>
        {t("logbook.keepIt")}
      </Button>
    </form>
  );
}
