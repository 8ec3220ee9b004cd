import { Select } from "antd";
import { SERIES_OHM, WIRE_OHM, type OwnReadingPartProps, type PointChoice } from "./useOwnReading";

/** Where a jumper is put on while the reading is taken, if one is. */
export function JumperEnds({ draft, all }: OwnReadingPartProps & { readonly all: PointChoice[] }) {
  const { jumper, setJumper } = draft;
  return (
    <span style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
      <Select
        aria-label="Jumper from"
        allowClear
        showSearch={{ optionFilterProp: "label" }}
        placeholder="none"
        style={{ flex: "1 1 150px" }}
        value={jumper.from}
        onChange={(v?: string) => setJumper({ ...jumper, from: v, to: v === undefined ? undefined : jumper.to })}
        options={all}
      />
      {jumper.from === undefined ? null : (
        <>
          <Select
            aria-label="Jumper to"
            showSearch={{ optionFilterProp: "label" }}
            placeholder="to"
            style={{ flex: "1 1 150px" }}
            value={jumper.to}
            onChange={(v: string) => setJumper({ ...jumper, to: v })}
            options={all}
          />
          <Select
            aria-label="Through"
            value={jumper.ohm}
            style={{ width: 100 }}
            onChange={(v: number) => setJumper({ ...jumper, ohm: v })}
            options={[
              { value: WIRE_OHM, label: "a wire" },
              { value: SERIES_OHM, label: "1 kΩ" },
            ]}
          />
        </>
      )}
    </span>
  );
}
