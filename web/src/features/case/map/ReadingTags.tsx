import { formatQuantity, type ReadingView } from "@radicula/core";
import { shownText, unitOf } from "@radicula/core/words";
import type { PlacedMap } from "./placed";
import { portsOf } from "./ports";
import styles from "./RootMap.module.css";
import { spreadTags } from "./tags";
import { t } from "@/messages";

/** Readings stand where they were taken; what a healthy machine would show stands under them. */
export function tagsOf(map: PlacedMap, latest: ReadonlyMap<string, ReadingView>) {
  const tags = map.nodes.flatMap((node) => {
    const here = portsOf(node).flatMap((p) => {
      const r = latest.get(p.point);
      return r ? [{ p, r }] : [];
    });
    return here.map(({ p, r }, i) => ({
      point: p.point,
      at: p.cx,
      x: p.cx,
      y: p.cy + (node.type === "sensor" ? 22 : 16) + (node.type === "part" ? i * TAG_STEP : 0),
      reading: r,
    }));
  });
  return spreadTags(tags);
}
/** Two sides of one part stand under each other, this far apart; and the room a tag takes below its top. */
const TAG_STEP = 44;
export const TAG_ROOM = 44;
export function ReadingTags({ tags }: { readonly tags: ReturnType<typeof tagsOf> }) {
  return (
    <g>
      {tags.map((tag) => (
        <Tag key={tag.point} at={tag.at} x={tag.x} y={tag.y} reading={tag.reading} />
      ))}
    </g>
  );
}
/** @param at where its tip points; the tag itself may stand a little aside, at x */
function Tag({
  at,
  x,
  y,
  reading,
}: {
  readonly at: number;
  readonly x: number;
  readonly y: number;
  readonly reading: ReadingView;
}) {
  const odd = isOdd(reading);
  const tip = Math.max(x - 36, Math.min(x + 36, at));
  return (
    <g>
      <path
        d={`M${tip - 6} ${y + 1}L${at} ${y - 7}L${tip + 6} ${y + 1}Z`}
        fill={odd ? "var(--rust)" : "var(--accent)"}
      />
      <rect
        x={x - 44}
        y={y}
        width={88}
        height={38}
        rx={5}
        fill="var(--card)"
        stroke={odd ? "var(--rust)" : "var(--accent)"}
        strokeWidth="1.6"
      />
      <text x={x} y={y + 17} textAnchor="middle" className={styles.value}>
        {shownText(reading.instrument, reading.value)}
      </text>
      <text x={x} y={y + 31} textAnchor="middle" className={styles.small}>
        {Number.isNaN(reading.healthy)
          ? t("map.provesNothing")
          : t("map.healthy", { healthyText: healthyText(reading) })}
      </text>
    </g>
  );
}
/** what is predicted: volts behind a lamp, ohms behind a beeper */
const healthyText = (r: ReadingView) => formatQuantity(r.healthy, unitOf(r.instrument));

/** far from what a healthy machine shows: more than 5 % and 0.15 V, or half as much again in ohms */
/** Whether a reading is not what a sound machine would show. */
export function isOdd(r: ReadingView): boolean {
  if (Number.isNaN(r.healthy)) return false;
  if (r.instrument === "lamp" || r.instrument === "continuity") return false; // words, not figures
  if (unitOf(r.instrument) !== "Ω") return Math.abs(r.value - r.healthy) > Math.max(0.15, 0.05 * Math.abs(r.healthy));
  return r.value === Infinity || r.healthy === Infinity
    ? r.value !== r.healthy
    : Math.abs(Math.log((r.value + 1) / (r.healthy + 1))) > 0.4;
}
