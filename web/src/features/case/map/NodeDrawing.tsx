import { shareText } from "@radicula/core/words";
import { clipped } from "@/ui/text";
import { SENSOR } from "./graph";
import { SEEN } from "./EdgeDrawing";
import { textWidth, TOLD } from "./pills";
import { DOT_X, type PlacedMapNode } from "./placed";
import styles from "./RootMap.module.css";
import type { MapSuspicion } from "./suspicion";
import { t } from "@/messages";

interface NodeProps {
  readonly node: PlacedMapNode;
  readonly nodes: readonly PlacedMapNode[];
  readonly told: boolean;
  readonly suspicion: MapSuspicion;
  readonly next: readonly string[];
  readonly unplugged: readonly string[];
  /** codes that were set before a repair and are not any more */
  readonly gone: ReadonlySet<string>;
}

/** A thing on the map, drawn as its kind asks. */
export function NodeDrawing(props: NodeProps) {
  switch (props.node.type) {
    case "sensor":
      return <Sensor {...props} />;
    case "code":
      return <LooseCode node={props.node} isGone={areGone(props)} />;
    case "splice":
      return <Splice {...props} />;
    case "inline":
      return <InlineCavity {...props} />;
    case "module":
      return <Module {...props} />;
    case "part":
      return <Part {...props} />;
  }
}

function InlineCavity({ node, suspicion, next }: NodeProps) {
  const cx = node.x + node.width / 2;
  const cy = node.y + node.height / 2;
  const share = suspicion.on.get(`${node.thing}:${node.title}`) ?? 0;
  return (
    <Cavity cx={cx} cy={cy} label={node.title} share={share} next={node.ports.some((q) => next.includes(q.point))} />
  );
}
function Sensor({ node, nodes, told, suspicion, next, unplugged, gone }: NodeProps) {
  const scanned = nodes.some((n) => n.codes.length > 0);
  const healthy = node.codes.length === 0;
  const plugY = node.y + SENSOR.card + SENSOR.gap;
  const out = unplugged.includes(node.detail);
  const [first, ...more] = node.codes;
  const isGone = areGone({ node, gone });
  return (
    <g opacity={healthy ? 0.85 : 1}>
      <rect
        x={node.x}
        y={node.y}
        width={node.width}
        height={SENSOR.card}
        rx={8}
        className={healthy ? styles.healthy : styles.card}
      />
      {healthy ? (
        <text x={node.x + 12} y={node.y + 24} className={styles.good}>
          {scanned ? t("map.noCode") : t("map.noCodeLogged")}
        </text>
      ) : (
        <text x={node.x + 12} y={node.y + 24} className={styles.code}>
          {first?.id}
          {more.length ? <tspan className={styles.note}> +{more.length}</tspan> : null}
        </text>
      )}
      {healthy ? null : <Mark node={node} isGone={isGone} />}
      <text x={node.x + 12} y={node.y + 47} className={styles.name}>
        {fit(node.title, node.width - 20)}
      </text>
      {told ? null : (
        <text x={node.x + 12} y={node.y + 70} className={styles.note}>
          {out
            ? t("map.unpluggedNow")
            : healthy
              ? scanned
                ? t("map.worksPointsAway")
                : ""
              : isGone
                ? t("map.notSetAnyMore")
                : fit(trimTitle(first?.title ?? "", node.title), node.width - 20)}
        </text>
      )}
      {node.ports.map((p) => (
        <Cavity
          key={p.point}
          cx={p.cx}
          cy={p.cy}
          label={p.label}
          share={suspicion.on.get(p.point) ?? 0}
          next={next.includes(p.point)}
        />
      ))}
      <text x={node.x + node.width - 14} y={plugY + 22} textAnchor="end" className={styles.plugName}>
        {node.detail}
      </text>
    </g>
  );
}

/** The plug under a sensor, drawn below the wires. */
export function Plug({ node, out }: { readonly node: PlacedMapNode; readonly out: boolean }) {
  return (
    <rect
      x={node.x + 6}
      y={node.y + SENSOR.card + SENSOR.gap}
      width={node.width - 12}
      height={SENSOR.plug}
      rx={8}
      className={styles.plug}
      strokeDasharray={out ? "5 4" : undefined}
    />
  );
}

const areGone = ({ node, gone }: Pick<NodeProps, "node" | "gone">) =>
  node.codes.length > 0 && node.codes.every((c) => gone.has(c.id));

/** Whether a code is set, in the corner of its card. */
function Mark({ node, isGone }: { readonly node: PlacedMapNode; readonly isGone: boolean }) {
  return isGone ? (
    <text x={node.x + node.width - 24} y={node.y + 24} className={styles.good}>
      ✓
    </text>
  ) : (
    <circle cx={node.x + node.width - 16} cy={node.y + 19} r={4.5} fill="var(--rust)" />
  );
}

