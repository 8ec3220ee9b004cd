"use client";
import {
  barredConnectors,
  CHASSIS,
  connectorOf,
  devicePins,
  feedsModule,
  meterPoints,
  wireId,
  type Candidate,
  type Instrument,
  type KeyState,
  type State,
  type Wiring,
} from "@radicula/core";
import { keyText, type Instructor, type Namer } from "@radicula/core/words";
import { Button, InputNumber, Radio, Select } from "antd";
import { useMemo, useState } from "react";
import { Sheet } from "../Sheet";
import styles from "../Case.module.css";
import type { Own } from "./entries";

/** Instead of the first choice: another candidate on offer, or a reading of one's own. */
export type Other =
  { readonly offered: string; readonly reading?: undefined } | { readonly reading: Own; readonly offered?: undefined };

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly offered: readonly Candidate[];
  /** a point chosen on the map */
  readonly point?: string | undefined;
  readonly now: State | undefined;
  readonly onChoose: (other: Other) => void;
  readonly onClose: () => void;
}
const KEYS: readonly KeyState[] = ["on", "off", "cranking", "running"];
const INSTRUMENTS: readonly { readonly value: Instrument; readonly label: string }[] = [
  { value: "voltmeter", label: "DC volts" },
  { value: "ohmmeter", label: "Ohms" },
  { value: "continuity", label: "Beeper" },
  { value: "lamp", label: "Lamp" },
  { value: "clamp", label: "Clamp" },
  { value: "scope", label: "Swing" },
  { value: "scanTool", label: "Scan tool" },
];

