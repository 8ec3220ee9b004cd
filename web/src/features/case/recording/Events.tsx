"use client";
import { channelEvents, pairEvents, secondsText, type TraceEvent } from "@radicula/core/words";
import { useMemo } from "react";
import styles from "./Recording.module.css";
import type { Seen } from "./seen";
import type { OpenRecording } from "./useRecording";
import { t } from "@/messages";

/** Events listed; more are counted. */
const LISTED = 60;
/** How much is seen around an event: so many times its length, and at least so many seconds. */
const AROUND = 4;
const LEAST = 0.02;

/** Everything that happens in a recording, for those who cannot see the drawing; a press shows it there. */
export function Events({
  recording,
  onSee,
}: {
  readonly recording: OpenRecording;
  readonly onSee: (seen: Seen) => void;
}) {
  const { measured, channels } = recording;
  const events = useMemo((): TraceEvent[] => {
    if (!measured) return [];
    return [...measured.facts.flatMap(channelEvents), ...measured.pairs.flatMap((p) => pairEvents(channels, p))].sort(
      (a, b) => a.from - b.from,
    );
  }, [measured, channels]);
  if (!measured) return <p className="muted">{t("recording.measuring")}</p>;
  if (events.length === 0) return <p className="muted">{t("recording.nothingHappens")}</p>;
  const show = (e: TraceEvent) => {
    const around = Math.max(LEAST, AROUND * (e.to - e.from));
    onSee({ from: e.from - around, to: e.to + around });
  };
  return (
    <section>
      <h3 className={styles.eventsHead}>{t("recording.eventsCount", { count: events.length })}</h3>
      <div className={styles.list} tabIndex={0} role="group" aria-label={t("recording.events")}>
        <table className={styles.events}>
          <tbody>
            {events.slice(0, LISTED).map((e, i) => (
              <tr key={i}>
                <td>
                  <button type="button" className="link" onClick={() => show(e)}>
                    {secondsText(e.from)}
                  </button>
                </td>
                <th scope="row">{e.channel}</th>
                <td>{e.text}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {events.length > LISTED ? (
        <p className="muted">{t("recording.andMore", { count: events.length - LISTED })}</p>
      ) : null}
    </section>
  );
}
