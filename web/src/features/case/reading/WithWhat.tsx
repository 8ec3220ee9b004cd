import { CHASSIS, devicePins, wireId, type Instrument, type Wiring } from "@radicula/core";
import type { Namer } from "@radicula/core/words";
import { InputNumber, Radio, Select } from "antd";
import { useMemo } from "react";
import { LAMP_WATT, type OtherReadingProps, type OwnReadingPartProps, type PointChoice } from "./useOwnReading";

const CHOICES: readonly { readonly value: Instrument; readonly label: string }[] = [
  { value: "voltmeter", label: "DC volts" },
  { value: "ohmmeter", label: "Ohms" },
  { value: "continuity", label: "Beeper" },
  { value: "lamp", label: "Lamp" },
  { value: "clamp", label: "Clamp" },
  { value: "scope", label: "Swing" },
  { value: "scanTool", label: "Scan tool" },
];

/** Wires for a clamp, values of a module for the scan tool, else every point a lead can be put on. */
function usePoints(instrument: Instrument, wiring: Wiring, namer: Namer, all: readonly PointChoice[]): PointChoice[] {
  return useMemo(() => {
    if (instrument === "clamp")
      return wiring.wires.map((w) => ({
        value: wireId(w),
        label: `${namer.point(w.from)} to ${namer.point(w.to)}${w.colour ? ` · ${w.colour}` : ""}`,
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
      <span>With</span>
      <Radio.Group
        value={instrument}
        onChange={(e) => draft.choose(e.target.value as Instrument)}
        optionType="button"
        options={[...CHOICES]}
      />
      <label htmlFor="own-point">
        {instrument === "clamp" ? "Wire" : instrument === "scanTool" ? "Value" : "Red lead"}
      </label>
      <Select
        id="own-point"
        showSearch={{ optionFilterProp: "label" }}
        placeholder={instrument === "clamp" ? "Wire" : "Connector and cavity"}
        value={point}
        onChange={(v: string) => setPoint(v)}
        options={points}
      />
      {hasLeads ? (
        <>
          <label htmlFor="own-black">Black lead</label>
          <Select
            id="own-black"
            showSearch={{ optionFilterProp: "label" }}
            value={black}
            onChange={(v: string) => setBlack(v)}
            options={[{ value: CHASSIS, label: "Battery negative" }, ...all]}
          />
        </>
      ) : null}
      {instrument === "lamp" ? (
        <>
          <label htmlFor="own-watt">Lamp</label>
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
