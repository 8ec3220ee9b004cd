"use client";
import { cutText, chartRow, type Chart, type Merged } from "@radicula/core";
import { issueText, midSentence } from "@radicula/core/words";
import { Button, Input, Modal, Segmented } from "antd";
import { useRef, useState } from "react";
import { LongWork } from "@/ui/LongWork";
import { decoded } from "@/ui/decoded";
import { useLaidOver } from "./useLaidOver";
import type { Built } from "@/workers/chart.worker";
import styles from "./Workbench.module.css";
import { t } from "@/messages";
import { TITLES } from "./grid/columns";

interface Props {
  readonly chart: Chart;
  readonly onTake: (chart: Chart) => void;
  /** a table that is there already, and where it is from */
  readonly given?: GivenTable | undefined;
}
export interface GivenTable {
  readonly text: string;
  readonly source: string;
}
const SHOWN = 200;

/**
 * A table from a spreadsheet, a document or a CSV file: what was taken and what was not, line by line, before anything
 * changes.
 */
export function PasteChart({
  open,
  onClose,
  ...rest
}: Props & { readonly open: boolean; readonly onClose: () => void }) {
  return (
    <Modal
      open={open}
      onCancel={onClose}
      title={t("wiring.pasteAChart")}
      width={980}
      footer={null}
      destroyOnHidden
      style={{ top: 20 }}
    >
      <PasteForm {...rest} />
    </Modal>
  );
}

type How = "compare" | "append";
/** As large as a table may be, and as long as a source may be called. */
const MOST_CHARACTERS = 8_000_000;
const LONGEST_NAME = 60;

/** The table pasted or opened, and what it would make of the chart. */
function usePasted({ chart, given }: Props) {
  const [text, setText] = useState(given?.text ?? "");
  const [how, setHow] = useState<How>("compare");
  const [source, setSource] = useState(given?.source.slice(0, LONGEST_NAME) ?? t("wiring.chartB"));
  const [note, setNote] = useState("");
  const laid = useLaidOver(chart, text, source.trim() || t("wiring.secondChart"));
  const { second, merged, built } = laid.read?.found ?? {};
  const openFile = async (f: File) => {
    if (f.size > MOST_CHARACTERS) {
      setNote(t("wiring.thisFileIsTooLarge8"));
      return;
    }
    const file = decoded(await f.arrayBuffer());
    setText(file.text);
    setNote(file.isGuessed ? t("wiring.theFileIsNotUtf8") : "");
    setSource(cutText(f.name.replace(/\.[^.]*$/, ""), LONGEST_NAME));
  };
  const added = () => second && appended(chart, second, source);
  return {
    text,
    type: (typed: string) => {
      setText(typed);
      setNote("");
    },
    how,
    setHow,
    source,
    setSource,
    note,
    laid,
    second,
    merged,
    built,
    openFile,
    result: laid.isWorking ? undefined : how === "append" ? added() : merged?.chart,
  };
}
type Pasted = ReturnType<typeof usePasted>;

/** The second chart's lines below the first's. */
const appended = (chart: Chart, second: Chart, source: string): Chart => ({
  ...chart,
  rows: [
    ...chart.rows.filter((r) => Object.values(r).some((c) => c.trim())),
    ...second.rows.map((r) => (r.source ? r : chartRow({ ...r, source: source.trim() }))),
  ],
  parts: [...chart.parts, ...second.parts],
  connectors: [...chart.connectors, ...second.connectors],
});

function PasteForm(p: Props) {
  const pasted = usePasted(p);
  const { text, type, how, note, result } = pasted;
  const take = () => {
    if (!result) return;
    p.onTake(result);
    type("");
  };
  return (
    <div className={styles.paste}>
      <Input.TextArea
        autoFocus
        rows={8}
        value={text}
        onChange={(e) => type(e.target.value)}
        placeholder={"connector\tcavity\tcolour\tfunction\tgoes to\nB7\t1\tOG/WH\t5 V reference\tS14"}
        className="mono"
        aria-label={t("wiring.table")}
      />
      <Source pasted={pasted} />
      {note ? <p className={styles.refused}>{note}</p> : null}
      {pasted.laid.isWorking ? <LongWork says={t("wiring.readingTheTable")} onStop={pasted.laid.stop} /> : null}
      {pasted.laid.ended === "stopped" ? <p role="status">{t("wiring.readingStopped")}</p> : null}
      {pasted.laid.ended === "failed" ? <p role="alert">{t("wiring.readingFailed")}</p> : null}
      <Taken pasted={pasted} />
      <NotTaken pasted={pasted} />
      <Button type="primary" block disabled={!result} onClick={take}>
        {how === "append" ? t("wiring.addTheLines") : t("wiring.takeIt")}
      </Button>
    </div>
  );
}

