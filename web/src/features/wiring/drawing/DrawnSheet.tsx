import { parseColour, type Follow } from "@radicula/core";
import { memo, type Ref } from "react";
import { SCREEN } from "@/ui/WireSwatch";
import type { Found } from "../find";
import type { Drawing, PlacedDrawnEdge, PlacedDrawnNode } from "./layout";
import { t } from "@/messages";

interface Props {
  readonly drawing: Drawing;
  readonly zoom: number;
  readonly lit: Follow | undefined;
  readonly found: Found | undefined;
  readonly thing: string | undefined;
  readonly ref?: Ref<SVGSVGElement>;
  onPoint(point: string): void;
  onThing(id: string): void;
}

/** The laid-out drawing: connectors with their cavities, wires in their colours with the letters beside them. */
export const DrawnSheet = memo(function Sheet({ drawing, zoom, lit, found, thing, ref, onPoint, onThing }: Props) {
  const faint = (on: boolean) => (on ? 1 : 0.16);
  const wireOn = (e: PlacedDrawnEdge) =>
    lit
      ? lit.wires.has(e.id)
      : found
        ? found.wires.has(e.id) || found.things.has(e.from) || found.things.has(e.to)
        : true;
  const nodeOn = (n: PlacedDrawnNode) =>
    lit
      ? [...lit.points].some((p) => p === n.id || p.startsWith(`${n.id}:`))
      : found
        ? found.things.has(n.id) ||
          drawing.edges.some((e) => found.wires.has(e.id) && (e.from === n.id || e.to === n.id))
        : true;
  return (
    <svg
      ref={ref}
      viewBox={`0 0 ${drawing.width} ${drawing.height}`}
      width={drawing.width * zoom}
      height={drawing.height * zoom}
      role="group"
      aria-label={t("drawing.wiringDrawingWithPartsAndWires", {
        nodesCount: drawing.nodes.length,
        edgesCount: drawing.edges.length,
      })}
      style={{ display: "block", maxWidth: "none" }}
    >
      {drawing.edges.map((e) => (
        <g key={e.id} opacity={faint(wireOn(e))}>
          <Wire edge={e} />
        </g>
      ))}
      {drawing.nodes.map((n) => (
        <g key={n.id} opacity={faint(nodeOn(n))}>
          <Thing node={n} chosen={n.id === thing} lit={lit} onPoint={onPoint} onThing={onThing} />
        </g>
      ))}
    </svg>
  );
});

function Wire({ edge }: { readonly edge: PlacedDrawnEdge }) {
  const read = edge.colour ? parseColour(edge.colour) : undefined;
  const base = read?.status === "read" ? SCREEN[read.colour.base] : "var(--wire)";
  const stripe = read?.status === "read" && read.colour.stripe ? SCREEN[read.colour.stripe] : undefined;
  const d = rounded(edge.points);
  const [a, b] = edge.points as [{ x: number; y: number }, { x: number; y: number }];
  const along = b.x >= a.x ? 1 : -1;
  return (
    <>
      <path d={d} fill="none" stroke="var(--ink)" strokeWidth="5" opacity="0.35" />
      <path d={d} fill="none" stroke={base} strokeWidth="3.6" />
      {stripe ? <path d={d} fill="none" stroke={stripe} strokeWidth="1.4" strokeDasharray="9 5" /> : null}
      {edge.letters ? (
        <text
          x={a.x + along * 12}
          y={a.y - 5}
          textAnchor={along > 0 ? "start" : "end"}
          fontSize="11"
          fontFamily="var(--mono)"
          fill="var(--ink)"
          stroke="var(--card)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {edge.letters}
        </text>
      ) : null}
      <title>
        {`${edge.fromPort} – ${edge.toPort}${edge.colour ? `, ${edge.colour}` : ""}` +
          `${edge.detail ? `, ${edge.detail}` : ""}`}
      </title>
    </>
  );
}
const ROUND = 5;
/** Straight runs with small round corners. */
function rounded(points: PlacedDrawnEdge["points"]): string {
  return points
    .map((p, i) => {
      const before = points[i - 1];
      const after = points[i + 1];
      if (!before) return `M${p.x} ${p.y}`;
      if (!after) return `L${p.x} ${p.y}`;
      const r = Math.min(
        ROUND,
        Math.hypot(p.x - before.x, p.y - before.y) / 2,
        Math.hypot(after.x - p.x, after.y - p.y) / 2,
      );
      const towards = (q: { x: number; y: number }) => {
        const l = Math.hypot(q.x - p.x, q.y - p.y) || 1;
        return `${p.x + ((q.x - p.x) / l) * r} ${p.y + ((q.y - p.y) / l) * r}`;
      };
      return `L${towards(before)}Q${p.x} ${p.y} ${towards(after)}`;
    })
    .join("");
}