function LooseCode({ node, isGone }: { readonly node: PlacedMapNode; readonly isGone: boolean }) {
  return (
    <g>
      <rect x={node.x} y={node.y} width={node.width} height={SENSOR.card} rx={8} className={styles.card} />
      <text x={node.x + 12} y={node.y + 24} className={styles.code}>
        {node.title ? node.codes[0]?.id : node.thing}
      </text>
      <Mark node={node} isGone={isGone} />
      <text x={node.x + 12} y={node.y + 47} className={styles.name}>
        {fit(node.title.split(" too ")[0] ?? "", node.width - 20)}
      </text>
      <text x={node.x + 12} y={node.y + 70} className={styles.note}>
        {isGone
          ? t("map.notSetAnyMore")
          : node.title.includes(" too ")
            ? node.title.slice(node.title.indexOf(" too ") + 1)
            : node.detail}
      </text>
    </g>
  );
}

function Splice({ node, suspicion }: NodeProps) {
  const share = suspicion.on.get(node.thing) ?? 0;
  const cx = node.x + DOT_X;
  const cy = node.y + node.height / 2;
  return (
    <g>
      <circle
        cx={cx}
        cy={cy}
        r={share >= TOLD ? 9 : 6.5}
        fill={share >= SEEN ? "var(--rust)" : "var(--wire)"}
        stroke="var(--paper)"
        strokeWidth="2"
      />
      <text x={cx + 15} y={cy - 3} className={styles.name}>
        {node.title}
      </text>
      <text x={cx + 15} y={cy + 14} className={styles.note}>
        {node.detail}
      </text>
    </g>
  );
}

function Module({ node, suspicion, next }: NodeProps) {
  return (
    <g>
      <rect x={node.x} y={node.y} width={node.width} height={node.height} rx={10} fill="var(--module)" />
      <text x={node.x + node.width / 2} y={node.y + node.height - 18} textAnchor="middle" className={styles.module}>
        {node.title}
      </text>
      {node.ports.map((p) => {
        const share = suspicion.on.get(p.point) ?? 0;
        return <Cavity key={p.point} cx={p.cx} cy={p.cy} label={p.label} share={share} next={next.includes(p.point)} />;
      })}
    </g>
  );
}

function Part({ node, suspicion, next }: NodeProps) {
  const share = suspicion.on.get(node.thing) ?? 0;
  const cx = node.x + DOT_X;
  const cy = node.y + node.height / 2;
  const isNext = next.some((p) => p.startsWith(`${node.thing}:`) || p === node.thing);
  return (
    <g>
      <rect
        x={cx - 7}
        y={cy - 7}
        width={14}
        height={14}
        rx={3}
        fill={share >= SEEN ? "var(--rust)" : "var(--card)"}
        stroke={isNext ? "var(--accent)" : share >= SEEN ? "var(--rust)" : "var(--muted)"}
        strokeWidth={isNext ? 3 : 1.5}
      />
      <text x={cx + 14} y={cy - 3} className={styles.name}>
        {node.title}
      </text>
      <text x={cx + 14} y={cy + 14} className={styles.note}>
        {node.detail}
      </text>
    </g>
  );
}

function Cavity({
  cx,
  cy,
  label,
  share,
  next,
}: {
  readonly cx: number;
  readonly cy: number;
  readonly label: string;
  readonly share: number;
  readonly next: boolean;
}) {
  const suspected = share >= SEEN;
  return (
    <g>
      {next ? <circle cx={cx} cy={cy} r={15} className={styles.next} /> : null}
      <circle
        cx={cx}
        cy={cy}
        r={10}
        fill={suspected ? "var(--tint)" : "var(--card)"}
        stroke={suspected ? "var(--rust)" : "var(--muted)"}
        strokeWidth={suspected ? 2.2 : 1.2}
      />
      <text
        x={cx}
        y={cy + 4}
        textAnchor="middle"
        className={styles.cavity}
        style={label.length > 2 ? { fontSize: 9 } : undefined}
      >
        {label}
      </text>
      {share >= TOLD ? <title>{shareText(share)}</title> : null}
    </g>
  );
}

/** Width of a letter of a name, map units: the wide ones of strong text. */
const WIDE = 8.4;
const fit = (text: string, width: number) =>
  textWidth(text) <= width ? text : clipped(text, Math.max(4, Math.floor(width / WIDE)));
/** "Boost signal low" under "Boost pressure" is "signal low" */
function trimTitle(code: string, sensor: string): string {
  const words = new Set(sensor.toLowerCase().split(" "));
  return (
    code
      .split(" ")
      .filter((w) => !words.has(w.toLowerCase()))
      .join(" ")
      .replace(/[,;:]$/, "") || code
  );
}
