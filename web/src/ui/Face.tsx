import { coloursAt, parseColour, type Connector, type Wiring } from "@radicula/core";
import type { KeyboardEvent } from "react";
import { SCREEN } from "./WireSwatch";
import { t } from "@/messages";

const PITCH = 46;
const PAD = 20;
const R = 16;
/** Cavities in rows, at most ten side by side. */
export function faceRows(count: number): number[] {
  const rows = count <= 5 ? 1 : Math.max(2, Math.ceil(count / 10));
  const wide = Math.ceil(count / rows);
  return Array.from({ length: rows }, (_, i) => Math.min(wide, count - i * wide)).filter((n) => n > 0);
}

/** A connector as one looks into the plug: its cavities with the colours of their wires. */
export function Face({
  wiring,
  connector,
  chosen,
  onChoose,
}: {
  readonly wiring: Wiring;
  readonly connector: Connector;
  readonly chosen?: string | undefined;
  readonly onChoose?: ((cavity: string) => void) | undefined;
}) {
  const colours = coloursAt(wiring, connector.id);
  const shown = connector.cavities.slice(0, 60);
  const rows = faceRows(shown.length);
  const width = Math.max(...rows, 2) * PITCH + 2 * PAD;
  const height = rows.length * PITCH + 2 * PAD;
  return (
    <figure style={{ margin: 0 }}>
      <svg
        viewBox={`-2 -14 ${width + 4} ${height + 18}`}
        width="100%"
        style={{ maxHeight: 190, maxWidth: Math.max(180, Math.min(width, 300)) }}
        role={onChoose ? "group" : "img"}
        aria-label={t("ui.withCavitiesLookingIntoThePlug", {
          id: connector.id,
          cavitiesCount: connector.cavities.length,
        })}
      >
        <rect
          x={width / 2 - 26}
          y={-11}
          width={52}
          height={14}
          rx={4}
          fill="none"
          stroke="var(--muted)"
          strokeWidth="1.6"
        />
        <rect
          x={0}
          y={0}
          width={width}
          height={height}
          rx={22}
          fill="var(--paper)"
          stroke="var(--muted)"
          strokeWidth="1.6"
        />
        {shown.map((cavity, i) => {
          const row = rows.reduce<{ r: number; before: number }>(
            (at, n, r) => (i >= at.before + n && r === at.r ? { r: r + 1, before: at.before + n } : at),
            { r: 0, before: 0 },
          );
          const inRow = rows[row.r] ?? 1;
          const x = width / 2 + (i - row.before - (inRow - 1) / 2) * PITCH;
          const y = PAD + PITCH / 2 + row.r * PITCH;
          const colour = colours.get(cavity);
          const read = colour ? parseColour(colour) : undefined;
          const fill = read?.status === "read" ? SCREEN[read.colour.base] : "var(--card)";
          const stripe = read?.status === "read" && read.colour.stripe ? SCREEN[read.colour.stripe] : undefined;
          return (
            <g
              key={cavity}
              {...(onChoose
                ? {
                    role: "button",
                    tabIndex: 0,
                    "aria-label": t("ui.cavity", { cavity, wire: colour ? `, ${colour}` : "" }),
                    "aria-pressed": cavity === chosen,
                    onClick: () => onChoose(cavity),
                    onKeyDown: (e: KeyboardEvent) => {
                      if (e.key === "Enter") onChoose(cavity);
                    },
                    style: { cursor: "pointer" },
                  }
                : {})}
            >
              {cavity === chosen ? (
                <circle cx={x} cy={y} r={R + 5} fill="none" stroke="var(--accent)" strokeWidth="3" />
              ) : null}
              <circle
                cx={x}
                cy={y}
                r={R}
                fill={fill}
                stroke="var(--ink)"
                strokeWidth="1.4"
                strokeDasharray={colour ? undefined : "3 3"}
              />
              {stripe ? (
                <path d={`M${x - R * 0.9} ${y + 6} L${x + R * 0.9} ${y - 6}`} stroke={stripe} strokeWidth="5" />
              ) : null}
              <text
                x={x}
                y={y + 5}
                textAnchor="middle"
                fontSize={cavity.length > 2 ? 11 : 14}
                fontFamily="var(--mono)"
                fontWeight="700"
                fill="#20261F"
                stroke="#FFFEFB"
                strokeWidth="3.2"
                paintOrder="stroke"
              >
                {cavity.slice(0, 4)}
              </text>
              <title>{`${connector.id}:${cavity}${colour ? `, ${colour}` : t("ui.noWire")}`}</title>
            </g>
          );
        })}
      </svg>
      {connector.cavities.length > 60 ? (
        <figcaption className="muted">
          {t("ui.andMoreCavities", { cavitiesCount: connector.cavities.length - 60 })}
        </figcaption>
      ) : null}
    </figure>
  );
}
