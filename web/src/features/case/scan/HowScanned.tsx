import { Checkbox, Select } from "antd";
import { useMemo } from "react";
import { disturbable } from "../choices";
import styles from "./Scan.module.css";
import type { ScanPartProps } from "./useScanDraft";

/** Which modules answered, and what was disturbed since codes were last cleared. */
export function HowScanned({ draft }: ScanPartProps) {
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
