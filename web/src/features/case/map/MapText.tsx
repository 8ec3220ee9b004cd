"use client";
import type { Analysis } from "@radicula/core";
import { shareText, shownText } from "@radicula/core/words";
import { useMemo } from "react";
import type { PlacedMap, PlacedMapNode } from "./placed";
import styles from "./RootMap.module.css";
import type { MapSuspicion } from "./suspicion";
import { t } from "@/messages";

/** The map in words: each place, what it leads to, how suspected it is and what was read there. */
export function MapText({
  map,
  suspicion,
  readings,
}: {
  readonly map: PlacedMap;
  readonly suspicion: MapSuspicion;
  /** the latest at each point */
  readonly readings: ReadonlyMap<string, Analysis["readings"][number]>;
}) {
  const rows = useMemo(() => rowsOf(map, suspicion), [map, suspicion]);
  return (
    <details className={styles.text}>
      <summary>{t("map.theMapInWords")}</summary>
      <div className={styles.scroll} tabIndex={0} role="region" aria-label={t("map.theMapInWords")}>
        <table>
          <thead>
            <tr>
              <th scope="col">{t("map.place")}</th>
              <th scope="col">{t("map.leadsTo")}</th>
              <th scope="col">{t("map.suspected2")}</th>
              <th scope="col">{t("map.readThere")}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ node, to, share }) => (
              <tr key={node.id}>
                <th scope="row">
                  {node.thing} <span className="muted">{node.title === node.thing ? node.detail : node.title}</span>
                </th>
                <td>{to.join(", ") || "–"}</td>
                <td>{share ? shareText(share) : "–"}</td>
                <td>
                  {node.ports
                    .flatMap((p) => readings.get(p.point) ?? [])
                    .map((r) => `${r.point}: ${shownText(r.instrument, r.value)}`)
                    .join(", ") || "–"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

function rowsOf(map: PlacedMap, suspicion: MapSuspicion) {
  const name = new Map(map.nodes.map((n) => [n.id, n]));
  const to = new Map<string, Set<string>>();
  for (const e of map.edges) {
    const list = to.get(e.from) ?? new Set<string>();
    list.add(placeName(name.get(e.to), e.toPoint));
    to.set(e.from, list);
  }
  return [...map.nodes]
    .sort((a, b) => a.y - b.y || a.x - b.x)
    .map((node) => ({
      node,
      to: [...(to.get(node.id) ?? [])],
      share: Math.max(suspicion.on.get(node.thing) ?? 0, ...node.ports.map((p) => suspicion.on.get(p.point) ?? 0)),
    }));
}
const placeName = (node: PlacedMapNode | undefined, point: string) =>
  node?.type === "splice" || node?.type === "part" ? node.thing : point.replace(/\.[ab]$/, "");
