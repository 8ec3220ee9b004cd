import type { Unit } from "@radicula/core";
import type { Scale } from "./answers";
import styles from "./NextReading.module.css";
import { t } from "@/messages";

/**
 * The computed scale of answers: where each would lie on the meter, where a healthy machine's lies, and what each would
 * mean. An answer that decides has square corners and a diamond.
 */
export function ScaleView({
  scale,
  unit,
  chosen,
}: {
  readonly scale: Scale;
  readonly unit: Unit;
  readonly chosen: string | undefined;
}) {
  const { healthy } = scale;
  return (
    <div className={styles.scale}>
      <div className={styles.axis} aria-hidden="true">
        {healthy ? (
          <span className={styles.healthy} data-end={healthy.at > 0.6} style={{ left: `${healthy.at * 100}%` }}>
            <i>▾</i>
            <span>{t("reading.healthy", { text: healthy.text })}</span>
          </span>
        ) : null}
        <div className={styles.track}>
          {scale.lines.map((l) => (
            <i
              key={l.key}
              data-decides={l.decides}
              data-chosen={l.key === chosen}
              style={{
                left: `${Math.min(l.from * 100, 96)}%`,
                width: `max(14px, ${(Math.min(1, l.to) - l.from) * 100}%)`,
              }}
            />
          ))}
        </div>
        <div className={styles.ticks}>
          {scale.ticks.map((tick) => (
            <span key={tick.text} style={{ left: `${tick.at * 100}%` }}>
              {tick.text}
            </span>
          ))}
          <span className={styles.axisUnit}>{unit === "Ω" ? "OL" : unit}</span>
        </div>
      </div>
      {healthy ? <p className="visually-hidden">{t("reading.aHealthyMachineShows", { text: healthy.text })}</p> : null}
      <ul className={styles.answers} aria-label={t("reading.whatEachAnswerWouldMean")}>
        {scale.lines.map((l) => (
          <li key={l.key} data-chosen={l.key === chosen}>
            <b className="mono" data-decides={l.decides}>
              {l.near}
            </b>
            <span>{l.meaning}</span>
            <span className={`mono ${styles.odds}`}>{l.share}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
