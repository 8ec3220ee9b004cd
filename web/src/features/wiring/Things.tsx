"use client";
import { deviceConnectors, isPeripheral, type Wiring, connectorOf } from "@radicula/core";
import { memo, useMemo } from "react";
import styles from "./Workbench.module.css";
import { t } from "@/messages";

export interface Thing {
  readonly id: string;
  readonly name: string;
  readonly count: number;
  readonly guess: boolean;
}
export interface ThingGroup {
  readonly title: string;
  readonly things: readonly Thing[];
}

/** Everything of a wiring by where it stands: what senses and acts, what lies on the way, what feeds and listens. */
export function groupThings(wiring: Wiring): ThingGroup[] {
  const guesses = new Set(wiring.guesses ?? []);
  const pinned = new Set(wiring.devices.flatMap(deviceConnectors));
  const cavities = new Map(wiring.connectors.map((c) => [c.id, c.cavities.length]));
  const legs = new Map<string, number>();
  for (const w of wiring.wires)
    for (const end of [w.from, w.to]) legs.set(connectorOf(end), (legs.get(connectorOf(end)) ?? 0) + 1);
  const device = (d: Wiring["devices"][number]): Thing => ({
    id: d.id,
    name: d.name ?? "",
    count: deviceConnectors(d).reduce((n, c) => n + (cavities.get(c) ?? 0), 0) || (legs.get(d.id) ?? 0),
    guess: guesses.has(d.id),
  });
  const of = (test: (d: Wiring["devices"][number]) => boolean) => wiring.devices.filter(test).map(device);
  const onTheWay = [
    ...wiring.connectors
      .filter((c) => c.inline || !pinned.has(c.id))
      .map((c) => ({ id: c.id, name: c.name ?? "", count: c.cavities.length, guess: false })),
    ...of((d) => d.kind === "splice"),
  ];
  return [
    { title: t("wiring.sensorsAndActuators"), things: of(isPeripheral) },
    { title: t("wiring.onTheWay"), things: onTheWay },
    { title: t("wiring.modulesAndFeeds"), things: of((d) => !isPeripheral(d) && d.kind !== "splice") },
  ].filter((g) => g.things.length);
}

/** As many of a group as are listed; the rest is found by typing. */
const LISTED = 80;

export const Things = memo(function Things({
  wiring,
  chosen,
  find,
  onChoose,
}: {
  readonly wiring: Wiring;
  readonly chosen: string | undefined;
  readonly find: string;
  readonly onChoose: (id: string) => void;
}) {
  const groups = useMemo(() => groupThings(wiring), [wiring]);
  const words = find.trim().toLowerCase();
  return (
    <nav className={styles.things} aria-label={t("wiring.partsAndConnectors")}>
      {groups.map((g) => {
        const shown = words
          ? g.things.filter((thing) => `${thing.id} ${thing.name}`.toLowerCase().includes(words))
          : g.things;
        return shown.length === 0 ? null : (
          <section key={g.title}>
            <h2>{g.title}</h2>
            <ul>
              {shown.slice(0, LISTED).map((thing) => (
                <li key={thing.id}>
                  <button type="button" aria-current={thing.id === chosen} onClick={() => onChoose(thing.id)}>
                    <span>
                      <b>{thing.id}</b> {thing.name}
                    </span>
                    <span className="mono muted">{thing.count}</span>
                  </button>
                </li>
              ))}
            </ul>
            {shown.length > LISTED ? (
              <p className="muted">{t("wiring.andMoreFindThemByName", { shownCount: shown.length - LISTED })}</p>
            ) : null}
          </section>
        );
      })}
      {groups.length === 0 ? <p className="muted">{t("wiring.nothingHereYetTypeTheFirst")}</p> : null}
    </nav>
  );
});
