import { CHASSIS, devicePins, wireId, type Instrument, type Wiring } from "@radicula/core";
import { type Namer, wordedList } from "@radicula/core/words";
import { InputNumber, Radio, Select } from "antd";
import { useMemo } from "react";
import { LAMP_WATT, type OtherReadingProps, type OwnReadingPartProps, type PointChoice } from "./useOwnReading";
import { t } from "@/messages";

const CHOICES: readonly { readonly value: Instrument; readonly label: string }[] = wordedList(() => [
  { value: "voltmeter", label: t("reading.dcVolts") },
  { value: "ohmmeter", label: t("reading.ohms") },
  { value: "continuity", label: t("reading.beeper") },
  { value: "lamp", label: t("reading.lamp") },
  { value: "clamp", label: t("reading.clamp") },
  { value: "scope", label: t("reading.swing") },
  { value: "scopeLow", label: t("reading.lowerLevel") },
  { value: "scopeHigh", label: t("reading.upperLevel") },
  { value: "scanTool", label: t("reading.scanTool") },
]);

/** Wires for a clamp, values of a module for the scan tool, else every point a lead can be put on. */
function usePoints(instrument: Instrument, wiring: Wiring, namer: Namer, all: readonly PointChoice[]): PointChoice[] {
  return useMemo(() => {
    if (instrument === "clamp")
      return wiring.wires.map((w) => ({
        value: wireId(w),
        label: t("reading.to", {
          from: namer.point(w.from),
          to: namer.point(w.to),
          state: w.colour ? ` · ${w.colour}` : "",
        }),
      }));
    if (instrument !== "scanTool") return [...all];
    return wiring.devices.flatMap((d) =>
      d.kind === "module"
        ? devicePins(d)
            .filter((x) => x.role === "input")
            .map((x) => ({ value: x.at, label: `${d.id}, ${namer.point(x.at)}` }))
        : [],
    );
  }, [wiring, namer, instrument, all]);
}

/** The instrument and where its leads go. */
export function WithWhat({
  draft,
  wiring,
  namer,
  all,
}: OwnReadingPartProps & Pick<OtherReadingProps, "wiring" | "namer"> & { readonly all: readonly PointChoice[] }) {
  const { instrument, point, setPoint, black, setBlack, hasLeads, watt, setWatt } = draft;
  const points = usePoints(instrument, wiring, namer, all);
  return (
    <>
      <span>{t("reading.with")}</span>
      <Radio.Group
        value={instrument}
        onChange={(e) => draft.choose(e.target.value as Instrument)}
        optionType="button"
        options={[...CHOICES]}
      />
      <label htmlFor="own-point">
        {instrument === "clamp"
          ? t("reading.wire")
          : instrument === "scanTool"
            ? t("reading.value")
            : t("reading.redLead")}
      </label>
      <Select
        id="own-point"
        showSearch={{ optionFilterProp: "label" }}
        placeholder={instrument === "clamp" ? t("reading.wire") : t("reading.connectorAndCavity")}
        value={point}
        onChange={(v: string) => setPoint(v)}
        options={points}
      />
      {hasLeads ? (
        <>
          <label htmlFor="own-black">{t("reading.blackLead")}</label>
          <Select
            id="own-black"
            showSearch={{ optionFilterProp: "label" }}
            value={black}
            onChange={(v: string) => setBlack(v)}
            options={[{ value: CHASSIS, label: t("reading.batteryNegative") }, ...all]}
          />
        </>
      ) : null}
      {instrument === "lamp" ? (
        <>
          <label htmlFor="own-watt">{t("reading.lamp")}</label>
          <InputNumber
            id="own-watt"
            min={0.5}
            max={60}
            value={watt}
            onChange={(v) => setWatt(v ?? LAMP_WATT)}
            suffix="W"
            style={{ width: 110 }}
          />
        </>
      ) : null}
    </>
  );
}
