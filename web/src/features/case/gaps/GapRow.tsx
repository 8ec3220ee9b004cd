"use client";
import { t } from "@/messages";
import styles from "../Case.module.css";
import rowStyles from "../reading/NextReading.module.css";
import { useCase } from "../session/caseContext";

/** A fact that tells less is not worth a look, bits. Judgement. */
const WORTH_LOOKING = 0.05;

/** What the drawing leaves open: the one wire that would tell most, or how many are assumed. */
export function GapRow() {
  const { gaps, sheets, namer, next } = useCase();
  if (gaps.count === 0) return null;
  const [first] = gaps.list;
  if (!gaps.weighed || !first || first.bits < WORTH_LOOKING)
    return (
      <p className={styles.aside}>
        <button type="button" className="link" onClick={() => sheets.open("gaps")}>
          {t("gaps.wiresAssumed", { count: gaps.count })}
        </button>
      </p>
    );
  const { recommendation } = next;
  const isFirst =
    !recommendation || first.bits / first.minutes > recommendation.bits / Math.max(1, recommendation.candidate.minutes);
  return (
    <button type="button" className={rowStyles.narrower} onClick={() => sheets.open("gaps")}>
      <b>{isFirst ? t("gaps.firstLookAtTheDrawing") : t("gaps.theDrawingLeavesOpen")}</b>
      <span>
        {t("gaps.whereDoesItGo", { point: namer.point(first.fact.point) })}{" "}
        {first.where
          ? t("gaps.worthOnSheet", {
              bits: first.bits.toFixed(1),
              minutes: first.minutes,
              sheet: first.where.name,
              near: first.where.near,
            })
          : t("gaps.worth", { bits: first.bits.toFixed(1), minutes: first.minutes })}
      </span>
    </button>
  );
}

/** From this chance on it is said that another cause would lead. Judgement. */
const WORTH_SAYING = 0.02;

/** What a verdict hangs on that is only assumed. */
export function HangsOn() {
  const { gaps, sheets, namer } = useCase();
  const doubtful = gaps.list.filter((g) => g.otherwise >= WORTH_SAYING);
  if (gaps.count === 0 || !gaps.weighed || doubtful.length === 0) return null;
  const [first] = [...doubtful].sort((a, b) => b.otherwise - a.otherwise);
  return (
    <div className={rowStyles.cautions} role="status" style={{ marginTop: 10 }}>
      {t("gaps.hangsOn", { point: namer.point(first!.fact.point), percent: Math.round(100 * first!.otherwise) })}{" "}
      <button type="button" className="link" onClick={() => sheets.open("gaps")}>
        {t("gaps.lookItUp")}
      </button>
    </div>
  );
}
