import type { Scale } from "./answers";
import styles from "./NextReading.module.css";

/** The computed scale of answers: where each would lie on the meter, and what it would mean. */
export function ScaleView({ scale, chosen }: { readonly scale: Scale; readonly chosen: string | undefined }) {
  return (
    <div className={styles.scale}>
      <svg viewBox="0 0 400 26" preserveAspectRatio="none" aria-hidden="true" className={styles.track}>
        <line x1="0" x2="400" y1="13" y2="13" stroke="var(--quiet)" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
        {scale.lines.map((l) => {
          const from = Math.min(l.from * 400, 388), width = Math.max(12, (l.to - l.from) * 400);
          return <rect key={l.key} x={from} y={4} width={Math.min(width, 400 - from)} height={18} rx={9} fill={l.key === chosen ? (l.decides ? "var(--rust)" : "var(--accent)") : l.decides ? "var(--tint)" : "var(--accent-tint)"} stroke={l.decides ? "var(--rust)" : "var(--accent)"} vectorEffect="non-scaling-stroke" />;
        })}
      </svg>
      <ul className={styles.answers} aria-label="What each answer would mean">
        {scale.lines.map((l) => (
          <li key={l.key} data-chosen={l.key === chosen}>
            <b className="mono" data-decides={l.decides}>{l.near}</b>
            <span>{l.meaning}</span>
            <span className={`mono ${styles.odds}`}>{l.share}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