/** Any reading, however it was taken: one of the others on offer, or a point, an instrument and a state of one's own. */
export function OtherReading(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title="Another reading" width={660}>
      <Body key={p.point ?? ""} {...p} />
    </Sheet>
  );
}
function Body({ wiring, namer, instructor, offered, point: first, now, onChoose }: Props) {
  const [point, setPoint] = useState<string | undefined>(first);
  const [black, setBlack] = useState<string>(CHASSIS);
  const [instrument, setInstrument] = useState<Instrument>("voltmeter");
  const [key, setKey] = useState<KeyState>(now?.key ?? "on");
  const [unplugged, setUnplugged] = useState<string[]>([...(now?.unplugged ?? [])]);
  const [pulled, setPulled] = useState<string[]>([...(now?.pulled ?? [])]);
  const [breakers, setBreakers] = useState<string[]>([...(now?.breakers ?? [])]);
  const [jumper, setJumper] = useState<readonly [string | undefined, string | undefined, number]>([
    undefined,
    undefined,
    0.01,
  ]);
  const [watt, setWatt] = useState(5);
  const all = useMemo(
    () =>
      meterPoints(wiring).map((x) => ({
        value: x,
        label: `${namer.point(x)} · ${instructor.functionOf(x)}${instructor.colourOf(x) ? ` · ${instructor.colourOf(x)}` : ""}`,
      })),
    [wiring, namer, instructor],
  );
  const points = useMemo(
    () =>
      instrument === "clamp"
        ? wiring.wires.map((w) => ({
            value: wireId(w),
            label: `${namer.point(w.from)} to ${namer.point(w.to)}${w.colour ? ` · ${w.colour}` : ""}`,
          }))
        : instrument === "scanTool"
          ? wiring.devices.flatMap((d) =>
              d.kind === "module"
                ? devicePins(d)
                    .filter((x) => x.role === "input")
                    .map((x) => ({ value: x.at, label: `${d.id}, ${namer.point(x.at)}` }))
                : [],
            )
          : all,
    [wiring, namer, instrument, all],
  );
  const barred = useMemo(() => barredConnectors(wiring), [wiring]);
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
  const leads =
    instrument === "voltmeter" ||
    instrument === "ohmmeter" ||
    instrument === "continuity" ||
    instrument === "lamp" ||
    instrument === "scope";
  const touched = [
    ...(instrument === "scanTool" || point === undefined ? [] : [point]),
    ...(leads ? [black] : []),
    ...jumper.slice(0, 2),
  ];
  const guarded = touched.some((x) => typeof x === "string" && barred.has(connectorOf(x)));
  const pushed =
    jumper[0] !== undefined && jumper[1] !== undefined
      ? feedsModule(wiring, { from: jumper[0], to: jumper[1] }, { unplugged })
      : undefined;
  const choose = () => {
    if (point === undefined || guarded) return;
    const [from, to, ohm] = jumper;
    const other = black === CHASSIS ? undefined : black;
    onChoose({
      reading: {
        instrument,
        points: [point],
        ...(leads && other !== undefined && instrument !== "lamp" ? { black: other } : {}),
        state: {
          key,
          unplugged: [...unplugged].sort(),
          ...(pulled.length ? { pulled: [...pulled].sort() } : {}),
          ...(breakers.length ? { breakers: [...breakers].sort() } : {}),
          ...(from !== undefined && to !== undefined ? { jumpers: [{ from, to, ohm }] } : {}),
          ...(instrument === "lamp" ? { loads: [{ from: point, to: other ?? "chassis", watt }] } : {}),
        },
      },
    });
  };
  return (
    <>
      {offered.length && first === undefined ? (
        <>
          <p className={styles.formHead}>Also worth taking now</p>
          <ul className={styles.offers}>
            {offered.map((c) => (
              <li key={c.id}>
                <button type="button" onClick={() => onChoose({ offered: c.id })}>
                  <span>{instructor.instruct(c).title}</span>
                  <span className="muted">{Math.max(1, Math.round(c.minutes))} min</span>
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <p className={styles.formHead}>{first === undefined ? "Or one of your own" : "One of your own"}</p>
      <div className={styles.form}>
        <span>With</span>
        <Radio.Group
          value={instrument}
          onChange={(e) => {
            const v = e.target.value as Instrument;
            setInstrument(v);
            if (v === "ohmmeter" || v === "continuity") setKey("off");
            if (v === "scanTool" || v === "clamp" || instrument === "scanTool" || instrument === "clamp")
              setPoint(undefined);
          }}
          optionType="button"
          options={[...INSTRUMENTS]}
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
        {leads ? (
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
              onChange={(v) => setWatt(v ?? 5)}
              suffix="W"
              style={{ width: 110 }}
            />
          </>
        ) : null}
        <span>Key</span>
        <Radio.Group
          value={key}
          onChange={(e) => setKey(e.target.value as KeyState)}
          optionType="button"
          options={KEYS.map((k) => ({ value: k, label: keyText(k) }))}
        />
        <label htmlFor="own-unplugged">Unplugged</label>
        <Select
          id="own-unplugged"
          mode="multiple"
          placeholder="nothing"
          value={unplugged}
          onChange={(v: string[]) => setUnplugged(v)}
          options={connectors}
        />
        {fuses.length ? (
          <>
            <label htmlFor="own-pulled">Fuses</label>
            <span style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
              <Select
                id="own-pulled"
                mode="multiple"
                placeholder="none pulled"
                style={{ flex: "1 1 150px" }}
                value={pulled}
                onChange={(v: string[]) => setPulled(v)}
                options={fuses}
              />
              <Select
                aria-label="Breaker in place of"
                mode="multiple"
                placeholder="no breaker fitted"
                style={{ flex: "1 1 150px" }}
                value={breakers}
                onChange={(v: string[]) => setBreakers(v)}
                options={fuses}
              />
            </span>
          </>
        ) : null}
        <span>Jumper</span>
        <span style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
          <Select
            aria-label="Jumper from"
            allowClear
            showSearch={{ optionFilterProp: "label" }}
            placeholder="none"
            style={{ flex: "1 1 150px" }}
            value={jumper[0]}
            onChange={(v?: string) => setJumper([v, v === undefined ? undefined : jumper[1], jumper[2]])}
            options={all}
          />
          {jumper[0] === undefined ? null : (
            <>
              <Select
                aria-label="Jumper to"
                showSearch={{ optionFilterProp: "label" }}
                placeholder="to"
                style={{ flex: "1 1 150px" }}
                value={jumper[1]}
                onChange={(v: string) => setJumper([jumper[0], v, jumper[2]])}
                options={all}
              />
              <Select
                aria-label="Through"
                value={jumper[2]}
                style={{ width: 100 }}
                onChange={(v: number) => setJumper([jumper[0], jumper[1], v])}
                options={[
                  { value: 0.01, label: "a wire" },
                  { value: 1000, label: "1 kΩ" },
                ]}
              />
            </>
          )}
        </span>
      </div>
      {guarded ? (
        <p role="alert">
          A restraint or high-voltage circuit is never probed: the maker’s procedure, by qualified people only.
        </p>
      ) : null}
      {pushed === undefined ? null : (
        <p role="alert">
          <b>This jumper pushes a supply into {pushed} of a module.</b> Unplug the module first, or leave it. If it was
          done already, the reading can still be kept.
        </p>
      )}
      <Button type="primary" block disabled={point === undefined || guarded} onClick={choose} style={{ marginTop: 12 }}>
        Enter its value
      </Button>
    </>
  );
}
