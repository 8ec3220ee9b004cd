import { stimulusOf } from "@radicula/core/words";
import { InputNumber, Radio, Select } from "antd";
import { useMemo } from "react";
import type { OtherReadingProps, OwnReadingPartProps } from "./useOwnReading";
import { t } from "@/messages";

/** A sensor acted on by hand while the reading is taken: steel at its tip, a lever moved, a cup of hot water. */
export function StimulusFields({
  draft: { stimulus, setStimulus },
  wiring,
  namer,
}: OwnReadingPartProps & Pick<OtherReadingProps, "wiring" | "namer">) {
  const parts = useMemo(
    () => wiring.devices.filter((d) => stimulusOf(d)).map((d) => ({ value: d.id, label: namer.device(d.id) })),
    [wiring, namer],
  );
  if (parts.length === 0) return null;
  const device = wiring.devices.find((d) => d.id === stimulus?.part);
  const words = device && stimulusOf(device);
  const scale = words?.kind === "share" ? 100 : 1;
  return (
    <>
      <label htmlFor="own-stimulus">{t("reading.actedOn")}</label>
      <span style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
        <Select
          id="own-stimulus"
          allowClear
          showSearch
          optionFilterProp="label"
          placeholder={t("reading.noSensor")}
          style={{ flex: "1 1 200px" }}
          value={stimulus?.part}
          onChange={(part: string | undefined) => setStimulus(part === undefined ? undefined : { part, value: 1 })}
          options={parts}
        />
        {stimulus && words?.kind === "steel" ? (
          <Radio.Group
            value={stimulus.value}
            onChange={(e) => setStimulus({ ...stimulus, value: e.target.value as number })}
            optionType="button"
            options={[
              { value: 1, label: t("reading.steelAtItsTip") },
              { value: 0, label: t("reading.noSteel") },
            ]}
          />
        ) : null}
        {stimulus && words && words.kind !== "steel" ? (
          <InputNumber
            aria-label={t("reading.valueAt", { sensor: stimulus.part })}
            min={words.least}
            max={words.most}
            value={Math.round(stimulus.value * scale * 100) / 100}
            suffix={words.unit}
            onChange={(v) => setStimulus({ ...stimulus, value: (v ?? 0) / scale })}
          />
        ) : null}
      </span>
    </>
  );
}
