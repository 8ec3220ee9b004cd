import { followPoint, wireId, wireOhm, type Wiring } from "@radicula/core";
import { followEnd, Namer } from "@radicula/core/words";
import { useMemo } from "react";
import { SCREEN } from "@/ui/WireSwatch";
import { parseColour } from "@radicula/core";
import styles from "./Workbench.module.css";
import { capital } from "@/ui/text";
import { t } from "@/messages";

/** One cavity followed to where its current comes from or goes: stop by stop, with what else hangs on it. */
export function FollowPath({ wiring, point }: { readonly wiring: Wiring; readonly point: string }) {
  const follow = useMemo(() => followPoint(wiring, point), [wiring, point]);
  const namer = useMemo(() => new Namer(wiring), [wiring]);
  const wires = useMemo(() => new Map(wiring.wires.map((w) => [wireId(w), w])), [wiring]);
  if (follow.steps.length === 0) return <p className="muted">{t("wiring.noWireLeavesThisCavityYet")}</p>;
  return (
    <>
      <ol className={styles.follow}>
        <li>
          <i data-end="start" />
          <b>{point.replace(":", " : ")}</b>
        </li>
        {follow.steps.map((s, i) => {
          const wire = s.over === "wire" ? wires.get(s.thing) : undefined;
          const read = wire?.colour ? parseColour(wire.colour) : undefined;
          const facts = wire
            ? [
                wire.colour,
                wire.lengthM === undefined ? "" : `${wire.lengthM} m`,
                wire.lengthM !== undefined && wire.mm2 !== undefined ? `${Math.round(1000 * wireOhm(wire))} mΩ` : "",
                wire.zones.join(", "),
              ]
                .filter(Boolean)
                .join(" · ")
            : s.over === "contact"
              ? t("wiring.matedContact")
              : "";
          const last = i === follow.steps.length - 1;
          return (
            <li
              key={`${s.to}${i}`}
              style={{ ["--wire" as string]: read?.status === "read" ? SCREEN[read.colour.base] : "var(--wire)" }}
            >
              {facts ? <span className={styles.leg}>{facts}</span> : <span className={styles.leg} />}
              <i data-end={last ? "end" : undefined} />
              <b>{last ? capital(followEnd(follow, namer)) : namer.point(s.to)}</b>
            </li>
          );
        })}
      </ol>
      {follow.others.length ? (
        <p className={styles.also}>
          {t("wiring.alsoOnIt", {
            others: follow.others
              .slice(0, 12)
              .map((o) => namer.device(o))
              .join(", "),
            more: follow.others.length > 12 ? t("wiring.andMore", { othersCount: follow.others.length - 12 }) : "",
          })}
        </p>
      ) : null}
    </>
  );
}
