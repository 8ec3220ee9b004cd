import { shareShort } from "@radicula/core/words";
import { PILL } from "./pills";
import styles from "./RootMap.module.css";

/** How suspect a place is, written beside it. */
export function Pill({ x, y, share }: { readonly x: number; readonly y: number; readonly share: number }) {
  const text = shareShort(share);
  const strong = share >= 0.35;
  return (
    <g>
      <rect
        x={x - PILL.width / 2}
        y={y - PILL.height / 2}
        width={PILL.width}
        height={PILL.height}
        rx={11}
        fill={strong ? "var(--rust)" : "var(--tint)"}
        stroke="var(--rust)"
        strokeWidth="1"
      />
      <text
        x={x}
        y={y + 4.5}
        textAnchor="middle"
        className={styles.pill}
        fill={strong ? "var(--rust-ink)" : "var(--rust)"}
      >
        {text}
      </text>
    </g>
  );
}
