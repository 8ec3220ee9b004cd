"use client";
import type { Chart, ConnectorRow, PartRow, Wiring } from "@radicula/core";
import { KIND_WORDS } from "@radicula/core/words";
import { Button, Checkbox, Input, Select } from "antd";
import { memo } from "react";
import { connectorNameOf, markRead, partOf, setConnector, setPart } from "./edit";
import { Face } from "@/ui/Face";
import { FollowPath } from "./FollowPath";
import { Photos } from "./Photos";
import { WhichIsWhich } from "./WhichIsWhich";
import type { PhotoInfo } from "@/server/repo/wirings";
import type { Built } from "@/workers/chart.worker";
import styles from "./Workbench.module.css";

const KINDS = [
  "threeWireSensor",
  "hall",
  "thermistor",
  "potentiometer",
  "pedal",
  "coilSensor",
  "currentLoop",
  "smartSensor",
  "solenoid",
  "heater",
  "lamp",
  "relay",
  "module",
  "terminator",
  "splice",
  "ground",
  "fuse",
  "breaker",
  "switch",
  "diode",
  "battery",
  "alternator",
];
const ZONES = ["wet", "hot", "oily", "vibrating", "chewed"];

interface Props {
  readonly wiringId: string;
  readonly chart: Chart;
  readonly wiring: Wiring;
  readonly built: Built;
  readonly id: string | undefined;
  readonly point: string;
  readonly photos: readonly PhotoInfo[];
  onChange(change: (chart: Chart) => Chart): void;
  onCavity(cavity: string): void;
  onPhotos(photos: readonly PhotoInfo[]): void;
}