/** Beside the ports; above the box where ports stand on both sides. */
function Name({
  node: n,
  press,
}: {
  readonly node: PlacedDrawnNode;
  readonly press: { readonly onClick: () => void };
}) {
  const fill = n.shape === "module" ? "var(--module-ink)" : "var(--ink)";
  const faint = n.shape === "module" ? "var(--module-ink)" : "var(--muted)";
  if (n.shape === "inline" || n.shape === "through")
    return (
      <text
        x={n.x + n.width / 2}
        y={n.y - 7}
        textAnchor="middle"
        fontSize="13.5"
        fontFamily="var(--sans)"
        fill={fill}
        stroke="var(--card)"
        strokeWidth="3"
        paintOrder="stroke"
        {...press}
      >
        <tspan fontWeight="700">{n.title}</tspan>
        {n.detail ? (
          <tspan fontSize="11.5" fill={faint}>
            {" "}
            {n.detail}
          </tspan>
        ) : null}
      </text>
    );
  const west = [...n.at.values()].some((p) => p.port.side === "west");
  const east = [...n.at.values()].some((p) => p.port.side === "east");
  const label = Math.max(0, ...n.ports.map((p) => p.label.length * 8));
  const x = west ? n.x + label + 26 : east ? n.x + 14 : n.x + n.width / 2;
  const anchor = west || east ? "start" : "middle";
  const y = n.shape === "ground" ? n.y + 20 : n.y + n.height / 2 + (n.detail ? -2 : 5);
  return (
    <>
      <text
        x={x}
        y={y}
        textAnchor={anchor}
        fontSize="15"
        fontWeight="700"
        fontFamily="var(--sans)"
        fill={fill}
        {...press}
      >
        {n.title}
      </text>
      {n.detail ? (
        <text x={x} y={y + 15} textAnchor={anchor} fontSize="11.5" fontFamily="var(--sans)" fill={faint} {...press}>
          {n.detail}
        </text>
      ) : null}
    </>
  );
}

function Thing({
  node: n,
  chosen,
  lit,
  onPoint,
  onThing,
}: {
  readonly node: PlacedDrawnNode;
  readonly chosen: boolean;
  readonly lit: Follow | undefined;
  readonly onPoint: (point: string) => void;
  readonly onThing: (id: string) => void;
}) {
  const press = { onClick: () => onThing(n.id), style: { cursor: "pointer" } };
  if (n.shape === "splice")
    return (
      <g
        onClick={() => {
          onThing(n.id);
          onPoint(n.id);
        }}
        style={{ cursor: "pointer" }}
      >
        <circle
          cx={n.x + 8}
          cy={n.y + 8}
          r={chosen ? 9 : 7}
          fill="var(--ink)"
          stroke={chosen ? "var(--accent)" : "none"}
          strokeWidth="3"
        />
        <text
          x={n.x + 8}
          y={n.y - 6}
          textAnchor="middle"
          fontSize="12.5"
          fontWeight="700"
          fontFamily="var(--sans)"
          fill="var(--ink)"
          stroke="var(--card)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {n.title}
        </text>
      </g>
    );
  const dark = n.shape === "module";
  return (
    <>
      <rect
        x={n.x}
        y={n.y}
        width={n.width}
        height={n.height}
        rx={n.shape === "through" || n.shape === "inline" ? 4 : 10}
        fill={dark ? "var(--module)" : "var(--card)"}
        stroke={chosen ? "var(--accent)" : dark ? "var(--module)" : "var(--muted)"}
        strokeWidth={chosen ? 3 : 1.4}
        strokeDasharray={n.shape === "inline" ? "6 3" : undefined}
        {...press}
      />
      <Name node={n} press={press} />
      {n.shape === "ground" ? (
        <path
          d={`M${n.x + n.width / 2 - 14} ${n.y + n.height - 14}h28m-22 5h16m-11 5h6`}
          stroke="var(--ink)"
          strokeWidth="2"
        />
      ) : null}
      {[...n.at.values()].map(({ x, y, port }) => {
        const inside = port.side === "west" ? 16 : -16;
        const on = lit?.points.has(port.point);
        return (
          <g
            key={port.point}
            role="button"
            tabIndex={0}
            aria-label={t("drawing.follow", { point: port.point })}
            onClick={() => {
              onThing(n.id);
              onPoint(port.point);
            }}
            onKeyDown={(e) => {
              if (e.key === "Enter") onPoint(port.point);
            }}
            style={{ cursor: "pointer" }}
          >
            <rect
              x={port.side === "west" ? x - 6 : x - n.width / 2 + 6}
              y={y - 11}
              width={n.width / 2}
              height={22}
              fill="transparent"
            />
            <circle
              cx={x}
              cy={y}
              r={on ? 6 : 4.5}
              fill={on ? "var(--accent)" : "var(--card)"}
              stroke={dark ? "var(--module-ink)" : "var(--ink)"}
              strokeWidth="1.4"
            />
            <text
              x={x + inside}
              y={y + 4.5}
              textAnchor="middle"
              fontSize="12.5"
              fontWeight={on ? 700 : 400}
              fontFamily="var(--mono)"
              fill={dark ? "var(--module-ink)" : "var(--ink)"}
            >
              {port.label}
            </text>
          </g>
        );
      })}
    </>
  );
}
