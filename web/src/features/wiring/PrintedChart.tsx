"use client";
/* eslint-disable @next/next/no-img-element -- these come from this server's database, already at their size */
import { coloursAt, findNets, FUNCTION_WORDS, type PinFunction, type Wiring } from "@radicula/core";
import { WireSwatch } from "@/ui/WireSwatch";
import type { PhotoInfo } from "@/server/repo/wirings";
import { Face } from "@/ui/Face";
import styles from "./PrintedChart.module.css";
import { t } from "@/messages";

const WORDS: Readonly<Record<string, PinFunction>> = {
  reference: "reference",
  sensorGround: "sensorGround",
  signal: "signal",
  driver: "lowSide",
  feed: "supply",
  ground: "ground",
};

/** One table a connector: cavity, wire, what it is for, where it goes, and two columns left empty for the pen. */
export function PrintedChart({ wiring, photos }: { readonly wiring: Wiring; readonly photos: readonly PhotoInfo[] }) {
  const nets = findNets(wiring);
  const far = new Map<string, string>();
  for (const w of wiring.wires) {
    far.set(w.from, w.to);
    far.set(w.to, w.from);
  }
  return (
    <main id="content" className={styles.page}>
      <header>
        <h1>{wiring.name}</h1>
        <p className="muted">
          {[
            wiring.machineType,
            `${wiring.nominalVolt} V`,
            t("wiring.connectorsWires", { connectorsCount: wiring.connectors.length, wiresCount: wiring.wires.length }),
          ]
            .filter(Boolean)
            .join(" · ")}
        </p>
      </header>
      <p className={styles.mind}>{t("wiring.theMakersManualComesFirstNo")}</p>
      {wiring.connectors.map((c) => {
        const colours = coloursAt(wiring, c.id);
        const photo = photos.find((p) => p.connector === c.id);
        return (
          <section key={c.id} className={styles.connector}>
            <h2>
              {c.id}{" "}
              <span>
                {[
                  c.name,
                  c.place,
                  c.side,
                  c.comesOff ? t("wiring.comesOffFirst2", { comesOff: c.comesOff }) : "",
                  c.lookAlikes?.length ? t("wiring.looksLike2", { lookAlikes: c.lookAlikes.join(", ") }) : "",
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </h2>
            <div className={styles.row}>
              <div className={styles.face}>
                <Face wiring={wiring} connector={c} />
                {photo ? <img src={`/api/photos/${photo.id}`} alt={t("wiring.whereIs2", { id: c.id })} /> : null}
              </div>
              <div
                className={styles.scroll}
                tabIndex={0}
                role="region"
                aria-label={t("wiring.cavitiesOf", { id: c.id })}
              >
                <table>
                  <thead>
                    <tr>
                      <th>{t("wiring.cavity")}</th>
                      <th>{t("wiring.wire")}</th>
                      <th>{t("wiring.function")}</th>
                      <th>{t("wiring.goesTo")}</th>
                      <th>{t("wiring.reading")}</th>
                      <th>{t("wiring.note")}</th>
                    </tr>
                  </thead>
                  <tbody>
                    {c.cavities.map((k) => {
                      const point = `${c.id}:${k}`;
                      const function_ = WORDS[nets.functionOf(c.inline ? `${point}.a` : point)];
                      const to = (c.inline ? [far.get(`${point}.a`), far.get(`${point}.b`)] : [far.get(point)])
                        .filter(Boolean)
                        .join(" – ");
                      return (
                        <tr key={k}>
                          <td className="mono">{k}</td>
                          <td>{colours.has(k) ? <WireSwatch colour={colours.get(k)!} /> : ""}</td>
                          <td>{function_ ? FUNCTION_WORDS[function_] : ""}</td>
                          <td className="mono">{to}</td>
                          <td />
                          <td />
                        </tr>
                      );
                    })}
                  </tbody>
                </table>
              </div>
            </div>
          </section>
        );
      })}
    </main>
  );
}
