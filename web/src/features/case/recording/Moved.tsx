"use client";
import { wireId, type Wiring } from "@radicula/core";
import { secondsText, type Namer } from "@radicula/core/words";
import { Button, Select } from "antd";
import { useMemo, useState } from "react";
import type { MovedPlace, MovedWhen } from "./movedWhen";
import styles from "./Recording.module.css";
import type { Seen } from "./seen";
import { AXIS_WIDTH, RIGHT_PAD } from "./TracePlot";
import { t } from "@/messages";

interface Props {
  readonly moved: readonly (MovedWhen & Partial<MovedPlace>)[];
  readonly seen: Seen;
  readonly wiring: Wiring;
  readonly namer: Namer;
  /** undefined where it is in the logbook already */
  readonly onMoved: ((moved: readonly MovedWhen[]) => void) | undefined;
}

/** Which place was being moved when: a strip under the drawing, on its time axis; the part that is shown is added. */
export function Moved({ moved, seen, wiring, namer, onMoved }: Props) {
  const [thing, setThing] = useState<string | undefined>(undefined);
  const choices = useMemo(() => movable(wiring, namer), [wiring, namer]);
  const span = seen.to - seen.from;
  const at = (seconds: number) => Math.max(0, Math.min(1, (seconds - seen.from) / span));
  const nameOf = (id: string) => choices.find((c) => c.value === id)?.label ?? id;
  return (
    <section aria-label={t("recording.placesMoved")}>
      <div className={styles.strip} style={{ marginLeft: AXIS_WIDTH, marginRight: RIGHT_PAD }} aria-hidden="true">
        {moved.map((m, i) => {
          const [from, to] = [at(m.from), at(m.to)];
          return to > from ? (
            <span
              key={i}
              data-reacted={m.reacted ? true : undefined}
              style={{ left: `${100 * from}%`, width: `${100 * (to - from)}%` }}
            >
              {m.thing}
            </span>
          ) : null;
        })}
      </div>
      {moved.length ? (
        <ul className={styles.moved}>
          {moved.map((m, i) => (
            <li key={i}>
              {t("recording.movedFromTo", {
                thing: nameOf(m.thing),
                from: secondsText(m.from),
                to: secondsText(m.to),
              })}
              {m.reacted === undefined ? "" : ` ${m.reacted ? t("recording.itReacted") : t("recording.noReaction")}`}
              {onMoved ? (
                <button type="button" className="link" onClick={() => onMoved(moved.filter((_, k) => k !== i))}>
                  {t("recording.takeAway")}
                </button>
              ) : null}
            </li>
          ))}
        </ul>
      ) : null}
      {onMoved ? (
        <div className={styles.row}>
          <Select
            aria-label={t("recording.whichPlaceWasMoved")}
            placeholder={t("recording.whichPlaceWasMoved")}
            value={thing}
            onChange={setThing}
            options={choices}
            showSearch={{ optionFilterProp: "label" }}
            style={{ minWidth: 260 }}
          />
          <Button
            disabled={thing === undefined}
            onClick={() => {
              onMoved([...moved, { thing: thing!, from: seen.from, to: seen.to }].sort((a, b) => a.from - b.from));
              setThing(undefined);
            }}
          >
            {t("recording.movedInWhatIsShown", { from: secondsText(seen.from), to: secondsText(seen.to) })}
          </Button>
        </div>
      ) : null}
    </section>
  );
}

/** What a hand can move: plugs, splices, grounds, fuses, wires. */
export function movable(wiring: Wiring, namer: Namer): { readonly value: string; readonly label: string }[] {
  return [
    ...wiring.connectors.map((c) => ({ value: c.id, label: namer.connector(c.id) })),
    ...wiring.devices
      .filter((d) => d.kind === "splice" || d.kind === "ground" || d.kind === "fuse")
      .map((d) => ({ value: d.id, label: namer.device(d.id) })),
    ...wiring.wires.map((w) => ({ value: wireId(w), label: namer.wire(wireId(w)) })),
  ];
}
