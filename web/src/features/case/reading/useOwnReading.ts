import {
  barredConnectors,
  CHASSIS,
  connectorOf,
  feedsModule,
  type Candidate,
  type Instrument,
  type KeyState,
  type State,
  type Wiring,
} from "@radicula/core";
import type { Instructor, Namer } from "@radicula/core/words";
import { useMemo, useState } from "react";
import type { Own } from "./entries";

/** Instead of the first choice: another candidate on offer, or a reading of one's own. */
export type Other =
  { readonly offered: string; readonly reading?: undefined } | { readonly reading: Own; readonly offered?: undefined };

export interface OtherReadingProps {
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
/** Instruments with two leads, or a lamp across two points. */
const TWO_LEADS: ReadonlySet<Instrument> = new Set<Instrument>([
  "voltmeter",
  "ohmmeter",
  "continuity",
  "lamp",
  "scope",
  "scopeLow",
  "scopeHigh",
]);
/** A piece of wire, and what is put in series where a full-scale jumper could do harm, ohm. */
export const WIRE_OHM = 0.01;
export const SERIES_OHM = 1000;
/** A test lamp as most are, watt. */
export const LAMP_WATT = 5;
/** Instruments whose points are not those a lead is put on. */
const isElsewhere = (i: Instrument) => i === "scanTool" || i === "clamp";

/** The reading as it is being described. */
export function useOwnReading({ wiring, point: first, now }: OtherReadingProps) {
  const [point, setPoint] = useState<string | undefined>(first);
  const [black, setBlack] = useState<string>(CHASSIS);
  const [instrument, setInstrument] = useState<Instrument>("voltmeter");
  const [key, setKey] = useState<KeyState>(now?.key ?? "on");
  const [unplugged, setUnplugged] = useState<readonly string[]>(now?.unplugged ?? []);
  const [pulled, setPulled] = useState<readonly string[]>(now?.pulled ?? []);
  const [breakers, setBreakers] = useState<readonly string[]>(now?.breakers ?? []);
  const [jumper, setJumper] = useState<Jumper>({ from: undefined, to: undefined, ohm: WIRE_OHM });
  const [watt, setWatt] = useState(LAMP_WATT);
  const [stimulus, setStimulus] = useState<Stimulus | undefined>(undefined);
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
    stimulus,
    setStimulus,
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
/** The true condition set on purpose at one sensor, as it stands in a state. */
export interface Stimulus {
  readonly part: string;
  readonly value: number;
}
interface Jumper {
  readonly from: string | undefined;
  readonly to: string | undefined;
  readonly ohm: number;
}
export interface PointChoice {
  readonly value: string;
  readonly label: string;
}
export interface OwnReadingPartProps {
  readonly draft: Draft;
}

/** @returns the reading described; undefined while its point is missing */
export function readingOf(d: Draft): Own | undefined {
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
      ...(d.stimulus ? { stimulus: { [d.stimulus.part]: d.stimulus.value } } : {}),
      ...(isLamp ? { loads: [{ from: d.point, to: black ?? "chassis", watt: d.watt }] } : {}),
    },
  };
}
