"use client";
import type { CodeEntry, Entry, Wiring } from "@radicula/core";
import { Button, Modal, Radio, Select } from "antd";
import { useMemo, useState } from "react";
import styles from "./Case.module.css";

type Status = CodeEntry["status"];
const STATUSES: readonly Status[] = ["active", "pending", "stored", "intermittent", "absent"];

/** Codes as the scan tool shows them. A code that stayed away although its test ran is worth logging too. */
export function CodesForm({ open, wiring, onLog, onClose }: { readonly open: boolean; readonly wiring: Wiring; readonly onLog: (entries: Entry[]) => void; readonly onClose: () => void }) {
  const [chosen, setChosen] = useState<string[]>([]);
  const [status, setStatus] = useState<Status>("active");
  const options = useMemo(() => wiring.codes.map((c) => ({ value: `${c.module} ${c.id}`, label: `${c.id} · ${c.module} · ${c.title ?? "no text"}` })), [wiring]);
  const log = () => {
    const at = new Date().toISOString();
    onLog(chosen.flatMap((value) => { const code = wiring.codes.find((c) => `${c.module} ${c.id}` === value); return code ? [{ type: "code" as const, at, module: code.module, code: code.id, status }] : []; }));
    setChosen([]);
  };
  return (
    <Modal open={open} onCancel={onClose} title="Codes from the scan tool" footer={null} destroyOnHidden width={560}>
      <div className={styles.form}>
        <label htmlFor="codes">Codes</label>
        <Select id="codes" mode="multiple" showSearch={{ optionFilterProp: "label" }} placeholder="Type a code or its text" value={chosen} onChange={(v: string[]) => setChosen(v)} options={options} notFoundContent="This wiring lists no such code" />
        <span>Status</span>
        <Radio.Group value={status} onChange={(e) => setStatus(e.target.value as Status)} optionType="button" options={STATUSES.map((s) => ({ value: s, label: s === "absent" ? "not set" : s }))} />
      </div>
      <Button type="primary" block disabled={chosen.length === 0} onClick={log} style={{ marginTop: 16 }}>Log {chosen.length > 1 ? `${chosen.length} codes` : "the code"}</Button>
    </Modal>
  );
}
