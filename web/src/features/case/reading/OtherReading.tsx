"use client";
import { devicePins, meterPoints, type Candidate, type Instrument, type KeyState, type ReadingEntry, type Wiring } from "@radicula/core";
import { keyText, type Instructor, type Namer } from "@radicula/core/words";
import { Button, Radio, Select } from "antd";
import { useMemo, useState } from "react";
import { Sheet } from "../Sheet";
import styles from "../Case.module.css";

/** Instead of the first choice: another candidate on offer, or a reading of one's own. */
export type Other = { readonly offered: string; readonly reading?: undefined } | { readonly reading: Pick<ReadingEntry, "instrument" | "points" | "state">; readonly offered?: undefined };

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly offered: readonly Candidate[];
  readonly onChoose: (other: Other) => void;
  readonly onClose: () => void;
}
const KEYS: readonly KeyState[] = ["on", "off", "cranking", "running"];

/** Any reading, however it was taken: one of the others on offer, or a point, an instrument and a state of one's own. */
export function OtherReading({ open, wiring, namer, instructor, offered, onChoose, onClose }: Props) {
  const [point, setPoint] = useState<string | undefined>(undefined);
  const [instrument, setInstrument] = useState<Instrument>("voltmeter");
  const [key, setKey] = useState<KeyState>("on");
  const [unplugged, setUnplugged] = useState<string[]>([]);
  const points = useMemo(() => meterPoints(wiring).map((p) => ({ value: p, label: `${namer.point(p)} · ${instructor.functionOf(p)}${instructor.colourOf(p) ? ` · ${instructor.colourOf(p)}` : ""}` })), [wiring, namer, instructor]);
  const connectors = useMemo(() => wiring.connectors.filter((c) => !wiring.devices.some((d) => d.kind === "module" && devicePins(d).some((p) => p.at.startsWith(`${c.id}:`)))).map((c) => ({ value: c.id, label: namer.connector(c.id) })), [wiring, namer]);
  const choose = () => {
    if (point === undefined) return;
    onChoose({ reading: { instrument, points: [point], state: { key, unplugged: [...unplugged].sort() } } });
  };
  return (
    <Sheet open={open} onClose={onClose} title="Another reading" width={620}>
      {offered.length ? (
        <>
          <p className={styles.formHead}>Also worth taking now</p>
          <ul className={styles.offers}>{offered.map((c) => <li key={c.id}><button type="button" onClick={() => onChoose({ offered: c.id })}><span>{instructor.instruct(c).title}</span><span className="muted">{Math.max(1, Math.round(c.minutes))} min</span></button></li>)}</ul>
        </>
      ) : null}
      <p className={styles.formHead}>Or one of your own</p>
      <div className={styles.form}>
        <label htmlFor="own-point">Red lead</label>
        <Select id="own-point" showSearch={{ optionFilterProp: "label" }} placeholder="Connector and cavity" value={point} onChange={(v: string) => setPoint(v)} options={points} />
        <span>Meter</span>
        <Radio.Group value={instrument} onChange={(e) => { const v = e.target.value as Instrument; setInstrument(v); if (v === "ohmmeter") setKey("off"); }} optionType="button" options={[{ value: "voltmeter", label: "DC volts" }, { value: "ohmmeter", label: "Ohms" }]} />
        <span>Key</span>
        <Radio.Group value={key} onChange={(e) => setKey(e.target.value as KeyState)} optionType="button" options={KEYS.map((k) => ({ value: k, label: keyText(k) }))} />
        <label htmlFor="own-unplugged">Unplugged</label>
        <Select id="own-unplugged" mode="multiple" placeholder="nothing" value={unplugged} onChange={(v: string[]) => setUnplugged(v)} options={connectors} />
      </div>
      <p className="muted">The black lead stands on battery negative.</p>
      <Button type="primary" block disabled={point === undefined} onClick={choose} style={{ marginTop: 12 }}>Enter its value</Button>
    </Sheet>
  );
}
