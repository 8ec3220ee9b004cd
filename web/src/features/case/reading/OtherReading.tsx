"use client";
import { meterPoints } from "@radicula/core";
import { Button } from "antd";
import { useMemo } from "react";
import styles from "../Case.module.css";
import { Sheet } from "../Sheet";
import { JumperEnds } from "./JumperEnds";
import { StateFields } from "./StateFields";
import { StimulusFields } from "./StimulusFields";
import {
  readingOf,
  useOwnReading,
  type OtherReadingProps,
  type OwnReadingPartProps,
  type PointChoice,
} from "./useOwnReading";
import { WithWhat } from "./WithWhat";
import { t } from "@/messages";

/**
 * Any reading, however it was taken: one of the others on offer, or a point, an instrument and a state of one's own.
 */
export function OtherReading(p: OtherReadingProps) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("reading.anotherReading")} width={660} keeps>
      <OwnReading key={p.point ?? ""} {...p} />
    </Sheet>
  );
}
function OwnReading(p: OtherReadingProps) {
  const { wiring, namer, instructor, offered, point: first, onChoose } = p;
  const draft = useOwnReading(p);
  const all = useMemo(
    () =>
      meterPoints(wiring).map((x): PointChoice => {
        const colour = instructor.colourOf(x);
        return { value: x, label: `${namer.point(x)} · ${instructor.functionOf(x)}${colour ? ` · ${colour}` : ""}` };
      }),
    [wiring, namer, instructor],
  );
  const enter = () => {
    const reading = readingOf(draft);
    if (reading && !draft.guarded) onChoose({ reading });
  };
  return (
    <>
      {offered.length && first === undefined ? (
        <AlsoOffered offered={offered} instructor={instructor} onChoose={(id) => onChoose({ offered: id })} />
      ) : null}
      <p className={styles.formHead}>{first === undefined ? t("reading.orOneOfYourOwn") : t("reading.oneOfYourOwn")}</p>
      <div className={styles.form}>
        <WithWhat draft={draft} wiring={wiring} namer={namer} all={all} />
        <StateFields draft={draft} wiring={wiring} namer={namer} />
        <StimulusFields draft={draft} wiring={wiring} namer={namer} />
        <span>{t("reading.jumper")}</span>
        <JumperEnds draft={draft} all={all} />
      </div>
      <Dangers draft={draft} />
      <Button
        type="primary"
        block
        disabled={draft.point === undefined || draft.guarded}
        onClick={enter}
        style={{ marginTop: 12 }}
      >
        {t("reading.enterItsValue")}
      </Button>
    </>
  );
}

function AlsoOffered({
  offered,
  instructor,
  onChoose,
}: Pick<OtherReadingProps, "offered" | "instructor"> & { readonly onChoose: (id: string) => void }) {
  return (
    <>
      <p className={styles.formHead}>{t("reading.alsoWorthTakingNow")}</p>
      <ul className={styles.offers}>
        {offered.map((c) => (
          <li key={c.id}>
            <button type="button" onClick={() => onChoose(c.id)}>
              <span>{instructor.instruct(c).title}</span>
              <span className="muted">{t("reading.min", { minutes: Math.max(1, Math.round(c.minutes)) })}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What must not be done, and what should not. */
function Dangers({ draft }: OwnReadingPartProps) {
  const { guarded, pushed } = draft;
  return (
    <>
      {guarded ? <p role="alert">{t("reading.aRestraintOrHighVoltageCircuit")}</p> : null}
      {pushed === undefined ? null : (
        <p role="alert">
          <b>{t("reading.thisJumperPushesASupplyInto", { pushed })}</b> {t("reading.unplugTheModuleFirstOrLeave")}
        </p>
      )}
    </>
  );
}
