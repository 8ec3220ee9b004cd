"use client";
import type { Analysis, Policy } from "@radicula/core";
import { SCHOOL_WORDS } from "@radicula/core/words";
import { Select } from "antd";
import styles from "./PolicySwitch.module.css";
import { t } from "@/messages";

const OFFERED: readonly Policy[] = ["information", "easiest", "halve", "powerGroundSignal", "chart"];

/** How the next test is chosen, and what each way is expected to take from here. */
export function PolicySwitch({
  analysis,
  onChange,
  onChart,
}: {
  readonly analysis: Analysis;
  readonly onChange: (school: Policy) => void;
  readonly onChart: () => void;
}) {
  const minutes: Readonly<Partial<Record<Policy, number>>> = analysis.minutesByPolicy ?? {};
  const about = (s: Policy) =>
    minutes[s] === undefined ? "" : t("policy.aboutMin", { minutes: Math.max(1, Math.round(minutes[s])) });
  const own = about(analysis.school);
  const best = about("information");
  return (
    <div className={styles.row}>
      <label htmlFor="school" className="visually-hidden">
        {t("policy.orderOfTests")}
      </label>
      <Select<Policy>
        id="school"
        value={analysis.school}
        onChange={onChange}
        popupMatchSelectWidth={380}
        listHeight={420}
        classNames={{ popup: { root: styles.popup ?? "" } }}
        variant="borderless"
        options={OFFERED.map((s) => ({ value: s, label: SCHOOL_WORDS[s].title }))}
        optionRender={({ value }) => {
          const s = value as Policy;
          return (
            <div className={styles.option}>
              <b>{SCHOOL_WORDS[s].title}</b>
              <span className="mono">{about(s)}</span>
              <small>{SCHOOL_WORDS[s].detail}</small>
            </div>
          );
        }}
      />
      {analysis.school === "chart" ? (
        <button type="button" className="link" onClick={onChart}>
          {analysis.folded.school?.chart?.length
            ? t("policy.itsSteps", { chartCount: analysis.folded.school.chart.length })
            : t("policy.typeItsSteps")}
        </button>
      ) : null}
      <span className={styles.sum}>
        {own}
        {analysis.school !== "information" && own && best && own !== best
          ? t("policy.best", { best: best.replace("about ", "") })
          : own
            ? t("policy.left")
            : ""}
      </span>
    </div>
  );
}
