import {
  assess,
  CHASSIS,
  choose,
  narrowFurther,
  makePlan,
  pinBehind,
  recordAnswer,
  recordReading,
  type Candidate,
  type Entry,
  type Finding,
  type Predictor,
} from "../../src/index.js";
import { uniform } from "../../src/prediction/draws.js";
import { onLoosePart } from "../../src/network/state.js";
import { placeKey } from "../../src/diagnosis/groups.js";
import type { Hidden, HiddenMachine } from "./hiddenMachine.js";

/** How a job on a hidden machine ended. A verdict counts as right only for the one repair it names. */
export interface JobResult {
  readonly machine: string;
  readonly mode: string;
  readonly repair: string;
  readonly ending: "isolated" | "wrong" | "gaveUp" | "noCode" | "unsolved";
  /** the repair named first, how surely, and how many places the suspect holds */
  readonly named: string;
  readonly share: number;
  readonly places: number;
  /** the place was the one named first; or among those the suspect holds */
  readonly namedRight: boolean;
  readonly inGroup: boolean;
  readonly tests: number;
  readonly minutes: number;
  readonly steps: readonly string[];
}

const AT = "2026-01-01T08:00:00Z";
const MOST_TESTS = 30;
/** A verdict is given from this share on, where nothing on offer tells the rest apart. */
const DECLARES = 0.85;

/**
 * Plays one job: each test is the program's own first choice, each answer comes from the simulator.
 * @param watch sees the logbook before every step
 */
export function playJob(
  predictor: Predictor,
  machine: HiddenMachine,
  seed: number,
  watch: (entries: readonly Entry[]) => void = () => undefined,
): JobResult {
  const codes = machine.codes();
  const hidden = machine.hidden!;
  const base = { machine: machine.wiring.name, mode: hidden.mode, repair: hidden.repair };
  const empty = { named: "", share: 0, places: 0, namedRight: false, inGroup: false, tests: 0, minutes: 0, steps: [] };
  if (codes.length === 0) return { ...base, ...empty, ending: "noCode" };
  const random = uniform(seed * 101 + 9);
  const entries: Entry[] = [
    {
      type: "scan",
      at: AT,
      when: "afterDrive",
      modules: [...new Set(machine.wiring.codes.map((c) => c.module))],
      codes: codes.map((c) => ({ ...c, status: "active" as const })),
      disturbed: [],
      wiped: false,
    },
  ];
  const steps: string[] = [`codes ${codes.map((c) => c.code).join(" ")}`];
  let minutes = 0;
  for (;;) {
    watch(entries);
    const belief = assess(predictor, entries);
    const plan = makePlan(predictor, belief);
    const leader = plan.sure ?? plan.grouped.suspects[0]!;
    const { folded } = belief.gathered;
    const chosen =
      steps.length > MOST_TESTS
        ? undefined
        : plan.stage === "proven"
          ? narrowFurther(predictor, plan, folded)
          : choose(predictor, plan, folded, "information");
    if (!chosen) {
      const keys = leader.members.flatMap((m) => m.faults.map(placeKey));
      const named = keys[0] ?? leader.id;
      const isCause = leader.type === "fault" || leader.type === "several";
      const inGroup = keys.some((k) => isRepair(k, hidden));
      const right = leader.type === "fault" ? inGroup : inGroup && leader.places.length === 1;
      const ending = !isCause || leader.share < DECLARES ? "gaveUp" : right ? "isolated" : "wrong";
      const { share, places } = leader;
      const tests = steps.length - 1;
      return {
        ...base,
        ending,
        named,
        share,
        places: places.length,
        namedRight: isRepair(named, hidden),
        inGroup,
        tests,
        minutes,
        steps,
      };
    }
    const { candidate } = chosen;
    minutes += candidate.minutes;
    const entry = take(machine, candidate, random);
    steps.push(`${leader.id} ${leader.share.toFixed(2)} | ${candidate.id} -> ${shown(entry)}`);
    entries.push(entry);
  }
}
/** A splice's leg is mended at its wire, and the other way round. */
const isRepair = (key: string, { repair }: Hidden) =>
  key === repair || (key.startsWith("splice ") && repair === `wire ${key.split(" ")[2] ?? ""}`);

const shown = (e: Entry) =>
  e.type === "reading" ? e.values.join(" ") : e.type === "look" ? e.found.join(" ") : JSON.stringify(e).slice(0, 60);

function take(machine: HiddenMachine, c: Candidate, random: () => number): Entry {
  if (c.instrument === "none") {
    const yes = seen(machine.hidden!, c, random);
    const found: Finding[] = yes && c.kind === "look" ? [signOf(machine.hidden!)] : [];
    return recordAnswer(machine.wiring, c, yes, AT, found).at(-1)!;
  }
  const { instrument } = c;
  // a part that was taken off is measured at its own pins, not at the plug that it left
  const own = (p: string) => (c.part ? pinBehind(p) : p);
  const state = c.part ? onLoosePart(c.state) : c.state;
  const part = c.part === "new" ? machine.sound() : machine;
  const black = c.black === undefined || c.black === CHASSIS ? c.black : own(c.black);
  const values = c.points.map((p) => part.read(own(p), state, instrument, black));
  if (values.some(Number.isNaN)) return { type: "setAside", at: AT, candidate: c.id, reason: "other" };
  const words = values.map((v) =>
    instrument === "lamp"
      ? v > 0.75
        ? ("bright" as const)
        : v > 0.25
          ? ("dim" as const)
          : ("dark" as const)
      : instrument === "continuity"
        ? v > 0.5
          ? ("beep" as const)
          : ("silent" as const)
        : v,
  );
  return recordReading(c, words, AT).at(-1)!;
}

/**
 * What eyes and hands find, by how visible such a fault is (common practice, no source): rubbed and corroded things
 * are seen half of the time, what is inside a part never; some things look bad that are not.
 */
const FALSE_SIGN = 0.04;
const VISIBLE: readonly (readonly [RegExp, number])[] = [
  [/^fuse/, 0.9],
  [/^(wire to|wire open)/, 0.5],
  [/^(terminal|ground|wire resistive)/, 0.4],
];
function seen({ repair, mode }: Hidden, c: Candidate, random: () => number): boolean {
  const [, place] = repair.split(" ");
  const at = c.points.some((p) => p === place || place!.startsWith(`${p}:`));
  const [u] = [random()];
  if (c.kind === "look") return u < (at ? (VISIBLE.find(([m]) => m.test(mode))?.[1] ?? 0.1) : FALSE_SIGN);
  if (c.kind === "swap") return at && repair.startsWith("device ");
  return c.kind === "identity" ? false : u < 0.02; // nothing here comes and goes: moving a place shows nothing
}
function signOf({ mode }: Hidden): Finding {
  if (mode.startsWith("fuse")) return "burnt";
  if (mode.startsWith("wire")) return "rubbed";
  return mode === "terminal open" ? "pushedBack" : "green";
}
