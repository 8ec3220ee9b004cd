"use client";
import { formatQuantity, type Analysis, type ReadingView } from "@radicula/core";
import { shareText, shownText, unitOf } from "@radicula/core/words";
import { memo, useMemo } from "react";
import { SENSOR } from "./graph";
import { PILL, placePills, textWidth, TOLD } from "./pills";
import { DOT_X, type PlacedMapEdge, type PlacedMap, type PlacedMapNode, type PlacedPort } from "./placed";
import styles from "./RootMap.module.css";
import { suspicionOnMap, type MapSuspicion } from "./suspicion";
import { spreadTags } from "./tags";

interface Props {
  readonly map: PlacedMap;
  readonly analysis: Analysis | undefined;
  /** where the red lead goes next */
  readonly next: readonly string[];
  readonly unplugged: readonly string[];
  /** a cavity, splice or part tapped: a lead goes there */
  readonly onPoint?: ((point: string) => void) | undefined;
}
/** How near a finger must come to a pin, in the map's own units. */
const TAP = 15;
const NOTHING: MapSuspicion = { through: new Map(), on: new Map() };
/** Suspicion below this is not worth ink. */
const SEEN = 0.02;

/** Codes above, what they share below; thicker means more suspicion passes through. */
export const RootMap = memo(function RootMap({ map, analysis, next, unplugged, onPoint }: Props) {
  const suspicion = useMemo(
    () => (analysis && analysis.stage !== "waiting" ? suspicionOnMap(map, analysis) : NOTHING),
    [map, analysis],
  );
  const latest = useMemo(() => new Map(analysis?.readings.map((r) => [r.point, r])), [analysis]);
  const pills = useMemo(() => placePills(map, suspicion, new Set(latest.keys())), [map, suspicion, latest]);
  const tags = useMemo(() => tagsOf(map, latest), [map, latest]);
  const height = Math.max(map.height, ...tags.map((t) => t.y + TAG_ROOM));
  const left = Math.min(0, ...tags.map((t) => t.x - TAG_ROOM - 2));
  const right = Math.max(map.width, ...tags.map((t) => t.x + TAG_ROOM + 2));
  const bars = useMemo(() => inlineBars(map.nodes, unplugged), [map, unplugged]);
  const edges = useMemo(
    () => [...map.edges].sort((a, b) => (suspicion.through.get(a.id) ?? 0) - (suspicion.through.get(b.id) ?? 0)),
    [map, suspicion],
  );
  return (
    <figure className={styles.figure}>
      <svg
        viewBox={`${left} 0 ${right - left} ${height}`}
        className={styles.svg}
        role="img"
        aria-label={describe(map, suspicion)}
        style={{ maxWidth: map.width * 1.12 }}
      >
        {bars.map((b) =>
          b.pieces.map((p) => (
            <rect
              key={`${b.id} ${p.left}`}
              x={p.left}
              y={b.y}
              width={p.right - p.left}
              height={b.height}
              rx={8}
              className={styles.plug}
              strokeDasharray={b.out ? "5 4" : undefined}
            />
          )),
        )}
        {map.nodes.map((n) =>
          n.type === "sensor" ? <Plug key={n.id} node={n} out={unplugged.includes(n.detail)} /> : null,
        )}
        <g>
          {edges.map((e) => (
            <Edge key={`${e.id} ${e.from}`} edge={e} through={suspicion.through.get(e.id) ?? 0} />
          ))}
        </g>
        {bars.map((b) =>
          b.room ? (
            <g key={b.id}>
              <text x={b.left - 10} y={b.y + 11} textAnchor="end" className={styles.name}>
                {b.id}
              </text>
              <text x={b.left - 10} y={b.y + 26} textAnchor="end" className={styles.note}>
                {b.detail}
              </text>
            </g>
          ) : (
            <text key={b.id} x={b.left + 4} y={b.y - 8} className={styles.name}>
              {b.id}
              <tspan className={styles.note} dx="6">
                {b.detail}
              </tspan>
            </text>
          ),
        )}
        {map.nodes.map((n) => (
          <Node
            key={n.id}
            node={n}
            nodes={map.nodes}
            told={pills.some((p) => p.key === n.id)}
            suspicion={suspicion}
            next={next}
            unplugged={unplugged}
          />
        ))}
        {pills.map((p) => (
          <Pill key={p.key} x={p.x} y={p.y} share={p.share} />
        ))}
        <Readings tags={tags} />
        {onPoint ? (
          <g aria-hidden="true">
            {map.nodes.flatMap((n) =>
              portsOf(n)
                .slice(0, n.type === "part" ? 1 : undefined)
                .map((p) => (
                  <circle
                    key={p.point}
                    cx={p.cx}
                    cy={p.cy}
                    r={TAP}
                    className={styles.tap}
                    onClick={() => onPoint(p.point)}
                  >
                    <title>Put a lead on {p.point}</title>
                  </circle>
                )),
            )}
          </g>
        ) : null}
      </svg>
      <figcaption className={styles.caption}>{captionOf(map)}</figcaption>
    </figure>
  );
});

