import type { State } from "../format/case.js";
import type { Doing } from "../format/trace.js";
import type { Rig } from "../instruments/rig.js";
import { DEFAULTS } from "../defaults.js";
import { isAt } from "../diagnosis/clues.js";
import { joinEdits, NO_EDIT, type Edit } from "../network/element.js";
import { elementAmpere, nodeVolt } from "../network/observe.js";
import { isTurning } from "../network/state.js";
import { innerGround } from "../network/compileModule.js";
import { uniform } from "../prediction/draws.js";
import { evenChannel, MOST_CHANNELS, MOST_SAMPLES, type Recording } from "../traces/recording.js";
import { findNets } from "../wiring/nets.js";
import { CHASSIS, devicePins, pinBehind } from "../wiring/points.js";
import type { SimulatedMachine } from "./machine.js";

/** Where one channel is put. */
export interface RecordedPlace {
  /** a point; the wire for a clamp; the module's cavity for the scan tool */
  readonly on: string;
  readonly by: "scope" | "clamp" | "scanTool";
  readonly black?: string;
}
export interface SimulatedRecordingOptions {
  readonly places: readonly RecordedPlace[];
  readonly state: State;
  readonly doing: Doing;
  readonly seconds: number;
  readonly perSecond: number;
  readonly seed: number;
  /** share of the time that a fault which comes and goes is there; lasting when left out */
  readonly presence?: number;
  /** teeth of the target that are broken off, counted in one turn */
  readonly lostTeeth?: readonly number[];
  /** places moved, when, seconds: a fault that comes and goes shows itself only while its own place is moved */
  readonly moved?: readonly { readonly thing: string; readonly from: number; readonly to: number }[];
}

/** A target that the wiring does not tell. Common practice, no source. */
const TARGET = { teeth: 36, gap: 0 };
/** The tooth that is gone where the hidden fault is a damaged target. */
const BROKEN = [7];
/** Turns a second while cranking and while idling. Common practice, no source. */
const CRANKING_TURNS = 4;
const IDLING_TURNS = 13;
/** A starter slows down at every compression by so much, twice a turn. Judgement. */
const COMPRESSION = 0.12;
/** By how much of its cranking voltage a battery sags at every compression. Judgement: 10.4 V runs from 9.9 to 10.9. */
const SAG = 0.05;
/** Periods a second of pulsed drivers. Common practice: 100 to 300 Hz. */
const PULSES = 100;
/** Noise of the scope, volt; of a clamp, ampere. Judgement. */
const NOISE = { scope: 0.008, scanTool: 0.003, clamp: 0.02 } as const;
/** How long a loose contact stays open at a time on average, seconds. Judgement. */
const OPEN_FOR = 0.012;
/** Stimuli at which a sweep is solved; straight lines in between. */
const SWEPT = 24;
const SWEEP_KINDS: ReadonlySet<string> = new Set(["potentiometer"]);

/**
 * What a scope, clamps and a logging scan tool record on a simulated machine: levels from the solved circuit in every
 * state that devices pass through (steel at the speed sensors or not, pulsed drivers on or off, the pedal at each
 * place of a sweep, a loose contact open or closed), with noise of the instrument. Repeatable from the seed.
 *
 * @throws RangeError for a place the machine does not have, or more samples than a recording holds
 */
