import type { Scale } from "./answers";
import styles from "./NextReading.module.css";

/** The computed scale of answers: where each would lie on the meter, and what it would mean. */
export function ScaleView({ scale, chosen }: { readonly scale: Scale; readonly chosen: string | undefined }) {
  return (
    <div className={styles.scale}>
      <div className={styles.track} aria-hidden="true">
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
      <ul className={styles.answers} aria-label="What each answer would mean">
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
