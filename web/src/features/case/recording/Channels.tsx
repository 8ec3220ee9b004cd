"use client";
import { fittingUnit, seenIn, type ChannelPlace } from "@radicula/core";
import { gapText, secondsText, seenText, thousands } from "@radicula/core/words";
import { Select } from "antd";
import type { ExpectedLevels } from "@/workers/recording.worker";
import { say } from "@/messages/issues";
import { placeOfValue, placeValue, type PlaceChoice } from "./places";
import styles from "./Recording.module.css";
import type { OpenRecording } from "./useRecording";
import { t } from "@/messages";

interface Props {
  readonly recording: OpenRecording;
  readonly choices: readonly PlaceChoice[];
  readonly places: readonly (ChannelPlace | undefined)[];
  readonly isFixed: boolean;
  readonly expected: ExpectedLevels | undefined;
  readonly onPlace: (channel: number, place: ChannelPlace | undefined) => void;
}

/** How long was recorded: each sample stands for the time until the next. */
const lengthOf = ({ from, to, samples }: OpenRecording["channels"][number]) =>
  samples > 1 ? ((to - from) * samples) / (samples - 1) : 0;

/** What was understood, channel by channel: what it does, how often it was sampled, and where it was put. */
export function Channels({ recording, choices, places, isFixed, expected, onPlace }: Props) {
  const { channels, measured } = recording;
  return (
    <table className={styles.channels}>
      <thead>
        <tr>
          <th scope="col">{t("recording.channel")}</th>
          <th scope="col">{t("recording.whatItDoes")}</th>
          <th scope="col">{t("recording.whereItWasPut")}</th>
        </tr>
      </thead>
      <tbody>
        {channels.map((c, i) => {
          const facts = measured?.facts[i];
          const gap = facts && gapText(facts);
          const place = places[i];
          return (
            <tr key={i}>
              <th scope="row">
                {c.name}
                <small>
                  {t("recording.samplesIn", {
                    samples: c.samples,
                    shown: thousands(c.samples),
                    length: secondsText(lengthOf(c)),
                  })}
                </small>
              </th>
              <td>
                {facts ? seenText(seenIn(facts), c.unit) : t("recording.measuring")}
                {gap ? <small>{gap}</small> : null}
                {expected?.sound[i]?.duty === undefined ? null : (
                  <small>
                    {t("recording.soundDuty", { share: `${Math.round(100 * expected.sound[i].duty)} %` })}
                    {expected.suspect[i]?.duty === undefined
                      ? null
                      : ` ${t("recording.suspectDuty", { share: `${Math.round(100 * expected.suspect[i].duty)} %` })}`}
                  </small>
                )}
                {facts?.issues.map((issue) => (
                  <small key={issue.code}>{say(issue).text}</small>
                ))}
              </td>
              <td>
                {isFixed ? (
                  (choices.find((x) => place && x.value === placeValue(place))?.label ?? t("recording.notWeighed"))
                ) : (
                  <Select
                    aria-label={t("recording.whereChannelWasPut", { name: c.name })}
                    value={place ? placeValue(place) : undefined}
                    placeholder={t("recording.notWeighed")}
                    allowClear
                    showSearch={{ optionFilterProp: "label" }}
                    onChange={(v: string | undefined) => onPlace(i, v === undefined ? undefined : placeOfValue(v))}
                    options={[...choices]}
                  />
                )}
                {place && !fittingUnit(c.unit, place.by) ? (
                  <small role="alert">{t("recording.unitDoesNotFit", { unit: c.unit })}</small>
                ) : null}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
