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

/**
 * Any reading, however it was taken: one of the others on offer, or a point, an instrument and a state of one's own.
 */
export function OtherReading(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title="Another reading" width={660}>
      <OwnReading key={p.point ?? ""} {...p} />
    </Sheet>
  );
}
/** Instruments with two leads, or a lamp across two points. */
const TWO_LEADS: ReadonlySet<Instrument> = new Set<Instrument>([
  "voltmeter",
  "ohmmeter",
  "continuity",
  "lamp",
  "scope",
]);
/** A piece of wire, and what is put in series where a full-scale jumper could do harm, ohm. */
const WIRE_OHM = 0.01;
const SERIES_OHM = 1000;
/** A test lamp as most are, watt. */
const LAMP_WATT = 5;
/** Instruments whose points are not those a lead is put on. */
const isElsewhere = (i: Instrument) => i === "scanTool" || i === "clamp";

/** The reading as it is being described. */
function useOwnReading({ wiring, point: first, now }: Props) {
  const [point, setPoint] = useState<string | undefined>(first);
  const [black, setBlack] = useState<string>(CHASSIS);
  const [instrument, setInstrument] = useState<Instrument>("voltmeter");
  const [key, setKey] = useState<KeyState>(now?.key ?? "on");
  const [unplugged, setUnplugged] = useState<readonly string[]>(now?.unplugged ?? []);
  const [pulled, setPulled] = useState<readonly string[]>(now?.pulled ?? []);
  const [breakers, setBreakers] = useState<readonly string[]>(now?.breakers ?? []);
  const [jumper, setJumper] = useState<Jumper>({ from: undefined, to: undefined, ohm: WIRE_OHM });
  const [watt, setWatt] = useState(LAMP_WATT);
  const barred = useMemo(() => barredConnectors(wiring), [wiring]);
  const hasLeads = TWO_LEADS.has(instrument);
  const { from, to } = jumper;
  const touched = [instrument === "scanTool" ? undefined : point, hasLeads ? black : undefined, from, to];
  return {
    point,
    setPoint,
    black,
    setBlack,
    instrument,
    choose: (v: Instrument) => {
      setInstrument(v);
      if (v === "ohmmeter" || v === "continuity") setKey("off");
      if (isElsewhere(v) || isElsewhere(instrument)) setPoint(undefined);
    },
    key,
    setKey,
    unplugged,
    setUnplugged,
    pulled,
    setPulled,
    breakers,
    setBreakers,
    jumper,
    setJumper,
    watt,
    setWatt,
    barred,
    hasLeads,
    guarded: touched.some((x) => x !== undefined && barred.has(connectorOf(x))),
    pushed:
      from !== undefined && to !== undefined
        ? feedsModule(wiring, { from, to }, { unplugged: [...unplugged] })
        : undefined,
  };
}
type Draft = ReturnType<typeof useOwnReading>;
interface Jumper {
  readonly from: string | undefined;
  readonly to: string | undefined;
  readonly ohm: number;
}
interface Choice {
  readonly value: string;
  readonly label: string;
}
interface PartProps {
  readonly draft: Draft;
}

/** @returns the reading described; undefined while its point is missing */
function readingOf(d: Draft): Own | undefined {
  if (d.point === undefined) return undefined;
  const { from, to, ohm } = d.jumper;
  const black = d.black === CHASSIS ? undefined : d.black;
  const isLamp = d.instrument === "lamp";
  return {
    instrument: d.instrument,
    points: [d.point],
    ...(d.hasLeads && black !== undefined && !isLamp ? { black } : {}),
    state: {
      key: d.key,
      unplugged: [...d.unplugged].sort(),
      ...(d.pulled.length ? { pulled: [...d.pulled].sort() } : {}),
      ...(d.breakers.length ? { breakers: [...d.breakers].sort() } : {}),
      ...(from !== undefined && to !== undefined ? { jumpers: [{ from, to, ohm }] } : {}),
      ...(isLamp ? { loads: [{ from: d.point, to: black ?? "chassis", watt: d.watt }] } : {}),
    },
  };
}

function OwnReading(p: Props) {
  const { wiring, namer, instructor, offered, point: first, onChoose } = p;
  const draft = useOwnReading(p);
  const all = useMemo(
    () =>
      meterPoints(wiring).map((x): Choice => {
        const colour = instructor.colourOf(x);
        return { value: x, label: `${namer.point(x)} · ${instructor.functionOf(x)}${colour ? ` · ${colour}` : ""}` };
      }),
    [wiring, namer, instructor],
  );
  const enter = () => {
    const reading = readingOf(draft);
    if (reading && !draft.guarded) onChoose({ reading });
  };
  return (
    <>
      {offered.length && first === undefined ? (
        <AlsoOffered offered={offered} instructor={instructor} onChoose={(id) => onChoose({ offered: id })} />
      ) : null}
      <p className={styles.formHead}>{first === undefined ? "Or one of your own" : "One of your own"}</p>
      <div className={styles.form}>
        <WithWhat draft={draft} wiring={wiring} namer={namer} all={all} />
        <MachineState draft={draft} wiring={wiring} namer={namer} />
        <span>Jumper</span>
        <JumperEnds draft={draft} all={all} />
      </div>
      <Dangers draft={draft} />
      <Button
        type="primary"
        block
        disabled={draft.point === undefined || draft.guarded}
        onClick={enter}
        style={{ marginTop: 12 }}
      >
        Enter its value
      </Button>
    </>
  );
}

function AlsoOffered({
  offered,
  instructor,
  onChoose,
}: Pick<Props, "offered" | "instructor"> & { readonly onChoose: (id: string) => void }) {
  return (
    <>
      <p className={styles.formHead}>Also worth taking now</p>
      <ul className={styles.offers}>
        {offered.map((c) => (
          <li key={c.id}>
            <button type="button" onClick={() => onChoose(c.id)}>
              <span>{instructor.instruct(c).title}</span>
              <span className="muted">{Math.max(1, Math.round(c.minutes))} min</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Wires for a clamp, values of a module for the scan tool, else every point a lead can be put on. */
function usePoints(instrument: Instrument, wiring: Wiring, namer: Namer, all: readonly Choice[]): Choice[] {
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

function WithWhat({
  draft,
  wiring,
  namer,
  all,
}: PartProps & Pick<Props, "wiring" | "namer"> & { readonly all: readonly Choice[] }) {
  const { instrument, point, setPoint, black, setBlack, hasLeads, watt, setWatt } = draft;
  const points = usePoints(instrument, wiring, namer, all);
  return (
    <>
      <span>With</span>
      <Radio.Group
        value={instrument}
        onChange={(e) => draft.choose(e.target.value as Instrument)}
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

function MachineState({ draft, wiring, namer }: PartProps & Pick<Props, "wiring" | "namer">) {
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
        value={[...unplugged]}
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
              value={[...pulled]}
              onChange={(v: string[]) => setPulled(v)}
              options={fuses}
            />
            <Select
              aria-label="Breaker in place of"
              mode="multiple"
              placeholder="no breaker fitted"
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

function JumperEnds({ draft, all }: PartProps & { readonly all: Choice[] }) {
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

/** What must not be done, and what should not. */
function Dangers({ draft }: PartProps) {
  const { guarded, pushed } = draft;
  return (
    <>
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
    </>
  );
}
