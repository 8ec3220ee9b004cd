"use client";
import { chartRow, emptyChart, mergeCharts, readCsv, type Chart, type Issue, type Merged } from "@radicula/core";
import { issueText } from "@radicula/core/words";
import { Button, Input, Modal, Segmented } from "antd";
import { useMemo, useRef, useState } from "react";
import { tidyRow } from "./edit";
import styles from "./Workbench.module.css";

/** A table from a spreadsheet, a document or a CSV file: what was taken and what was not, line by line, before anything changes. */
export function PasteChart({ open, chart, onClose, onTake }: { readonly open: boolean; readonly chart: Chart; readonly onClose: () => void; readonly onTake: (chart: Chart) => void }) {
  const [text, setText] = useState("");
  const [how, setHow] = useState<"compare" | "append">("compare");
  const [source, setSource] = useState("chart B");
  const file = useRef<HTMLInputElement>(null);
  const [decoded, setDecoded] = useState("");
  const read = useMemo(() => (open && text.trim() ? readCsv(text) : undefined), [open, text]);
  const second: Chart | undefined = read?.ok ? { ...emptyChart(), ...read.value.chart, rows: read.value.chart.rows.map((r) => tidyRow(r)) } : undefined;
  const merged: Merged | undefined = second ? mergeCharts(chart, second, source.trim() || "second chart") : undefined;
  const issues: readonly Issue[] = read ? (read.ok ? read.value.issues : read.issues) : [];
  const appended = second ? { ...chart, rows: [...chart.rows.filter((r) => Object.values(r).some((c) => c.trim())), ...second.rows.map((r) => (r.source ? r : chartRow({ ...r, source: source.trim() })))], parts: [...chart.parts, ...second.parts], connectors: [...chart.connectors, ...second.connectors] } : undefined;
  const result = how === "append" ? appended : merged?.chart;
  const openFile = async (f: File) => {
    if (f.size > 8_000_000) { setDecoded("This file is too large: 8 million characters at most."); return; }
    const bytes = await f.arrayBuffer();
    try { setText(new TextDecoder("utf-8", { fatal: true }).decode(bytes)); setDecoded(""); } catch { setText(new TextDecoder("windows-1252").decode(bytes)); setDecoded("The file is not UTF-8; it was read as Windows-1252. Check the accents."); }
    setSource(f.name.replace(/\.[^.]*$/, "").slice(0, 60));
    if (file.current) file.current.value = "";
  };
  return (
    <Modal open={open} onCancel={onClose} title="Paste a chart" width={820} footer={null} destroyOnHidden>
      <div className={styles.paste}>
        <Input.TextArea autoFocus rows={8} value={text} onChange={(e) => { setText(e.target.value); setDecoded(""); }} placeholder={"connector\tcavity\tcolour\tfunction\tgoes to\nB7\t1\tOG/WH\t5 V reference\tS14"} className="mono" aria-label="Table" />
        <div className={styles.pasteRow}>
          <input ref={file} type="file" accept=".csv,.tsv,.txt,text/csv,text/plain" hidden data-testid="chart-file" onChange={(e) => { const f = e.target.files?.[0]; if (f) void openFile(f); }} />
          <Button onClick={() => file.current?.click()}>Open a file</Button>
          <label className={styles.inline}>Called <Input value={source} onChange={(e) => setSource(e.target.value)} style={{ width: 180 }} maxLength={60} /></label>
          <Segmented value={how} onChange={(v) => setHow(v as typeof how)} options={[{ value: "compare", label: "Lay over what is here" }, { value: "append", label: "Add as new lines" }]} />
        </div>
        {decoded ? <p className={styles.refused}>{decoded}</p> : null}
        {merged && second ? (
          <div className={styles.report} aria-live="polite">
            <p><b>{second.rows.length} lines taken.</b> {how === "compare" ? <>{merged.agreements} cells agree, {merged.filled.length} are filled, {merged.added.length} cavities are new, {merged.contradictions.length} contradict.</> : null}</p>
            {how === "compare" && merged.contradictions.length ? <ul>{merged.contradictions.slice(0, 40).map((d) => <li key={`${d.at} ${d.field}`}><b className="mono">{d.at}</b> {d.field === "goesTo" ? "goes to" : d.field}: {d.ours} here, {d.theirs} in {source || "second chart"}. Both are kept; what is here counts until you decide.</li>)}</ul> : null}
          </div>
        ) : null}
        {issues.length ? <div className={styles.report}><p><b>{read?.ok ? "Not taken as it stands" : "Nothing was taken"}</b></p><ul>{issues.slice(0, 60).map((i, n) => <li key={n}>{i.path[0] === "lines" ? <b className="mono">line {String(i.path[1])} </b> : null}{issueText(i)}</li>)}</ul></div> : null}
        <Button type="primary" block disabled={!result} onClick={() => { if (result) { onTake(result); setText(""); } }}>{how === "append" ? "Add the lines" : "Take it"}</Button>
      </div>
    </Modal>
  );
}