interface PartProps {
  readonly pasted: Pasted;
}
function Source({ pasted }: PartProps) {
  const { source, setSource, how, setHow, openFile } = pasted;
  const file = useRef<HTMLInputElement>(null);
  const open = async (f: File | undefined) => {
    if (f) await openFile(f);
    if (file.current) file.current.value = "";
  };
  return (
    <div className={styles.pasteRow}>
      <input
        ref={file}
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        hidden
        data-testid="chart-file"
        onChange={(e) => void open(e.target.files?.[0])}
      />
      <Button onClick={() => file.current?.click()}>{t("wiring.openAFile")}</Button>
      <label className={styles.inline}>
        {t("wiring.called")}{" "}
        <Input
          value={source}
          onChange={(e) => setSource(e.target.value)}
          style={{ width: 180 }}
          maxLength={LONGEST_NAME}
        />
      </label>
      <Segmented
        value={how}
        onChange={(v) => setHow(v as typeof how)}
        options={[
          { value: "compare", label: t("wiring.compareWithCurrentChart") },
          { value: "append", label: t("wiring.addAsNewLines") },
        ]}
      />
    </div>
  );
}

/** Contradictions, and lines not taken, listed before the rest is left out. */
const LISTED_CONTRADICTIONS = 40;
const LISTED_ISSUES = 60;

function Taken({ pasted }: PartProps) {
  const { merged, second, built, how, source } = pasted;
  if (!merged || !second) return null;
  return (
    <div className={styles.report} aria-live="polite">
      <p>
        <b>{t("wiring.linesTaken", { rowsCount: second.rows.length })}</b>{" "}
        {how === "compare" ? (
          <>
            {t("wiring.cellsAgreeAreFilled", { agreements: merged.agreements, filledCount: merged.filled.length })}
            {t("wiring.cavitiesAreNewContradict", {
              addedCount: merged.added.length,
              contradictionsCount: merged.contradictions.length,
            })}
          </>
        ) : null}
      </p>
      {how === "compare" && merged.contradictions.length ? (
        <Contradictions list={merged.contradictions} source={source} />
      ) : null}
      <Rows rows={second.rows} built={built} />
    </div>
  );
}

function Contradictions({ list, source }: { readonly list: Merged["contradictions"]; readonly source: string }) {
  return (
    <ul>
      {list.slice(0, LISTED_CONTRADICTIONS).map((d) => (
        <li key={`${d.at} ${d.field}`}>
          <b className="mono">{d.at}</b>{" "}
          {t("wiring.hereIn", { field: midSentence(TITLES[d.field]), ours: d.ours, theirs: d.theirs })}{" "}
          {source || t("wiring.secondChart")}
          {t("wiring.bothAreKeptWhatIsHere")}
        </li>
      ))}
    </ul>
  );
}

function NotTaken({ pasted: { laid } }: PartProps) {
  const { issues = [], found } = laid.read ?? {};
  if (issues.length === 0) return null;
  return (
    <div className={styles.report}>
      <p>
        <b>{found ? t("wiring.notTakenAsItStands") : t("wiring.nothingWasTaken")}</b>
      </p>
      <ul>
        {issues.slice(0, LISTED_ISSUES).map((i, n) => (
          <li key={n}>
            {i.path[0] === "lines" ? <b className="mono">{t("wiring.line2", { path: String(i.path[1]) })} </b> : null}
            {issueText(i)}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Every line as it was taken, and what is wrong with it. */
function Rows({ rows, built }: { readonly rows: Chart["rows"]; readonly built: Built | undefined }) {
  const notes = new Map<number, string[]>();
  const note = (row: number, text: string) => notes.set(row, [...(notes.get(row) ?? []), text]);
  for (const i of built?.issues ?? [])
    if (i.path[0] === "rows" && typeof i.path[1] === "number") note(i.path[1], issueText(i));
  const whole = (built?.issues ?? []).filter((i) => typeof i.path[1] !== "number");
  return (
    <>
      <table className={styles.taken}>
        <tbody>
          {rows.slice(0, SHOWN).map((r, i) => (
            <tr key={i} data-doubt={notes.has(i)}>
              <td className="muted">{i + 1}</td>
              <td>{r.connector}</td>
              <td>{r.cavity}</td>
              <td>{r.colour}</td>
              <td>{r.function}</td>
              <td>{r.goesTo}</td>
              <td>{notes.get(i)?.join(" ") ?? "taken"}</td>
            </tr>
          ))}
        </tbody>
        {rows.length > SHOWN ? (
          <tfoot>
            <tr>
              <td colSpan={7}>{t("wiring.andMore3", { rowsCount: rows.length - SHOWN })}</td>
            </tr>
          </tfoot>
        ) : null}
      </table>
      {whole.slice(0, 20).map((i, n) => (
        <p key={n} className={styles.whole}>
          {issueText(i)}
        </p>
      ))}
    </>
  );
}
