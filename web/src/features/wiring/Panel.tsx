"use client";
import type { Connector, Device } from "@radicula/core";
import { type Chart, type ConnectorRow, type PartRow, type Wiring, deviceConnectors } from "@radicula/core";
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
import { t } from "@/messages";

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

/** The chosen thing, as the wiring and the chart have it. */
interface About {
  readonly id: string;
  readonly connector: Connector | undefined;
  readonly device: Device | undefined;
  readonly part: PartRow | undefined;
  readonly plug: ConnectorRow | undefined;
  /** its line in the chart: the connector's, or the part's */
  readonly where: ConnectorRow | PartRow | undefined;
  readonly setWhere: (cells: Partial<ConnectorRow> & Partial<PartRow>) => void;
}
function aboutOf({ wiring, chart, onChange }: Props, id: string): About {
  const connector = wiring.connectors.find((c) => c.id === id);
  const device =
    wiring.devices.find((d) => d.id === id) ?? wiring.devices.find((d) => deviceConnectors(d).includes(id));
  const part = device ? partOf(chart, device.id) : undefined;
  const plug = connectorNameOf(chart, id);
  return {
    id,
    connector,
    device,
    part,
    plug,
    where: connector ? plug : part,
    setWhere: (cells) => onChange((c) => (connector ? setConnector(c, id, cells) : setPart(c, id, cells))),
  };
}

/** What is known of the chosen thing: its face, where its cavity leads, what and where it is. */
export const Panel = memo(function Panel(p: Props) {
  const { id, wiring, point, onCavity, onChange, built } = p;
  if (!id)
    return (
      <aside className={styles.panel}>
        <p className="muted">{t("wiring.chooseALineOrAPart")}</p>
      </aside>
    );
  const about = aboutOf(p, id);
  const { connector, device } = about;
  const cavity = point.startsWith(`${id}:`) ? point.slice(id.length + 1).replace(/\.[ab]$/, "") : undefined;
  return (
    <aside className={styles.panel} aria-label={t("wiring.about", { id })}>
      <h2>
        {id}
        {connector ? (
          <span className="muted">{t("wiring.lookingIntoThePlug")}</span>
        ) : device ? (
          <span className="muted">, {KIND_WORDS[device.kind]}</span>
        ) : null}
      </h2>
      {connector ? <Face wiring={wiring} connector={connector} chosen={cavity} onChoose={onCavity} /> : null}
      {point && (connector || device) ? (
        <>
          <h3>{t("wiring.follow", { point: point.replace(":", " : ") })}</h3>
          <FollowPath wiring={wiring} point={followable(wiring, point)} />
        </>
      ) : null}
      {device || !connector?.inline ? (
        <WhatItIs {...p} about={about} />
      ) : (
        <div className={styles.fields}>
          <Field about={about} name="name" label={t("wiring.name")} hint={t("wiring.behindTheStep")} />
        </div>
      )}
      <WhereItIs about={about} />
      {connector && !connector.inline ? <WhichIsWhich connector={connector} built={built} onChange={onChange} /> : null}
      <Photos wiringId={p.wiringId} connector={id} photos={p.photos} onPhotos={p.onPhotos} />
    </aside>
  );
});

type FieldName = "name" | "place" | "side" | "comesOff" | "lookAlikes" | "partNumber" | "alsoNumbers" | "minutes";
function Field({
  about: { id, where, setWhere },
  name,
  label,
  hint,
}: {
  readonly about: About;
  readonly name: FieldName;
  readonly label: string;
  readonly hint: string;
}) {
  const now = (where as Partial<Record<FieldName, string>> | undefined)?.[name] ?? "";
  return (
    <label className={styles.field}>
      <span>{label}</span>
      <Input
        size="small"
        placeholder={hint}
        defaultValue={now}
        key={`${id} ${name} ${now}`}
        onBlur={(e) => {
          if (e.target.value !== now) setWhere({ [name]: e.target.value });
        }}
        onPressEnter={(e) => e.currentTarget.blur()}
      />
    </label>
  );
}

function WhatItIs({ wiring, built, onChange, about }: Props & { readonly about: About }) {
  const { id, device, part } = about;
  const guessed = device !== undefined && (wiring.guesses ?? []).includes(device.id);
  return (
    <div className={styles.fields}>
      <h3>{t("wiring.whatItIs")}</h3>
      <label className={styles.field}>
        <span>{t("wiring.kind")}</span>
        <Select
          size="small"
          showSearch={{ optionFilterProp: "label" }}
          value={part?.kind || undefined}
          placeholder={device ? t("wiring.guessed", { kind: KIND_WORDS[device.kind] }) : t("wiring.notKnown")}
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
          {t("wiring.theGuessIsRight")}
        </Button>
      ) : null}
      {device && device.id !== id ? <p className="muted">{t("wiring.part", { id: device.id })}</p> : null}
      {device ? <Values device={device} part={part} onChange={onChange} /> : null}
      <Field about={about} name="name" label={t("wiring.name")} hint={t("wiring.boostPressureSensor")} />
      <Field about={about} name="partNumber" label={t("wiring.partNumber")} hint={t("wiring.asPrintedOnIt")} />
      <Field
        about={about}
        name="alsoNumbers"
        label={t("wiring.asGoodAsIt")}
        hint={t("wiring.numbersItReplacesOrThatReplace")}
      />
    </div>
  );
}

function Values({
  device,
  part,
  onChange,
}: Pick<Props, "onChange"> & { readonly device: Device; readonly part: PartRow | undefined }) {
  const now = part?.values ?? "";
  return (
    <label className={styles.wide}>
      <span>{t("wiring.values")}</span>
      <Input.TextArea
        size="small"
        autoSize={{ minRows: 1, maxRows: 5 }}
        placeholder={t("wiring.nameValue")}
        defaultValue={now}
        key={`${device.id} values ${now}`}
        onBlur={(e) => {
          if (e.target.value !== now)
            onChange((c) => setPart(c, device.id, { values: e.target.value.replace(/\s+/g, " ").trim() }));
        }}
        onPressEnter={(e) => {
          e.preventDefault();
          e.currentTarget.blur();
        }}
      />
    </label>
  );
}

function WhereItIs({ about }: { readonly about: About }) {
  const { connector, plug, where, setWhere } = about;
  return (
    <div className={styles.fields}>
      <h3>{t("wiring.whereItIs")}</h3>
      <Field about={about} name="place" label={t("wiring.place")} hint={t("wiring.leftOfTheIntakeElbow")} />
      <Field about={about} name="side" label={t("wiring.sideOrBank")} hint={t("wiring.leftPortBank2")} />
      <Field about={about} name="comesOff" label={t("wiring.comesOffFirst")} hint={t("wiring.coverWheelIntake")} />
      <Field about={about} name="lookAlikes" label={t("wiring.looksLike")} hint="B10 B12" />
      <Field about={about} name="minutes" label={t("wiring.minutesToReach")} hint="1" />
      <label className={styles.field}>
        <span>{t("wiring.zones")}</span>
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
          {t("wiring.canBeBackProbed")}
        </Checkbox>
      ) : null}
      {connector ? (
        <Checkbox checked={connector.inline} onChange={(e) => setWhere({ inline: e.target.checked ? "yes" : "no" })}>
          {t("wiring.joinsHarnessToHarness")}
        </Checkbox>
      ) : null}
    </div>
  );
}

/** An in-line cavity is followed from its first side. */
const followable = (wiring: Wiring, point: string) =>
  wiring.connectors.some((c) => c.inline && point.startsWith(`${c.id}:`)) && !/\.[ab]$/.test(point)
    ? `${point}.b`
    : point;
