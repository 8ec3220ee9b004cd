import type { PlacedMapEdge } from "./placed";
import styles from "./RootMap.module.css";

/** Suspicion below this is not worth ink. */
export const SEEN = 0.02;

/** A wire, thicker and redder the more suspicion passes through it. */
export function EdgeDrawing({
  edge,
  through,
  isAssumed,
}: {
  readonly edge: PlacedMapEdge;
  readonly through: number;
  /** not on the drawing: dashed */
  readonly isAssumed: boolean;
}) {
  if (edge.function === "watch") return <path d={edge.path} className={styles.watch} />;
  const suspected = through >= SEEN;
  const width = suspected ? 1.8 + 5 * Math.sqrt(through) : edge.function === "signal" ? 1.3 : 1.8;
  return (
    <>
      {through >= 0.15 ? (
        <path
          d={edge.path}
          fill="none"
          stroke="var(--halo)"
          strokeWidth={width + 5 + 7 * through}
          strokeLinecap="round"
          opacity=".55"
        />
      ) : null}
      <path
        d={edge.path}
        fill="none"
        stroke={suspected ? "var(--rust)" : "var(--wire)"}
        strokeWidth={width}
        strokeLinecap={isAssumed ? "butt" : "round"}
        {...(isAssumed ? { strokeDasharray: "6 5" } : {})}
        opacity={suspected ? 0.45 + 0.55 * Math.min(1, through * 2.2) : edge.function === "signal" ? 0.45 : 0.8}
      />
    </>
  );
}