export function simulateRecording(machine: SimulatedMachine, options: SimulatedRecordingOptions): Recording {
  const { places, state, seconds, perSecond, seed, doing } = options;
  const n = Math.max(1, Math.round(seconds * perSecond));
  if (places.length === 0 || places.length > MOST_CHANNELS || n * places.length > MOST_SAMPLES)
    throw new RangeError(`a recording holds 1 to ${MOST_CHANNELS} channels and at most ${MOST_SAMPLES} samples`);
  const random = uniform(seed);
  const gauss = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const swept = machine.rig.wiring.devices.filter((d) => SWEEP_KINDS.has(d.kind)).map((d) => d.id);
  const turning = doing === "crank" || doing === "run" || isTurning(state.key);
  // what is left of a broken target passes the sensor as before
  const isTarget = machine.faults.length > 0 && machine.faults.every((f) => f.fault.mode === "targetDamaged");
  const levels = new Levels(
    machine,
    isTarget ? machine.calm : machine.rig,
    places,
    state,
    doing === "sweep" ? swept : [],
  );
  const isThere = comesAndGoes(options, n, random, machine.faults);
  const turns = turning ? turnsOf(n, perSecond, state.key === "running" ? IDLING_TURNS : CRANKING_TURNS) : undefined;
  const steel = turns && steelPasses(turns, targetOf(machine, places), options.lostTeeth ?? (isTarget ? BROKEN : []));
  const sags = state.key === "cranking";
  const values = places.map(() => new Float32Array(n));
  for (let i = 0; i < n; i++) {
    const t = i / perSecond;
    const sweep = doing === "sweep" ? 0.5 * (1 - Math.cos((2 * Math.PI * i) / n)) : undefined;
    const situation = { isThere: isThere?.[i] !== 0, steel: steel && steel[i] === 1, phase: (t * PULSES) % 1 };
    const own =
      sags && turns
        ? levels.between(
            { ...situation, sag: -1 },
            { ...situation, sag: 1 },
            0.5 + 0.5 * Math.cos(4 * Math.PI * turns[i]!),
          )
        : levels.at(situation, sweep);
    for (let c = 0; c < places.length; c++) values[c]![i] = own[c]! + NOISE[places[c]!.by] * gauss();
  }
  return {
    channels: places.map((p, c) => evenChannel(p.on, p.by === "clamp" ? "A" : "V", 0, 1 / perSecond, values[c]!)),
  };
}

/** What the machine passes through while it is recorded. */
interface Situation {
  readonly isThere: boolean;
  readonly steel: boolean | undefined;
  /** of pulsed drivers, 0 to 1 */
  readonly phase: number;
  /** stimulus of what is swept */
  readonly sweep?: number;
  /** 1 where the battery is lowest at a compression, −1 where it is highest */
  readonly sag?: -1 | 1;
}
/** Levels at all places in every situation that comes up, solved once each. */
class Levels {
  private readonly known = new Map<string, Float64Array>();
  constructor(
    private readonly machine: SimulatedMachine,
    private readonly faulty: Rig,
    private readonly places: readonly RecordedPlace[],
    private readonly state: State,
    private readonly swept: readonly string[],
  ) {}

  at(situation: Situation, sweep: number | undefined): Float64Array {
    if (sweep === undefined) return this.solved(situation);
    const place = sweep * SWEPT;
    const below = Math.floor(place);
    const next = Math.min(1, (below + 1) / SWEPT);
    return this.between({ ...situation, sweep: below / SWEPT }, { ...situation, sweep: next }, place - below);
  }
  /** In a straight line from one to the other. @param part 0 the first, 1 the second */
  between(first: Situation, second: Situation, part: number): Float64Array {
    const from = this.solved(first);
    if (part === 0) return from;
    const to = this.solved(second);
    return from.map((v, c) => v + part * (to[c]! - v));
  }

  private solved({ isThere, steel, phase, sweep, sag }: Situation): Float64Array {
    const rig = isThere ? this.faulty : this.machine.calm;
    const state: State =
      sweep === undefined
        ? this.state
        : {
            ...this.state,
            stimulus: { ...this.state.stimulus, ...Object.fromEntries(this.swept.map((id) => [id, sweep])) },
          };
    const parts = rig.phases(state);
    const part = [...parts].reverse().find((p) => p.phase <= phase) ?? parts[0]!;
    const name = `${isThere} ${steel} ${part.phase} ${sweep} ${sag}`;
    let own = this.known.get(name);
    if (!own) {
      const look = { phase: part.phase, ...(steel === undefined ? {} : { steel }) };
      const extra = sag === undefined ? NO_EDIT : sagging(rig, state, 1 - sag * SAG);
      this.known.set(name, (own = Float64Array.from(this.places, (p) => levelAt(rig, state, look, p, extra))));
    }
    return own;
  }
}
/** Batteries at a part of their voltage. */
function sagging(rig: Rig, state: State, factor: number): Edit {
  const { elements } = rig.circuit(state);
  return {
    replace: elements.flatMap((e, element) =>
      e.id.startsWith("battery ") ? [{ element, by: { volt: e.volt * factor } }] : [],
    ),
  };
}

