import type { State } from "../format/case.js";
import type { Doing } from "../format/trace.js";
import type { Rig } from "../instruments/rig.js";
import { DEFAULTS } from "../defaults.js";
import { elementAmpere, nodeVolt } from "../network/observe.js";
import { innerGround } from "../network/compileModule.js";
import { uniform } from "../prediction/draws.js";
import { evenChannel, MOST_CHANNELS, MOST_SAMPLES, type Recording } from "../traces/recording.js";
import { CHASSIS, pinBehind } from "../wiring/points.js";
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
}

/** Teeth of a target in one turn, and turns a second while cranking and while idling. Common practice, no source. */
const TEETH = 36;
const CRANKING_TURNS = 4;
const IDLING_TURNS = 13;
/** A starter slows down at every compression by so much, twice a turn. Judgement. */
const COMPRESSION = 0.12;
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
  const turning = doing === "crank" || doing === "run" || state.key === "cranking" || state.key === "running";
  const levels = new Levels(machine, places, state, doing === "sweep" ? swept : []);
  const isThere = comesAndGoes(options.presence, n, perSecond, random);
  const steel = turning
    ? steelPasses(n, perSecond, state.key === "running" ? IDLING_TURNS : CRANKING_TURNS, options.lostTeeth)
    : undefined;
  const values = places.map(() => new Float32Array(n));
  for (let i = 0; i < n; i++) {
    const t = i / perSecond;
    const sweep = doing === "sweep" ? 0.5 * (1 - Math.cos((2 * Math.PI * i) / n)) : undefined;
    const own = levels.at(isThere?.[i] !== 0, steel && steel[i] === 1, (t * PULSES) % 1, sweep);
    for (let c = 0; c < places.length; c++) values[c]![i] = own[c]! + NOISE[places[c]!.by] * gauss();
  }
  return {
    channels: places.map((p, c) => evenChannel(p.on, p.by === "clamp" ? "A" : "V", 0, 1 / perSecond, values[c]!)),
  };
}

/** Levels at all places in every situation that comes up, solved once each. */
class Levels {
  private readonly known = new Map<string, Float64Array>();
  constructor(
    private readonly machine: SimulatedMachine,
    private readonly places: readonly RecordedPlace[],
    private readonly state: State,
    private readonly swept: readonly string[],
  ) {}

  at(isThere: boolean, steel: boolean | undefined, phase: number, sweep: number | undefined): Float64Array {
    const rig = isThere ? this.machine.rig : this.machine.calm;
    const place = sweep === undefined ? 0 : sweep * SWEPT;
    const below = Math.floor(place);
    const first = this.solved(rig, isThere, steel, phase, sweep === undefined ? undefined : below / SWEPT);
    if (sweep === undefined || place === below) return first;
    const next = this.solved(rig, isThere, steel, phase, Math.min(1, (below + 1) / SWEPT));
    return first.map((v, c) => v + (place - below) * (next[c]! - v));
  }

  private solved(rig: Rig, isThere: boolean, steel: boolean | undefined, phase: number, sweep: number | undefined) {
    const state: State =
      sweep === undefined
        ? this.state
        : {
            ...this.state,
            stimulus: { ...this.state.stimulus, ...Object.fromEntries(this.swept.map((id) => [id, sweep])) },
          };
    const parts = rig.phases(state);
    const part = [...parts].reverse().find((p) => p.phase <= phase) ?? parts[0]!;
    const name = `${isThere} ${steel} ${part.phase} ${sweep}`;
    let own = this.known.get(name);
    if (!own) {
      const look = { phase: part.phase, ...(steel === undefined ? {} : { steel }) };
      this.known.set(name, (own = Float64Array.from(this.places, (p) => levelAt(rig, state, look, p))));
    }
    return own;
  }
}

function levelAt(
  rig: Rig,
  state: State,
  look: { phase: number; steel?: boolean },
  { on, by, black }: RecordedPlace,
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
    return number(elementAmpere(rig.settled(state, look), element));
  }
  if (by === "scanTool") {
    const module = rig.wiring.devices.find((d) => d.kind === "module" && d.pins.some((p) => p.at === on));
    if (module?.kind !== "module") throw new RangeError(`no module has a pin at "${on}"`);
    const pin = module.pins.find((p) => p.at === on)!;
    const s = rig.settled(state, look);
    return number(nodeVolt(s, node(pinBehind(on))) - nodeVolt(s, node(innerGround(module.id, pin.domain))));
  }
  const a = node(on);
  const b = node(black ?? CHASSIS);
  const s = rig.settled(state, look, a === b ? {} : { shunts: [{ a, b, ohm: DEFAULTS.meter.ohm }] });
  return number(nodeVolt(s, a) - nodeVolt(s, b));
}

/** 1 while a loose contact is open, sample by sample; undefined for a lasting fault. */
function comesAndGoes(presence: number | undefined, n: number, perSecond: number, random: () => number) {
  if (presence === undefined || presence >= 1) return undefined;
  const out = new Uint8Array(n);
  const closedFor = (OPEN_FOR * (1 - presence)) / presence;
  const wait = (mean: number) => -Math.log(1 - random()) * mean * perSecond;
  for (let i = wait(closedFor); i < n;) {
    const end = Math.min(n, i + wait(OPEN_FOR));
    for (let k = Math.ceil(i); k < end; k++) out[k] = 1;
    i = end + wait(closedFor);
  }
  return out;
}

/** 1 while steel stands at the tip of a speed sensor. */
function steelPasses(n: number, perSecond: number, turns: number, lost: readonly number[] = []): Uint8Array {
  const out = new Uint8Array(n);
  const gone = new Set(lost.map((k) => ((k % TEETH) + TEETH) % TEETH));
  let angle = 0;
  for (let i = 0; i < n; i++) {
    const speed = turns * (1 - COMPRESSION * Math.cos(4 * Math.PI * angle));
    angle += speed / perSecond;
    const tooth = (angle * TEETH) % TEETH;
    out[i] = tooth % 1 < 0.5 && !gone.has(Math.floor(tooth)) ? 1 : 0;
  }
  return out;
}
