"use client";
import type { ChannelPlace, Doing } from "@radicula/core";
import { Button, InputNumber, Select } from "antd";
import { useMemo, useState } from "react";
import { useMessages } from "@/ui/Theme";
import { movable } from "./Moved";
import { placeChoices, placeOfValue, placeValue } from "./places";
import styles from "./Recording.module.css";
import { DOINGS, KEY_WHILE, type RecordingProps } from "./props";
import type { GivenRecording } from "./useRecording";
import { t } from "@/messages";

/** Channels of the simulated scope. */
const CHANNELS = 4;
/** Samples that one recording of it holds, all channels together; as the server allows. */
const MOST = 400_000;

/** A scope on the simulated machine of a practice job. */
export function RecordSimulated({
  jobId,
  wiring,
  namer,
  instructor,
  now,
  asked,
  onTake,
}: RecordingProps & { readonly onTake: (g: GivenRecording, places: readonly ChannelPlace[]) => void }) {
  const message = useMessages();
  const choices = useMemo(() => placeChoices(wiring, namer, instructor), [wiring, namer, instructor]);
  const things = useMemo(() => movable(wiring, namer), [wiring, namer]);
  const [values, setValues] = useState<readonly string[]>(() => asked?.places.map(placeValue) ?? []);
  const [doing, setDoing] = useState<Doing>(asked?.doing ?? "nothing");
  const [moving, setMoving] = useState<readonly string[]>([]);
  const [seconds, setSeconds] = useState(asked?.seconds ?? 2);
  const [perSecond, setPerSecond] = useState(asked?.perSecond ?? 5_000);
  const [isBusy, setBusy] = useState(false);
  const fits = seconds * perSecond * values.length <= MOST;
  const record = async () => {
    setBusy(true);
    try {
      const places = values.map(placeOfValue);
      const each = seconds / Math.max(1, moving.length);
      const moved = doing === "move" ? moving.map((thing, i) => ({ thing, from: i * each, to: (i + 1) * each })) : [];
      const response = await fetch(`/api/jobs/${jobId}/record`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify({
          places,
          state: { ...now, key: KEY_WHILE[doing] ?? "on" },
          doing,
          seconds,
          perSecond,
          ...(moved.length ? { moved } : {}),
        }),
      });
      if (!response.ok) throw new Error(String(response.status));
      onTake({ file: await response.blob(), name: t("recording.simulatedScope"), doing, moved }, places);
    } catch {
      void message.warning(t("recording.notRecorded"));
    } finally {
      setBusy(false);
    }
  };
  return (
    <fieldset className={styles.simulated}>
      <legend>{t("recording.onTheSimulatedMachine")}</legend>
      <Select
        mode="multiple"
        aria-label={t("recording.whatToRecord")}
        placeholder={t("recording.whatToRecord")}
        maxCount={CHANNELS}
        value={[...values]}
        onChange={(v: string[]) => setValues(v)}
        options={choices}
        optionFilterProp="label"
      />
      {doing === "move" ? (
        <Select
          mode="multiple"
          aria-label={t("recording.whatToMove")}
          placeholder={t("recording.whatToMove")}
          value={[...moving]}
          onChange={(v: string[]) => setMoving(v)}
          options={things}
          optionFilterProp="label"
        />
      ) : null}
      <div className={styles.row}>
        <Select
          aria-label={t("recording.meanwhile")}
          value={doing}
          options={[...DOINGS]}
          onChange={setDoing}
          style={{ minWidth: 200 }}
        />
        <label>
          {t("recording.seconds")}{" "}
          <InputNumber min={0.01} max={60} value={seconds} onChange={(v) => setSeconds(v ?? 2)} />
        </label>
        <label>
          {t("recording.samplesASecond")}{" "}
          <InputNumber min={1} max={200_000} value={perSecond} onChange={(v) => setPerSecond(v ?? 5_000)} />
        </label>
        <Button disabled={values.length === 0 || !fits} loading={isBusy} onClick={() => void record()}>
          {t("recording.record")}
        </Button>
      </div>
      {fits ? null : <p className="muted">{t("recording.tooManySamples", { most: MOST })}</p>}
    </fieldset>
  );
}