/** What is known of the chosen thing: its face, where its cavity leads, what and where it is. */
export const Panel = memo(function Panel({
  wiringId,
  chart,
  wiring,
  built,
  id,
  point,
  photos,
  onChange,
  onCavity,
  onPhotos,
}: Props) {
  if (!id)
    return (
      <aside className={styles.panel}>
        <p className="muted">Choose a line or a part to see its connector, and where each cavity leads.</p>
      </aside>
    );
  const connector = wiring.connectors.find((c) => c.id === id);
  const device =
    wiring.devices.find((d) => d.id === id) ??
    wiring.devices.find(
      (d) => "pins" in d && Object.values(d.pins).some((p) => (typeof p === "string" ? p : p.at).startsWith(`${id}:`)),
    );
  const part = device ? partOf(chart, device.id) : undefined;
  const plug = connectorNameOf(chart, id);
  const guessed = device !== undefined && (wiring.guesses ?? []).includes(device.id);
  const where = connector ? plug : part;
  const setWhere = (cells: Partial<ConnectorRow> & Partial<PartRow>) =>
    onChange((c) => (connector ? setConnector(c, id, cells) : setPart(c, id, cells)));
  const cavity = point.startsWith(`${id}:`) ? point.slice(id.length + 1).replace(/\.[ab]$/, "") : undefined;
  const text = (
    key: "name" | "place" | "side" | "comesOff" | "lookAlikes" | "partNumber" | "alsoNumbers" | "minutes",
    label: string,
    hint: string,
  ) => (
    <label className={styles.field}>
      <span>{label}</span>
      <Input
        size="small"
        placeholder={hint}
        defaultValue={where?.[key] ?? ""}
        key={`${id} ${key} ${where?.[key] ?? ""}`}
        onBlur={(e) => {
          if (e.target.value !== (where?.[key] ?? "")) setWhere({ [key]: e.target.value });
        }}
        onPressEnter={(e) => e.currentTarget.blur()}
      />
    </label>
  );
  return (
    <aside className={styles.panel} aria-label={`About ${id}`}>
      <h2>
        {id}
        {connector ? (
          <span className="muted">, looking into the plug</span>
        ) : device ? (
          <span className="muted">, {KIND_WORDS[device.kind]}</span>
        ) : null}
      </h2>
      {connector ? <Face wiring={wiring} connector={connector} chosen={cavity} onChoose={onCavity} /> : null}
      {point && (connector || device) ? (
        <>
          <h3>Follow {point.replace(":", " : ")}</h3>
          <FollowPath wiring={wiring} point={followable(wiring, point)} />
        </>
      ) : null}
      {device || !connector?.inline ? (
        <div className={styles.fields}>
          <h3>What it is</h3>
          <label className={styles.field}>
            <span>Kind</span>
            <Select
              size="small"
              showSearch={{ optionFilterProp: "label" }}
              value={part?.kind || undefined}
              placeholder={device ? `${KIND_WORDS[device.kind]}, guessed` : "not known"}
              onChange={(kind: string) => onChange((c) => setPart(c, device?.id ?? id, { kind }))}
              allowClear
              onClear={() => onChange((c) => setPart(c, device?.id ?? id, { kind: "" }))}
              options={KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
            />
          </label>
          {guessed ? (
            <Button
              size="small"
              onClick={() =>
                onChange((c) =>
                  markRead(setPart(c, device.id, { kind: device.kind }), [
                    device.id,
                    ...built.points.filter((p) => p.startsWith(`${id}:`)),
                  ]),
                )
              }
            >
              The guess is right
            </Button>
          ) : null}
          {device && device.id !== id ? <p className="muted">Part {device.id}</p> : null}
          {device ? (
            <label className={styles.wide}>
              <span>Values</span>
              <Input.TextArea
                size="small"
                autoSize={{ minRows: 1, maxRows: 5 }}
                placeholder="name=value"
                defaultValue={part?.values ?? ""}
                key={`${id} values ${part?.values ?? ""}`}
                onBlur={(e) => {
                  if (e.target.value !== (part?.values ?? ""))
                    onChange((c) => setPart(c, device.id, { values: e.target.value.replace(/\s+/g, " ").trim() }));
                }}
                onPressEnter={(e) => {
                  e.preventDefault();
                  e.currentTarget.blur();
                }}
              />
            </label>
          ) : null}
          {text("name", "Name", "boost pressure sensor")}
          {text("partNumber", "Part number", "as printed on it")}
          {text("alsoNumbers", "As good as it", "numbers it replaces, or that replace it; with ; between")}
        </div>
      ) : (
        <div className={styles.fields}>{text("name", "Name", "behind the step")}</div>
      )}
      <div className={styles.fields}>
        <h3>Where it is</h3>
        {text("place", "Place", "left of the intake elbow")}
        {text("side", "Side or bank", "left, port, bank 2")}
        {text("comesOff", "Comes off first", "cover, wheel, intake")}
        {text("lookAlikes", "Looks like", "B10 B12")}
        {text("minutes", "Minutes to reach", "1")}
        <label className={styles.field}>
          <span>Zones</span>
          <Select
            size="small"
            mode="multiple"
            value={(where?.zones ?? "").split(/[\s,;]+/).filter(Boolean)}
            onChange={(z: string[]) => setWhere({ zones: z.join(" ") })}
            options={ZONES.map((z) => ({ value: z, label: z }))}
          />
        </label>
        {connector ? (
          <Checkbox
            checked={!/^(n|no)$/i.test(plug?.backProbe ?? "")}
            onChange={(e) => setWhere({ backProbe: e.target.checked ? "" : "no" })}
          >
            can be back-probed
          </Checkbox>
        ) : null}
        {connector ? (
          <Checkbox checked={connector.inline} onChange={(e) => setWhere({ inline: e.target.checked ? "yes" : "no" })}>
            joins harness to harness
          </Checkbox>
        ) : null}
      </div>
      {connector && !connector.inline ? <WhichIsWhich connector={connector} built={built} onChange={onChange} /> : null}
      <Photos wiringId={wiringId} connector={id} photos={photos} onPhotos={onPhotos} />
    </aside>
  );
});
/** An in-line cavity is followed from its first side. */
const followable = (wiring: Wiring, point: string) =>
  wiring.connectors.some((c) => c.inline && point.startsWith(`${c.id}:`)) && !/\.[ab]$/.test(point)
    ? `${point}.b`
    : point;
