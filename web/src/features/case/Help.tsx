"use client";
import { Switch } from "antd";
import { useState } from "react";
import { areLettersKeys, setLettersKeys } from "@/ui/keys";
import { Sheet } from "./Sheet";
import styles from "./Case.module.css";
import { t } from "@/messages";
import { wordedList } from "@radicula/core/words";

const KEYS: readonly (readonly [string, string])[] = wordedList(() => [
  ["Enter", t("job.logTheValue")],
  ["0.15 · 12,4 · 150m · 10k2 · OL · 4.2–4.9", t("job.howValuesMayBeTyped")],
  [t("job.shiftX"), t("job.cantReachItGoToThe")],
  ["T", t("job.logAnotherReading")],
  ["W", t("job.whyShowTheReasonsForThe")],
  ["R", t("job.guidedTests2")],
  ["P", t("job.moveOnePlaceAtATime2")],
  ["D", t("job.restoreBeforeClosing3")],
  ["B", t("job.checkTheMeter2")],
  ["K", "calculators"],
  ["S", t("job.simulatedMeterPutTheLeadsOn")],
  ["F", t("job.handsBusyOneLargeLineAt")],
  ["C", t("job.scanTypeOrPasteCodes")],
  ["I", t("job.intakeWhatTheCustomerSaysWhat")],
  ["V", t("job.whatStandsOnTheMachineColours")],
  [t("job.ctrlZ"), t("job.undoTheLastEntry")],
  ["?", t("job.showThisList")],
]);

export function Help({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const [areOn, setOn] = useState(areLettersKeys);
  return (
    <Sheet open={open} onClose={onClose} title={t("job.keysWhileTheValueBoxIs")} width={560}>
      <dl className={styles.keys}>
        {KEYS.map(([key, what]) => (
          <div key={key}>
            <dt className="mono">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p>
        <Switch
          checked={areOn}
          onChange={(on) => {
            setLettersKeys(on);
            setOn(on);
          }}
          aria-label={t("job.singleLettersAreKeysOnThis")}
        />{" "}
        {t("job.singleLettersAreKeysOnThis")}
      </p>
      <p className="muted">{t("job.theMapRunsFromTheCoded")}</p>
    </Sheet>
  );
}