function captionOf(map: PlacedMap): string {
  const others =
    map.hidden === 0
      ? ""
      : map.hidden === 1
        ? "One other circuit shares no wire with the coded ones and is not drawn. "
        : `${map.hidden} other circuits share no wire with the coded ones and are not drawn. `;
  const folded = map.feeds.length > 0 && !map.nodes.some((n) => n.type === "part");
  return `${others}${folded ? `Folded away, nothing suspected there: ${map.feeds.join(", ")}.` : ""}`;
}

function describe(map: PlacedMap, s: MapSuspicion): string {
  const strongest = map.nodes.map((n) => [n, s.on.get(n.thing) ?? 0] as const).sort((a, b) => b[1] - a[1])[0];
  const most =
    strongest && strongest[1] >= TOLD ? ` Most suspicion on ${strongest[0].title}, ${shareText(strongest[1])}.` : "";
  const sensors = map.nodes.filter((n) => n.type === "sensor").length;
  return `Root map of ${sensors} sensors and what they share.${most}`;
}

function Edge({ edge, through }: { readonly edge: PlacedMapEdge; readonly through: number }) {
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
        strokeLinecap="round"
        opacity={suspected ? 0.45 + 0.55 * Math.min(1, through * 2.2) : edge.function === "signal" ? 0.45 : 0.8}
      />
    </>
  );
}

/**
 * The cavities of one in-line connector belong together: a bar behind them, and over the wires its name, beside the bar
 * where there is room.
 */
function inlineBars(nodes: readonly PlacedMapNode[], unplugged: readonly string[]) {
  const bars = new Map<string, PlacedMapNode[]>();
  for (const n of nodes) if (n.type === "inline") bars.set(n.thing, [...(bars.get(n.thing) ?? []), n]);
  return [...bars].map(([id, list]) => {
    const y = Math.min(...list.map((n) => n.y));
    const h = Math.max(...list.map((n) => n.y + n.height)) - y;
    const out = unplugged.includes(id);
    // in pieces where something else stands between its cavities
    const others = nodes.filter((n) => n.type !== "inline" && n.y < y + h && n.y + n.height > y);
    const pieces: { left: number; right: number }[] = [];
    for (const n of [...list].sort((a, b) => a.x - b.x)) {
      const last = pieces.at(-1);
      const left = n.x - 12;
      const right = n.x + n.width + 12;
      if (last && !others.some((o) => o.x < left && o.x + o.width > last.right - 12)) last.right = right;
      else pieces.push({ left, right });
    }
    // its name goes by the widest piece
    const { left } = pieces.reduce((a, b) => (b.right - b.left > a.right - a.left ? b : a));
    const room =
      left > 120 &&
      !nodes.some(
        (n) => n.thing !== id && n.x < left && n.x + n.width > left - 150 && n.y < y + 34 && n.y + n.height > y - 6,
      );
    return { id, y, height: h, pieces, left, room, out, detail: out ? "unplugged" : list[0]?.detail };
  });
}

interface NodeProps {
  readonly node: PlacedMapNode;
  readonly nodes: readonly PlacedMapNode[];
  readonly told: boolean;
  readonly suspicion: MapSuspicion;
  readonly next: readonly string[];
  readonly unplugged: readonly string[];
}

