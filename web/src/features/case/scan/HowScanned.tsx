import { Checkbox, Select } from "antd";
import { useMemo } from "react";
import { disturbable } from "../choices";
import styles from "./Scan.module.css";
import type { ScanPartProps } from "./useScanDraft";
import { t } from "@/messages";

/** Which modules answered, and what was disturbed since codes were last cleared. */
export function HowScanned({ draft }: ScanPartProps) {
  const { wiring, scanned, setModules, units, disturbed, setDisturbed, wiped, setWiped } = draft;
  const things = useMemo(() => disturbable(wiring), [wiring]);
  return (
    <>
      <div className={styles.row}>
        <label className={styles.label} htmlFor="scan-modules">
          {t("scan.scanned")}
        </label>
        <Select
          id="scan-modules"
          mode="multiple"
          placeholder={t("scan.modulesThatAnswered")}
          value={[...scanned]}
          style={{ minWidth: 230 }}
          onChange={(v: string[]) => setModules(v)}
          options={units}
        />
        <span className="muted">{t("scan.aCodeTheyDidNotGive")}</span>
      </div>
      <div className={styles.row}>
        <label className={styles.label} htmlFor="scan-disturbed">
          {t("scan.disturbed")}
        </label>
        <Select
          id="scan-disturbed"
          mode="multiple"
          placeholder={t("scan.nothingUnpluggedOrPulledSinceCodes")}
          value={[...disturbed]}
          style={{ flex: "1 1 300px" }}
          showSearch={{ optionFilterProp: "label" }}
          onChange={(v: string[]) => setDisturbed(v)}
          options={things}
        />
        <Checkbox checked={wiped} onChange={(e) => setWiped(e.target.checked)}>
          {t("scan.batteryWasOffOrFlat")}
        </Checkbox>
      </div>
      {disturbed.length ? (
        <p className="muted">{t("scan.codesThatUnpluggingWouldSetAre", { disturbed: disturbed.join(", ") })}</p>
      ) : null}
      {wiped ? <p className="muted">{t("scan.aBatteryOffOrFlatWipes")}</p> : null}
    </>
  );
}
