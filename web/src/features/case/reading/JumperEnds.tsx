import { Select } from "antd";
import { SERIES_OHM, WIRE_OHM, type OwnReadingPartProps, type PointChoice } from "./useOwnReading";
import { t } from "@/messages";

/** Where a jumper is put on while the reading is taken, if one is. */
export function JumperEnds({ draft, all }: OwnReadingPartProps & { readonly all: PointChoice[] }) {
  const { jumper, setJumper } = draft;
  return (
    <span style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
      <Select
        aria-label={t("reading.jumperFrom")}
        allowClear
        showSearch={{ optionFilterProp: "label" }}
        placeholder={t("reading.noJumper")}
        style={{ flex: "1 1 150px" }}
        value={jumper.from}
        onChange={(v?: string) => setJumper({ ...jumper, from: v, to: v === undefined ? undefined : jumper.to })}
        options={all}
      />
      {jumper.from === undefined ? null : (
        <>
          <Select
            aria-label={t("reading.jumperTo")}
            showSearch={{ optionFilterProp: "label" }}
            placeholder={t("reading.toCavity")}
            style={{ flex: "1 1 150px" }}
            value={jumper.to}
            onChange={(v: string) => setJumper({ ...jumper, to: v })}
            options={all}
          />
          <Select
            aria-label={t("reading.through")}
            value={jumper.ohm}
            style={{ width: 100 }}
            onChange={(v: number) => setJumper({ ...jumper, ohm: v })}
            options={[
              { value: WIRE_OHM, label: t("reading.aWire") },
              { value: SERIES_OHM, label: "1 kΩ" },
            ]}
          />
        </>
      )}
    </span>
  );
}