function Node(props: NodeProps) {
  switch (props.node.type) {
    case "sensor":
      return <Sensor {...props} />;
    case "code":
      return <LooseCode node={props.node} />;
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
function Sensor({ node, nodes, told, suspicion, next, unplugged }: NodeProps) {
  const scanned = nodes.some((n) => n.codes.length > 0);
  const healthy = node.codes.length === 0;
  const plugY = node.y + SENSOR.card + SENSOR.gap;
  const out = unplugged.includes(node.detail);
  const [first, ...more] = node.codes;
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
          {scanned ? "✓ no code" : "no code logged"}
        </text>
      ) : (
        <text x={node.x + 12} y={node.y + 24} className={styles.code}>
          {first?.id}
          {more.length ? <tspan className={styles.note}> +{more.length}</tspan> : null}
        </text>
      )}
      {healthy ? null : <circle cx={node.x + node.width - 16} cy={node.y + 19} r={4.5} fill="var(--rust)" />}
      <text x={node.x + 12} y={node.y + 47} className={styles.name}>
        {fit(node.title, node.width - 20)}
      </text>
      {told ? null : (
        <text x={node.x + 12} y={node.y + 70} className={styles.note}>
          {out
            ? "unplugged now"
            : healthy
              ? scanned
                ? "argues against"
                : ""
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

function Plug({ node, out }: { readonly node: PlacedMapNode; readonly out: boolean }) {
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

function LooseCode({ node }: { readonly node: PlacedMapNode }) {
  return (
    <g>
      <rect x={node.x} y={node.y} width={node.width} height={SENSOR.card} rx={8} className={styles.card} />
      <text x={node.x + 12} y={node.y + 24} className={styles.code}>
        {node.title ? node.codes[0]?.id : node.thing}
      </text>
      <circle cx={node.x + node.width - 16} cy={node.y + 19} r={4.5} fill="var(--rust)" />
      <text x={node.x + 12} y={node.y + 47} className={styles.name}>
        {fit(node.title.split(" too ")[0] ?? "", node.width - 20)}
      </text>
      <text x={node.x + 12} y={node.y + 70} className={styles.note}>
        {node.title.includes(" too ") ? `too ${node.title.split(" too ")[1] ?? ""}` : node.detail}
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

function Pill({ x, y, share }: { readonly x: number; readonly y: number; readonly share: number }) {
  const text = shareText(share).replace("over ", ">").replace("under ", "<");
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

/** Readings stand where they were taken; what a healthy machine would show stands under them. */
function tagsOf(map: PlacedMap, latest: ReadonlyMap<string, ReadingView>) {
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
const TAG_ROOM = 44;
function Readings({ tags }: { readonly tags: ReturnType<typeof tagsOf> }) {
  return (
    <g>
      {tags.map((t) => (
        <Tag key={t.point} at={t.at} x={t.x} y={t.y} reading={t.reading} />
      ))}
    </g>
  );
}
function portsOf(node: PlacedMapNode): readonly Pick<PlacedPort, "point" | "cx" | "cy">[] {
  if (node.type === "part")
    return ["in", "out", "+", "-"].map((t) => ({
      point: `${node.thing}:${t}`,
      cx: node.x + DOT_X,
      cy: node.y + node.height / 2,
    }));
  if (node.type === "inline")
    return node.ports.map((p) => ({ point: p.point, cx: node.x + node.width / 2, cy: node.y + node.height / 2 }));
  if (node.type === "splice") return [{ point: node.thing, cx: node.x + DOT_X, cy: node.y + node.height / 2 }];
  return node.ports;
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
        {Number.isNaN(reading.healthy) ? "proves nothing" : `${healthyText(reading)} healthy`}
      </text>
    </g>
  );
}
/** what is predicted: volts behind a lamp, ohms behind a beeper */
const healthyText = (r: ReadingView) => formatQuantity(r.healthy, unitOf(r.instrument));

/** far from what a healthy machine shows: more than 5 % and 0.15 V, or half as much again in ohms */
function isOdd(r: ReadingView): boolean {
  if (Number.isNaN(r.healthy)) return false;
  if (r.instrument === "lamp" || r.instrument === "continuity") return false; // words, not figures
  if (unitOf(r.instrument) !== "Ω") return Math.abs(r.value - r.healthy) > Math.max(0.15, 0.05 * Math.abs(r.healthy));
  return r.value === Infinity || r.healthy === Infinity
    ? r.value !== r.healthy
    : Math.abs(Math.log((r.value + 1) / (r.healthy + 1))) > 0.4;
}

const fit = (text: string, width: number) =>
  textWidth(text) <= width ? text : `${text.slice(0, Math.max(3, Math.floor(width / 7.2) - 1))}…`;
/** "Boost signal low" under "Boost pressure" is "signal low" */
function trimTitle(code: string, sensor: string): string {
  const words = new Set(sensor.toLowerCase().split(" "));
  return (
    code
      .split(" ")
      .filter((w) => !words.has(w.toLowerCase()))
      .join(" ") || code
  );
}
