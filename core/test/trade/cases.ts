import type { Entry, Predictor } from "../../src/index.js";
import { lamp, look, ohms, ownOhms, scan, scanned, scope, swapped, volts, wiggled } from "./machine.js";
import { bus, combined, drivers, sensors, singleWire, speed } from "./machines.js";

/** A job of the trade: what a good technician read, and the faults of which one must lead. */
export interface TradeCase {
  readonly mechanism: string;
  readonly machine: Predictor;
  readonly entries: readonly Entry[];
  readonly faults: readonly string[];
  /** least share of the belief that these faults hold together */
  readonly least: number;
}
const one = (
  mechanism: string,
  machine: Predictor,
  entries: readonly Entry[],
  faults: readonly string[],
  least = 0.85,
): TradeCase => ({ mechanism, machine, entries, faults, least });

const all = (...plugs: string[]) => ({ unplugged: plugs });
const running = { key: "running" as const };

/** Readings and verdicts: common practice, no source. */
export const tradeCases: readonly TradeCase[] = [
  one(
    "a shared sensor ground is open: every output on it floats up and HIGH codes set",
    sensors,
    [
      scan("A1", ["P0108", "P0193", "P0118", "P0123"]),
      volts("B1:2", 4.6),
      volts("S2", 4.6),
      volts("A1:4", 0.02),
      volts("B1:1", 5.01),
    ],
    ["WS/*", "S2~WS/*"],
  ),
  one(
    "a sensor's supply is open: its output is low on a pulled-down input",
    sensors,
    [scan("A1", ["P0107"]), volts("B1:1", 0.02), volts("S1", 5.0), volts("B1:2", 0.01), volts("A1:5", 0.0)],
    ["W11/open", "S1~W11/legOpen"],
  ),
  one(
    "a sensor's supply is open: its pulled-up line feeds it backwards",
    sensors,
    [
      scan("A1", ["P0191"]),
      volts("B2:1", 0.4),
      volts("S1", 5.0),
      volts("B2:3", 0.95),
      volts("B2:2", 0.01),
      volts("B2:3", 4.98, all("B2")),
      volts("B2:1", 0.0, all("B2")),
    ],
    ["W21/*", "S1~W21/*"],
  ),
  one(
    "one sensor loads the reference: unplugged, the others are well",
    sensors,
    [scan("A1", ["P0107", "P0122"]), volts("B4:1", 1.1), volts("B4:1", 5.0, all("B2")), volts("B2:1", 5.0, all("B2"))],
    ["B2/shortSupplyGround"],
  ),
  one(
    "range or performance: a value off the barometer it should follow, with all three pins good",
    sensors,
    [
      scan("A1", ["P0106"]),
      scanned("A1:5", 228, "kPa"),
      scanned("A1:9", 99, "kPa"),
      volts("B1:1", 5.0),
      volts("B1:2", 0.01),
      volts("B1:3", 3.47),
      volts("A1:5", 3.47),
      volts("B1:3", 0.0, all("B1")),
    ],
    ["B1/*", "B1:2/*"],
  ),
  one(
    "a thermistor shows −40 °C: its line is open between plug and module",
    sensors,
    [scan("A1", ["P0118"]), scanned("A1:7", -40, "°C"), volts("B3:1", 0.0), volts("A1:7", 4.99), volts("B3:2", 0.01)],
    ["W31/open"],
  ),
  one(
    "a thermistor at its end stop by words, jumped and still open: the ground side",
    sensors,
    [scan("A1", ["P0118"]), scanned("A1:7", "highEnd"), volts("B3:1", 4.98), volts("B3:2", 4.9), volts("S2", 0.01)],
    ["W32/*", "S2~W32/*"],
  ),
  one(
    "two wires of a loom rubbed through onto each other: ohms between them, both ends off",
    sensors,
    [
      scan("A1", ["P0108"]),
      volts("A1:5", 4.98),
      volts("B1:3", 4.98, all("B1")),
      ohms("B1:1", "B1:3", 0.6, ["A1", "B1", "B2", "B4", "B5"]),
    ],
    // onto the reference wire of the loom, or onto the one beside it in the module's plug
    ["W11+W13/shortToWire", "W13+W21/shortToWire", "WR+W13/shortToWire"],
  ),
  one(
    "fluid bridges two cavities: ohms between two floating lines are that bridge",
    sensors,
    [
      scan("A1", ["P0117"]),
      volts("A1:7", 0.13),
      volts("B3:1", 0.14, all("B3")),
      ohms("B3:1", "B3:2", 61, ["A1", "B1", "B2", "B3", "B4", "B5"]),
      look("B3", "wet"),
    ],
    ["B3:1+2/cavitiesBridged"],
  ),
  one(
    "a wire isolated at both ends and fed at one: a dark lamp at the other condemns it",
    sensors,
    [
      scan("A1", ["P0107"]),
      lamp("B1:3", "dark", {
        unplugged: ["A1", "B1"],
        more: { jumpers: [{ from: "F1:out", to: "A1:5", ohm: 0.01 }] },
      }),
    ],
    ["W13/*"],
  ),
  one(
    "a scan value flickers from good to nothing: what comes and goes is on that line, and moving it shows where",
    sensors,
    [
      scan("A1", ["P0107"]),
      {
        type: "reading",
        at: "2026-11-24T09:00:00Z",
        instrument: "scanTool",
        points: ["A1:5"],
        values: [0.6],
        swing: [0, 1.2],
        state: { key: "on", unplugged: [] },
      },
      volts("B1:1", 5.0),
      volts("B1:2", 0.01),
      volts("B1:3", 1.2),
      wiggled("W13", true),
    ],
    ["W13*", "B1:3/contactOpen", "B1:1/contactOpen", "A1:5/contactOpen"],
  ),
  one(
    "twins exchanged: what was wrong went with the part",
    sensors,
    [
      scan("A1", ["P0108"]),
      volts("B1:1", 5.0),
      volts("B1:2", 0.01),
      volts("B1:3", 4.95),
      volts("B1:3", 0.0, all("B1")),
      swapped("B1", "B5", "moved"),
    ],
    ["B1/*"],
  ),
  one(
    "a part renewed in vain by a copy is not cleared: the copy reads wrong",
    sensors,
    [
      {
        type: "intake",
        at: "2026-11-24T09:00:00Z",
        intake: {
          symptoms: [],
          conditions: [],
          bulletins: [],
          safety: [],
          history: [{ what: "replaced", at: ["B1"], helped: "no", brand: "copy" }],
        },
      },
      scan("A1", ["P0106"]),
      volts("B1:1", 5.0),
      volts("B1:2", 0.01),
      volts("B1:3", 3.6),
      volts("B1:3", 0.0, all("B1")),
      scanned("A1:5", 3.6),
      scanned("A1:9", 1.1),
    ],
    ["B1/*", "B1:2/*"],
  ),
  one(
    "a bus node without power lets go of the lines: they idle, and its fuse has blown",
    bus,
    [
      scan("A1", ["U029D"]),
      volts("B30:3", 2.6),
      volts("B30:4", 2.4),
      volts("B30:1", 0.0),
      volts("F3:in", 12.4),
      volts("F3:out", 0.0),
    ],
    ["F3/*"],
    0.75,
  ),
  one(
    "a bus node is silent with power, ground and both lines at its plug: the node",
    bus,
    [
      scan("A1", ["U029D"]),
      volts("B30:1", 12.3),
      volts("B30:2", 0.01),
      volts("B30:3", 2.6),
      volts("B30:4", 2.4),
      ohms("B30:3", "B30:4", 60, ["B30"]),
    ],
    ["B30*"],
  ),
  one(
    "one bus line is on chassis: nobody talks",
    bus,
    [
      scan("A1", ["U029D", "U0155"]),
      volts("A1:3", 0.0),
      volts("A1:4", 0.1),
      ohms("B30:3", "G1", 0.3, ["A1", "A2", "B30"]),
    ],
    ["WH1/shortToChassis", "WH2/shortToChassis", "WH3/shortToChassis"],
  ),
  one(
    "a bus line is open to one node: across the pair 120 Ω there, and one line floats",
    bus,
    [
      scan("A1", ["U0155"]),
      ohms("A2:3", "A2:4", 120, ["A2"]),
      ohms("B30:3", "B30:4", "OL", ["A1", "A2", "B30"]),
      ohms("A2:3", "B30:3", "OL", ["A1", "A2", "B30"]),
      ohms("A2:4", "B30:4", 0.3, ["A1", "A2", "B30"]),
    ],
    ["WH2/open", "SH~WH2/legOpen"],
    0.8,
  ),
  one(
    "on a single-wire bus the unplugged line stands near the battery, loaded by the meter: it is sound",
    singleWire,
    [scan("A1", ["U0131"]), volts("B31:3", 11.6, all("B31")), volts("B31:1", 12.3), volts("B31:2", 0.01)],
    ["B31*"],
  ),
  one(
    "a single-wire node has lost its ground: its pin floats up",
    singleWire,
    [scan("A1", ["U0131"]), volts("B31:1", 12.3), volts("B31:2", 9.5), volts("SG", 0.01), volts("B32:2", 0.01)],
    ["WG1/*", "SG~WG1/*"],
  ),
  one(
    "a heater has aged to tens of kilohms",
    drivers,
    [scan("A1", ["P0135"]), volts("R1:1", 12.3), ownOhms("R1:1", "R1:2", 29_800)],
    ["R1/highResistance"],
  ),
  one(
    "a heater's feed is good but its driver never pulls: a lamp across the plug stays dark while it should be driven",
    drivers,
    [
      scan("A1", ["P0135"]),
      volts("R1:1", 12.2, running),
      lamp("R1:1", "dark", { key: "running", black: "R1:2", unplugged: ["R1"] }),
      volts("A1:3", 14.1, running),
      ohms("R1:2", "A1:3", 0.2, ["R1", "A1"]),
    ],
    ["A1:3/*"],
    0.8,
  ),
  one(
    "the common feed first: all users of one relay are silent",
    drivers,
    [
      scan("A1", ["P0135", "P0155", "P0443"]),
      volts("S1", 0.0),
      volts("K1:30", 12.3),
      volts("K1:86", 12.4),
      volts("K1:85", 0.1),
      volts("K1:87", 0.0),
    ],
    ["K1*"],
  ),
  one(
    "a Hall at either level is sound; supply, ground and line good, no swing while cranking: the sensor or its target",
    speed,
    [
      scan("A1", ["P0340"], "afterCrank"),
      volts("B20:1", 5.0),
      volts("B20:2", 0.01),
      scope("B20:3", 0.02, "cranking"),
      volts("B20:3", 4.98, all("B20")),
      volts("B20:3", 4.97, { more: { stimulus: { B20: 1 } } }),
    ],
    ["B20*"],
  ),
  one(
    "a Hall answers steel held at its tip but not the engine: the target or the gap",
    speed,
    [
      scan("A1", ["P0340"], "afterCrank"),
      volts("B20:1", 5.0),
      volts("B20:2", 0.01),
      scope("B20:3", 0.02, "cranking"),
      volts("B20:3", 0.08, { more: { stimulus: { B20: 1 } } }),
      volts("B20:3", 4.97, { more: { stimulus: { B20: 0 } } }),
      look("B20", "chipped", "target"),
    ],
    ["B20/targetDamaged"],
    0.75,
  ),
  one(
    "a coil sensor swings too little while cranking, its winding is sound: the gap",
    speed,
    [
      scan("A1", ["P0335"], "afterCrank"),
      ownOhms("B21:1", "B21:2", 810),
      volts("B21:1", 0.01),
      volts("B21:1", 0.0, all("B21")),
      scope("B21:1", 0.15, "cranking"),
      look("B21", "loose", "bracket"),
    ],
    ["B21/gapTooLarge"],
    0.6,
  ),
  one(
    "pressure and temperature share a ground pin: both are high",
    combined,
    [
      scan("A1", ["P0108", "P0113"]),
      volts("B40:2", 4.5),
      volts("A1:4", 0.01),
      volts("B40:1", 5.0),
      ohms("B40:2", "A1:4", "OL", ["B40", "A1"]),
    ],
    ["W2/open"],
  ),
  one(
    "a sensor grounded through its casing: the casing has no contact",
    combined,
    [scan("A1", ["P0118"]), volts("B42:1", 4.95), volts("G5", 4.9), volts("A1:7", 4.96)],
    ["G5/groundOpen"],
  ),
  one(
    "a 0 to 5 V output on a 24 V supply: its supply is open",
    combined,
    [scan("A1", ["P0522"]), volts("B43:1", 0.0), volts("F1:out", 24.6), volts("B43:2", 0.0), volts("B43:3", 0.0)],
    ["W6/open", "SF~W6/legOpen"],
  ),
];
