"use client";
import type { Analysis, Policy } from "@radicula/core";
import { SCHOOL_WORDS } from "@radicula/core/words";
import { Button } from "antd";
import { MenuButton } from "@/ui/MenuButton";
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
  const about = (s: Policy) => (minutes[s] === undefined ? "" : t("policy.aboutMin", { minutes: whole(minutes[s]) }));
  const own = about(analysis.school);
  const best = minutes.information;
  return (
    <div className={styles.row}>
      <MenuButton
        items={OFFERED.map((s) => ({
          key: s,
          label: (
            <div className={styles.option} aria-current={s === analysis.school}>
              <b>{SCHOOL_WORDS[s].title}</b>
              <span className="mono">{about(s)}</span>
              <small>{SCHOOL_WORDS[s].detail}</small>
            </div>
          ),
          onClick: () => onChange(s),
        }))}
        button={(onClick) => (
          <Button
            type="text"
            aria-haspopup="menu"
            aria-label={`${t("policy.orderOfTests")}: ${SCHOOL_WORDS[analysis.school].title}`}
            onClick={onClick}
          >
            {SCHOOL_WORDS[analysis.school].title} <span aria-hidden="true">▾</span>
          </Button>
        )}
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
        {analysis.school !== "information" && own && best !== undefined && own !== about("information")
          ? t("policy.best", { minutes: whole(best) })
          : own
            ? t("policy.left")
            : ""}
      </span>
    </div>
  );
}

const whole = (minutes: number) => Math.max(1, Math.round(minutes));
