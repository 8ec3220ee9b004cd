import type { KeyState } from "@radicula/core";
import { keyText } from "@radicula/core/words";
import { Radio, Select } from "antd";
import { useMemo } from "react";
import type { OtherReadingProps, OwnReadingPartProps } from "./useOwnReading";
import { t } from "@/messages";

const KEYS: readonly KeyState[] = ["on", "off", "cranking", "running"];
/** How the machine stands while the reading is taken. */
export function StateFields({
  draft,
  wiring,
  namer,
}: OwnReadingPartProps & Pick<OtherReadingProps, "wiring" | "namer">) {
  const { key, setKey, unplugged, setUnplugged, pulled, setPulled, breakers, setBreakers, barred } = draft;
  const connectors = useMemo(
    () =>
      wiring.connectors.filter((c) => !barred.has(c.id)).map((c) => ({ value: c.id, label: namer.connector(c.id) })),
    [wiring, namer, barred],
  );
  const fuses = useMemo(
    () =>
      wiring.devices
        .filter((d) => d.kind === "fuse" || d.kind === "breaker")
        .map((d) => ({ value: d.id, label: d.id })),
    [wiring],
  );
  return (
    <>
      <span>{t("reading.key")}</span>
      <Radio.Group
        value={key}
        onChange={(e) => setKey(e.target.value as KeyState)}
        optionType="button"
        options={KEYS.map((k) => ({ value: k, label: keyText(k) }))}
      />
      <label htmlFor="own-unplugged">{t("reading.unplugged")}</label>
      <Select
        id="own-unplugged"
        mode="multiple"
        placeholder={t("reading.nothing")}
        value={[...unplugged]}
        onChange={(v: string[]) => setUnplugged(v)}
        options={connectors}
      />
      {fuses.length ? (
        <>
          <label htmlFor="own-pulled">{t("reading.fuses")}</label>
          <span style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
            <Select
              id="own-pulled"
              mode="multiple"
              placeholder={t("reading.nonePulled")}
              style={{ flex: "1 1 150px" }}
              value={[...pulled]}
              onChange={(v: string[]) => setPulled(v)}
              options={fuses}
            />
            <Select
              aria-label={t("reading.breakerInPlaceOf")}
              mode="multiple"
              placeholder={t("reading.noBreakerFitted")}
              style={{ flex: "1 1 150px" }}
              value={[...breakers]}
              onChange={(v: string[]) => setBreakers(v)}
              options={fuses}
            />
          </span>
        </>
      ) : null}
    </>
  );
}
