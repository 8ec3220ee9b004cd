import type { Disturbance, Mark, RunName } from "../src/index.js";

/** Guided runs as people call them: what each is, when it is the right one, and what to mind before it begins. */
export const RUN_WORDS: Readonly<
  Record<
    RunName,
    { readonly title: string; readonly when: string; readonly where: string; readonly minds: readonly string[] }
  >
> = {
  unplugSeries: {
    title: "Unplug one at a time",
    when: "a shared voltage is pulled down, and any part on it could be the one",
    where: "Shared pin to watch",
    minds: ["Key off while unplugging."],
  },
  fuseRun: {
    title: "A fuse that blows",
    when: "a fuse blows and what hangs on it is not known to be good",
    where: "Fuse",
    minds: [
      "Never fit a larger fuse or bypass it.",
      "A breaker rated no higher than the fuse, reset by hand: one that resets itself keeps heating the short.",
      "Key off while unplugging.",
    ],
  },
  jumpers: {
    title: "Jumper low, jumper high",
    when: "a sensor reads wrong: is it the sensor, or its wiring and the module?",
    where: "Sensor",
    minds: [
      "Unplugged, and all pins measured first.",
      "High only towards a reference, and through 1 kΩ: a fuse protects no reference.",
      "Never push battery voltage into a module.",
    ],
  },
  groundProof: {
    title: "Ground proven three ways",
    when: "several circuits share a ground that may not carry their current",
    where: "Ground",
    minds: ["No lamp or load on a sensor ground."],
  },
  dropBySection: {
    title: "Drop by section",
    when: "voltage is lost on the way, under the circuit's own current",
    where: "From this pin",
    minds: [],
  },
  halveRun: {
    title: "Halve the run",
    when: "voltage is lost somewhere along many connectors",
    where: "From this pin",
    minds: [],
  },
  loadWire: {
    title: "Load a wire",
    when: "a wire passes a beeper but may have few strands left",
    where: "From this pin",
    minds: [
      "Feed only a wire isolated at both ends: battery voltage must reach no module.",
      "A small lamp, and a fused lead.",
    ],
  },
  compareTwin: {
    title: "Good side beside bad side",
    when: "the machine has the same part twice, and one of them works",
    where: "Part",
    minds: [],
  },
  benchTest: {
    title: "Part by itself",
    when: "its wiring is proven, and the part can be measured alone",
    where: "Part",
    minds: ["Key off before it comes out."],
  },
  farEnd: {
    title: "Both ends of a signal",
    when: "the sensor end is right and the module says otherwise",
    where: "Sensor pin",
    minds: [],
  },
  opposite: {
    title: "Make the opposite fault",
    when: "it must be shown that the monitor is awake",
    where: "Sensor",
    minds: ["Through 1 kΩ, with the sensor unplugged.", "Clear the codes we set ourselves afterwards."],
  },
  newPart: {
    title: "New part before it goes in",
    when: "a new part is at hand: it can be wrong out of the box",
    where: "Part",
    minds: [],
  },
  wiggle: {
    title: "Move one place at a time",
    when: "it comes and goes",
    where: "Value to watch",
    minds: ["Hands and leads away from what turns."],
  },
  whichIsWhich: {
    title: "Which cavity is which",
    when: "no drawing says which cavity carries what",
    where: "Connector",
    minds: ["Front-probe gently: don’t spread the terminals."],
  },
  swapTwins: {
    title: "Swap two like parts",
    when: "twins are within easy reach, and the maker allows it",
    where: "The two",
    minds: ["Never on restraint systems without the maker's procedure."],
  },
  steelTest: {
    title: "Steel at the tip",
    when: "a Hall sensor gives no activity: is it the sensor, or the target and the gap?",
    where: "Hall sensor",
    minds: ["Engine off: it must not turn while hands are at the target.", "Any plain steel will do, not a magnet."],
  },
  hallBench: {
    title: "Hall sensor on the bench",
    when: "it must be shown that the sensor itself switches, without harness and module",
    where: "Hall sensor",
    minds: [
      "Key off before it comes out.",
      "A fused lead from battery plus, and the maker's supply voltage: some sensors take 5 V only.",
      "Battery plus reaches the signal pin through the resistor, never directly.",
    ],
  },
};

/** How one step of a run came out. */
export const MARK_WORDS: Readonly<Record<Mark, string>> = {
  full: "back in full",
  part: "part of it came back",
  none: "no change",
  good: "good",
  bad: "not good",
};

/** What was left other than it was found, and what puts it right. */
export const DISTURBED_WORDS: Readonly<
  Record<Disturbance, { readonly done: string; readonly still: string; readonly undone: string }>
> = {
  unplugged: { done: "Unplugged", still: "unplugged", undone: "Plugged back in and locked" },
  pulled: { done: "Pulled fuse", still: "fuse pulled", undone: "Fuse back in" },
  breaker: { done: "Breaker in place of", still: "breaker in its place", undone: "The right fuse back in" },
  jumpered: { done: "Jumpered", still: "jumpered", undone: "Jumper off" },
  loaded: { done: "Lamp on", still: "lamp on", undone: "Lamp off" },
  pierced: { done: "Pierced", still: "pierced, not sealed", undone: "Pierced wire sealed" },
  removed: { done: "Removed", still: "taken out", undone: "Fitted again" },
  opened: { done: "Opened", still: "open", undone: "Closed again" },
};
