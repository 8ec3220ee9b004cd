"use client";
import { DISTURBANCES, type Disturbance, type Disturbed, type Entry, type Wiring } from "@radicula/core";
import { DISTURBED_WORDS, type Namer } from "@radicula/core/words";
import { Button, Input, Select } from "antd";
import { useState } from "react";
import { thingChoices } from "../choices";
import { Sheet } from "../Sheet";
import { disturbedText } from "./disturbedText";
import styles from "./Disturbed.module.css";
import { t } from "@/messages";

const OWN: readonly Disturbance[] = DISTURBANCES.filter(
  (d) => d === "unplugged" || d === "pulled" || d === "removed" || d === "opened" || d === "pierced",
);
/**
 * Everything that is not as it was found, kept by itself from the steps done: the job closes when it is empty or
 * explained.
 */
export function DisturbedSheet({
  open,
  wiring,
  namer,
  list,
  closed,
  onLog,
  onCloseJob,
  onClose,
}: {
  readonly closed: boolean;
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly list: readonly Disturbed[];
  readonly onLog: (entries: Entry[]) => void;
  readonly onCloseJob: () => void;
  readonly onClose: () => void;
}) {
  const [thing, setThing] = useState<string | undefined>(undefined);
  const [how, setHow] = useState<Disturbance>("removed");
  const [explaining, setExplaining] = useState<Disturbed | undefined>(undefined);
  const [why, setWhy] = useState("");
  const at = () => new Date().toISOString();
  const back = (d: Disturbed, note?: string): Entry =>
    d.how === "unplugged" && note === undefined
      ? { type: "plugged", at: at(), connector: d.thing }
      : { type: "restored", at: at(), thing: d.thing, how: d.how, ...(note ? { note } : {}) };
  return (
    <Sheet open={open} onClose={onClose} title={t("disturbed.restoreBeforeClosing")} width={620}>
      {list.length === 0 ? (
        <p className={styles.all}>
          <span>
            {closed ? t("disturbed.everythingIsAsItWasFoundClosed") : t("disturbed.everythingIsAsItWasFound")}
          </span>
          {closed ? null : <Button onClick={onCloseJob}>{t("disturbed.closeTheJob")}</Button>}
        </p>
      ) : (
        <>
          <ul className={styles.list}>
            {list.map((d) => (
              <li key={`${d.how} ${d.thing}`}>
                <span>
                  {disturbedText(d, namer)}{" "}
                  <small className="muted">{t("disturbed.sinceEntry", { number: d.number })}</small>
                </span>
                <Button size="small" type="primary" ghost onClick={() => onLog([back(d)])}>
                  {DISTURBED_WORDS[d.how].undone}
                </Button>
                <Button size="small" type="text" onClick={() => setExplaining(d)}>
                  {t("disturbed.leaveAsIs")}
                </Button>
              </li>
            ))}
          </ul>
          {list.length > 1 ? (
            <Button onClick={() => onLog(list.map((d) => back(d)))}>{t("disturbed.allIsAsItWasFound")}</Button>
          ) : null}
          {explaining ? (
            <div className={styles.why}>
              <label htmlFor="stays-why">
                {t("disturbed.whyDoesStay", { thing: explaining.thing, still: DISTURBED_WORDS[explaining.how].still })}
              </label>
              <Input.TextArea
                id="stays-why"
                autoFocus
                rows={2}
                maxLength={400}
                value={why}
                onChange={(e) => setWhy(e.target.value)}
              />
              <Button
                type="primary"
                disabled={!why.trim()}
                onClick={() => {
                  onLog([back(explaining, why.trim())]);
                  setExplaining(undefined);
                  setWhy("");
                }}
              >
                {t("disturbed.keepItSoWithThisReason")}
              </Button>
            </div>
          ) : null}
        </>
      )}
      <div className={styles.add}>
        <Select
          aria-label={t("disturbed.somethingElseThatWasDisturbed")}
          placeholder={t("disturbed.somethingElseWasLeftOtherwise")}
          value={thing}
          showSearch={{ optionFilterProp: "label" }}
          onChange={(v: string) => setThing(v)}
          options={thingChoices(wiring)}
          style={{ flex: "1 1 240px" }}
        />
        <Select<Disturbance>
          aria-label={t("disturbed.how")}
          value={how}
          onChange={setHow}
          options={OWN.map((d) => ({ value: d, label: DISTURBED_WORDS[d].still }))}
          style={{ width: 170 }}
        />
        <Button
          disabled={thing === undefined}
          onClick={() => {
            if (thing !== undefined) onLog([{ type: "disturbed", at: at(), thing, how }]);
            setThing(undefined);
          }}
        >
          {t("disturbed.putOnTheList")}
        </Button>
      </div>
    </Sheet>
  );
}