function levelAt(
  rig: Rig,
  state: State,
  look: { phase: number; steel?: boolean },
  { on, by, black }: RecordedPlace,
  extra: Edit,
): number {
  const number = (v: number) => (Number.isFinite(v) ? v : 0);
  const node = (point: string) => {
    const found = rig.node(point, state);
    if (found === undefined) throw new RangeError(`no point "${point}" on this machine`);
    return found;
  };
  if (by === "clamp") {
    const element = rig.circuit(state).elementOf.get(`wire ${on}`);
    if (element === undefined) throw new RangeError(`no wire "${on}" on this machine`);
    return number(elementAmpere(rig.settled(state, look, extra), element));
  }
  if (by === "scanTool") {
    const module = rig.wiring.devices.find((d) => d.kind === "module" && d.pins.some((p) => p.at === on));
    if (module?.kind !== "module") throw new RangeError(`no module has a pin at "${on}"`);
    const pin = module.pins.find((p) => p.at === on)!;
    const s = rig.settled(state, look, extra);
    return number(nodeVolt(s, node(pinBehind(on))) - nodeVolt(s, node(innerGround(module.id, pin.domain))));
  }
  const a = node(on);
  const b = node(black ?? CHASSIS);
  const meter: Edit = a === b ? NO_EDIT : { shunts: [{ a, b, ohm: DEFAULTS.meter.ohm }] };
  const s = rig.settled(state, look, extra === NO_EDIT ? meter : joinEdits(extra, meter));
  return number(nodeVolt(s, a) - nodeVolt(s, b));
}

/** 1 while a loose contact is open, sample by sample; undefined for a lasting fault. */
function comesAndGoes(
  { presence, moved, perSecond }: SimulatedRecordingOptions,
  n: number,
  random: () => number,
  faults: SimulatedMachine["faults"],
): Uint8Array | undefined {
  if (presence === undefined || presence >= 1) return undefined;
  const out = new Uint8Array(n);
  const closedFor = (OPEN_FOR * (1 - presence)) / presence;
  const wait = (mean: number) => -Math.log(1 - random()) * mean * perSecond;
  for (let i = wait(closedFor); i < n;) {
    const end = Math.min(n, i + wait(OPEN_FOR));
    for (let k = Math.ceil(i); k < end; k++) out[k] = 1;
    i = end + wait(closedFor);
  }
  if (!moved) return out;
  const own = moved.filter(({ thing }) => faults.some((f) => isAt(f.fault, thing)));
  return out.map((there, i) => (own.some((m) => i >= m.from * perSecond && i <= m.to * perSecond) ? there : 0));
}

/** How many turns have been made, sample by sample. */
function turnsOf(n: number, perSecond: number, perTurn: number): Float64Array {
  const out = new Float64Array(n);
  for (let i = 1, angle = 0; i < n; i++) {
    angle += (perTurn * (1 - COMPRESSION * Math.cos(4 * Math.PI * angle))) / perSecond;
    out[i] = angle;
  }
  return out;
}

/** The target of the speed sensor that is recorded first. */
function targetOf(machine: SimulatedMachine, places: readonly RecordedPlace[]): typeof TARGET {
  const { wiring } = machine.rig;
  const nets = findNets(wiring);
  const sensors = wiring.devices.flatMap((d) =>
    d.kind === "hall" || d.kind === "coilSensor" ? [{ target: d.target, pins: devicePins(d) }] : [],
  );
  for (const { on } of places) {
    const net = nets.netOf.get(on);
    const own = sensors.find(({ pins }) => pins.some((p) => net !== undefined && nets.netOf.get(p.at) === net));
    if (own?.target) return own.target;
  }
  return TARGET;
}

/** 1 while steel stands at the tip of a speed sensor. */
function steelPasses(turns: Float64Array, { teeth, gap }: typeof TARGET, lost: readonly number[]): Uint8Array {
  const places = teeth + gap;
  const gone = new Set([
    ...Array.from({ length: gap }, (_, k) => teeth + k),
    ...lost.map((k) => ((k % teeth) + teeth) % teeth),
  ]);
  return Uint8Array.from(turns, (turn) => {
    const tooth = (turn * places) % places;
    return tooth % 1 < 0.5 && !gone.has(Math.floor(tooth)) ? 1 : 0;
  });
}
