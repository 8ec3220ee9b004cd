import type { KeyState } from "./format/wiring.js";

/**
 * Every value the engine assumes of a machine when the document does not say, in one place. Values are common practice
 * (no source) unless a line says otherwise. What belongs to one algorithm only (limits of a search, thresholds) stands
 * beside it, with its unit and its source or the word "judgement".
 */
export const DEFAULTS = {
  /** Conductor: IEC 60228 class 5, maximum ohm per km at 20 °C, plain copper (values from memory). */
  cableOhmPerKm: {
    0.35: 55.8,
    0.5: 39.0,
    0.75: 26.0,
    1: 19.5,
    1.5: 13.3,
    2.5: 7.98,
    4: 4.95,
    6: 3.3,
    10: 1.91,
    16: 1.21,
  } as Readonly<Record<string, number>>,
  /** Copper: IEC 60028, 1/58 ohm mm² per metre at 20 °C (value from memory); for cross-sections not in the table. */
  copperOhmMm2PerMetre: 1 / 58,
  /** Where no cross-section is drawn: of a battery or alternator cable, of a feed or ground, of any other, mm². */
  wireMm2: { cable: 16, feed: 2.5, other: 0.75 },
  wireLengthM: 2,
  /** A healthy mated terminal, ohm. */
  contactOhm: 0.005,
  /** A healthy ground point, ohm. */
  groundOhm: 0.001,
  switchOhm: 0.01,
  /** Battery: rest voltage of a 12 V battery by key state, volt, and inner resistance, ohm. */
  batteryVolt: { off: 12.6, on: 12.4, cranking: 10.4, running: 14.2 } as Readonly<Record<KeyState, number>>,
  batteryOhm: 0.01,
  /** Beside an alternator: what the battery looks like to a charging current, ohm, and the most it gives, ampere. */
  batteryChargeOhm: 0.3,
  batteryMostAmpere: 5_000,
  /** A fuse's cold resistance, ohm × ampere: a 10 A blade fuse drops about 75 mV at its rating. */
  fuseOhmAmpere: 0.075,
  /** Steady current over rating at which a blade fuse opens (ISO 8820-3 operates at 135 %; value from memory). */
  fuseMeltsAt: 1.35,
  /**
   * An alternator while the engine runs: what it regulates to on a 12 V machine, volt, its inner resistance and its
   * most.
   */
  alternator: { volt: 14.2, ohm: 0.005, limitAmpere: 90, offOhm: 100_000 },
  /** `offOhm`: what is left of it the other way, less than 0.2 µA at 5 V (value from memory) */
  diode: { volt: 0.65, ohm: 0.03, offOhm: 30e6 },
  /**
   * A relay's coil on a 12 V machine, ohm (four times that on 24 V), and the share of nominal voltage at which it pulls
   * in.
   */
  relay: { coilOhm: 85, pullsInAtShare: 0.6, contactOhm: 0.01 },

  module: {
    supplyAmpere: 0.25,
    /** Awake above this share of nominal voltage. */
    wakesAtShare: 0.5,
    referenceVolt: 5,
    referenceOhm: 0.2,
    referenceLimitAmpere: 0.15,
    /** Seen into a reference that is unpowered, or pushed above its own voltage, ohm. */
    referenceOffOhm: [3_000, 3e6] as const,
    sensorGroundOhm: 0.03,
    pullOhm: { up: 2_200, down: 100_000, none: 1_000_000 },
    pullVolt: 5,
    /** a pull to 5 V that nobody read or drew, volt */
    pullsTo: [4.65, 5.1] as const,
    /** Output of the limiting reference is almost, not quite, a constant current. */
    limitSlopeSiemens: 1e-6,
    /** A reference that folds back has collapsed below this, volt. */
    foldVolt: 1,
    /** Drivers: resistance while on, ohm; limit, ampere; weak pull on the pin while off, ohm. */
    driverOhm: 0.15,
    lowSideAmpere: 8,
    highSideAmpere: 1,
    driverOffOhm: 1_000_000,
    /** What holds an open load's pin while a low-side driver is off: some look for it with a bias, some do not. */
    watchVolt: [2, 3.6] as const,
    watchOhm: [30_000, 250_000] as const,
    /** share of modules whose low-side drivers all watch, or none of them; in the others each has this chance not to */
    allWatch: 0.35,
    noneWatch: 0.3,
    withoutWatch: 0.4,
    /** what a high-side driver that is off lets through, and what holds its pin, ohm */
    highSideLeakOhm: [4e6, 4e9] as const,
    highSideOffOhm: [40_000, 2_500_000] as const,
    /** a pull whose value nobody drew: a factor either way */
    pullSpread: 2,
    /** share of inputs that are pulled the other way, where the direction was only guessed from the part on them */
    otherPull: 0.25,
  },
  /**
   * Two-wire bus (levels as ISO 11898-2 asks, values from memory) and single-wire bus (ISO 17987-4, values from
   * memory).
   */
  bus: {
    recessiveVolt: 2.5,
    recessiveOhm: 25_000,
    /** a node without power leaks microamperes (ISO 11898-2, value from memory), ohm */
    unpoweredOhm: 5e6,
    dominantHighVolt: 4.3,
    dominantLowVolt: 0.7,
    dominantOhm: [15, 45] as const,
    dominantAmpere: 0.1,
    dominantOffOhm: 50e6,
    terminatorOhm: 120,
    /** least and most of the time in which somebody talks */
    duty: [0.02, 0.38] as const,
    aliveVolt: 0.9,
    /** a node whose ground stands higher than this does not talk (common mode range, ISO 11898-2, from memory), volt */
    groundMostVolt: 2.5,
    commanderOhm: 1_000,
    responderOhm: 30_000,
    lineOhm: 20,
    lineDuty: [0.02, 0.38] as const,
    lineOffOhm: 1e9,
  },
  /** A supply pin of sleeping electronics, ohm. */
  asleepOhm: [200, 50_000] as const,
  pedal: { trackOhm: 5_000, wiperOhm: 1_000, restShare: [0.1, 0.2] as const, ratio: 0.5 },
  /** `volt`: what it gives while the engine turns, by gap and speed */
  coilSensor: { ohm: 800, volt: [0.7, 6] as const },
  currentLoop: { dropOutVolt: 8, restMilliampere: [4, 12] as const },
  /** `startsVolt`: below this a regulator inside gives up; `steadyVolt`: above this its current no longer rises. */
  smartSensor: { supplyAmpere: 0.08, startsVolt: [4.2, 8.5] as const, steadyVolt: [1.5, 10] as const },
  /** A filament is a tenth of its hot resistance when cold. Watt at nominal voltage. */
  lamp: { watt: 5, coldShare: 0.1 },
  /** On a 12 V machine, ohm; four times that on 24 V. */
  solenoidOhm: 12,
  heaterOhm: 8,
  threeWireSensor: {
    supplyAmpere: 0.008,
    outputOhm: 100,
    startsVolt: [2.4, 4] as const,
    offOhm: [5e6, 1e9] as const,
    /** below this a die takes next to nothing, volt */
    dieVolt: [0.1, 0.8] as const,
    /** share of outputs without a diode from ground: with the ground lost their line falls where the others rise */
    withoutDiode: 0.3,
    /** of those that float up: share whose output its own stage pulls to the supply, and through how much, ohm */
    railsHigh: 0.5,
    railOhm: [300, 30_000] as const,
    diode: { volt: [0.45, 0.75] as const, ohm: 8 },
    /** from here on its current hardly rises, volt across what is behind the knee */
    steadyVolt: [0.5, 4] as const,
    /** a regulator of its own behind a 0 to 5 V output on a 12 or 24 V supply */
    regulator: { ohm: 5, limitAmpere: 0.03, offOhm: 1_000_000 },
    restShare: [0.08, 0.6] as const,
  },
  potentiometer: { trackOhm: 5_000, wiperOhm: 100, restShare: [0.1, 0.3] as const },
  thermistor: { ohm25: 2_500, betaKelvin: 3_435, restCelsius: [-10, 90] as const },
  /** `dieVolt`: with the diode that protects it against reversal */
  hall: {
    supplyAmpere: 0.006,
    dieVolt: [0.3, 1.3] as const,
    startsVolt: [2.2, 3.8] as const,
    saturationOhm: 30,
    offOhm: 50e6,
    ownPullOhm: [2e4, 2e8] as const,
  },

  /** Half-widths of what is not exactly known, as a share of the value. */
  tolerance: { generic: 0.2, typed: 0.05, reference: 0.01, battery: 0.035 },

  /**
   * A jumper to full scale goes through this: a fuse protects no reference of some 50 mA (common practice, no source).
   */
  jumperOhm: 1_000,
  meter: {
    beeperOhm: 30,
    clampAmpere: 0.05,
    ohm: 10e6,
    accuracyShare: 0.005,
    digitsVolt: 0.02,
    ohmAccuracyShare: 0.02,
    ohmDigits: 0.3,
    overloadOhm: 20e6,
  },
  /**
   * A test lamp is bright from `bright` of nominal voltage up and dark below `dark`; between them it is dim. Common
   * practice, no source.
   */
  lampShows: { bright: 0.75, dark: 0.2 },
  /**
   * σ² = floor² + (share·V)²: covers wire lengths, temperature and lead placement.
   * Ohms through the inside of electronics depend on the meter: above `ohmElectronicsFrom` ohm a prediction is good to
   * `ohmElectronics` (of the natural logarithm) only (common practice, no source: ohms prove little on an electronic
   * sensor).
   */
  reading: {
    ohmElectronics: 0.5,
    ohmElectronicsFrom: 60,
    /** share of ohms readings through electronics that no model foresees: clamp diodes conduct as they like */
    ohmOdd: 0.02,
    floorVolt: 0.03,
    /** what a meter may show on a conductor that hangs on nothing */
    strayVolt: 0.1,
    share: 0.012,
    slip: 0.003,
    ohmShare: 0.1,
    ohmFloor: 0.5,
    /** a swing this wide is no unsteady hand: something comes and goes */
    flickerVolt: 0.3,
  },

  codes: {
    enable12: [9, 16] as const,
    enable24: [18, 32] as const,
    broadWeight: 0.5,
    miss: 0.05,
    falseAlarm: 3e-4,
    weight: { active: 1, pending: 0.8, stored: 0.6, intermittent: 0.4, absent: 1 },
    /**
     * how much of a code's probability comes from the sample itself, from the other draws at its severity, and from the
     * neighbouring severities
     */
    between: { ownDraw: 0.6, ofDraws: 0.3, ofNeighbours: 0.1 },
    /**
     * share of codes with this status that a lasting fault would leave, and one that comes and goes (product judgement,
     * no source)
     */
    lasting: { active: 0.9, pending: 0.5, stored: 0.5, intermittent: 0.1 },
    comesAndGoes: { active: 0.4, pending: 0.6, stored: 0.9, intermittent: 0.9 },
  },

  /** Severity grids (equal weight on each point), ohm. */
  severity: {
    highResistance: [0.1, 0.5, 2, 8, 25, 80, 200, 500, 1_200, 3_500, 12_000, 60_000],
    // closer together where a 5 V reference of 50 to 250 mA gives way: there the set of codes changes within a few ohm
    short: [0.05, 0.15, 0.4, 1.2, 3, 6, 10, 14, 18, 22, 26, 30, 35, 42, 60, 120, 400],
    /** a few strands left: passes a beeper, fails a load */
    strands: [0.5, 1.5, 5, 15, 30],
    film: [2, 10, 50, 200],
    /** salt water, coolant or urea between two cavities */
    fluid: [50, 110, 240, 500, 1_100, 2_400, 5_000, 11_000, 25_000],
    wireToWire: [0.05, 0.5, 1.5, 4, 7, 10, 14, 18, 22, 26, 30, 36, 45, 70, 150, 400],
    /** on top of a winding or element of its own */
    element: [10, 40, 200, 1_000, 4_000, 15_000, 50_000],
    /** factors on a supply, a reference, an element */
    supplyLow: [0.92, 0.82, 0.65, 0.4, 0.05],
    supplyHigh: [1.1, 1.2, 1.35],
    weak: [0.93, 0.85, 0.7, 0.4],
    duty: [0.25, 0.5, 0.75, 1.35, 2],
    ohmBias: [0.3, 0.6, 1.7, 3.5],
    ohmWrongPart: [0.2, 0.4, 2.5, 5],
    loopBias: [0.4, 0.7, 1.4, 2.2],
    /** shares of the supply */
    bias: [-0.4, -0.3, -0.2, -0.15, -0.1, -0.05, 0.05, 0.1, 0.15, 0.2, 0.3, 0.4],
    condition: [0.01, 0.02, 0.035, 0.055, 0.08, 0.11, 0.15, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 0.97],
    wrongPart: [0.4, 0.67, 1.5, 2.5],
    /** factors on the swing of a coil sensor that stands too far off its target */
    gap: [0.08, 0.2, 0.4],
  },
  /** Relative rate of each mode; see docs/engine.md. Product judgement, no source. */
  prior: {
    groundHighResistance: 4,
    groundOpen: 2,
    spliceHighResistance: 2,
    spliceOpen: 1,
    contactHighResistance: 2,
    contactOpen: 1.5,
    wireOpen: 1,
    wireHighResistance: 0.5,
    wireToChassis: 0.6,
    wireToSupply: 0.15,
    fuseBlown: 3,
    fuseHighResistance: 0.5,
    switchOpen: 1,
    switchHighResistance: 1,
    sensorDead: 4,
    elementOpen: 3,
    internalShort: 2,
    referenceDead: 0.5,
    moduleUnpowered: 0.3,
    inputDamaged: 0.3,
    fewStrands: 0.3,
    wireToWire: 0.15,
    contactFilm: 1,
    cavitiesBridged: 0.05,
    cavitiesBridgedWet: 0.8,
    cavitiesSwapped: 0.003,
    unseated: 0.5,
    supplyLow: 0.5,
    supplyHigh: 0.3,
    alternatorDead: 1,
    relayCoilOpen: 1,
    relayContactOpen: 1,
    relayContactHighResistance: 2,
    relayStuck: 0.3,
    driverDead: 1,
    driverStuck: 0.3,
    dutyWrong: 0.2,
    referenceWeak: 0.3,
    referenceResistive: 0.3,
    lampOpen: 4,
    biased: 0.5,
    wrongPart: 0.2,
    trueCondition: 0.5,
    targetDamaged: 0.5,
    gapTooLarge: 0.5,
    nothingWrong: 2,
    notInThisWiring: 1.5,
  },
  /**
   * How far those rates are trusted: they are raised to this power before they are used. 1 takes them as they are, 0 as
   * all the same. Nobody knows them well, and a rare fault must not be declared away.
   */
  priorTrust: 0.5,
  /**
   * Factors on the rates above from what the customer tells (see diagnosis/circumstances). Product judgement, no
   * source.
   */
  circumstance: {
    wetInWet: 2,
    wetElsewhere: 1.3,
    hot: 1.5,
    cold: 2,
    coldContacts: 1.2,
    bumpInVibrating: 2,
    bump: 1.4,
    underLoad: 1.5,
    cranking: 1.5,
    comesAndGoes: 1.5,
    dead: 1.4,
    slowStart: 2,
    fuseBlows: 3,
    wrongValue: 2,
    replacedInVain: 0.15,
    copyInVain: 0.6,
    replaced: 0.5,
    newPart: 2,
    copy: 6,
    workNearby: 3,
    accident: 2,
    batteryWork: 2.5,
    pests: 3,
    water: 2.5,
    oil: 3,
    bulletin: 3,
    hearsay: 1.5,
  },
  /**
   * How repairs turn out, for somebody who works with care. Product judgement, no source: measured against simulated
   * repairs only as far as `npm run bench:proof` says.
   */
  repair: {
    /** chance that the work cures what it is meant for */
    done: { replaced: 0.95, repaired: 0.93, rewired: 0.95, cleaned: 0.85, reseated: 0.8, adjusted: 0.85 },
    /** how many times more often another part than a new one of the maker is wrong or bad */
    part: { new: 1, used: 3, copy: 4 },
    /** what is left of that chance once the part was measured before it went in */
    measured: 0.3,
    /** a contact that was taken apart and put together without being meant is good again, for now */
    movedByHand: 0.15,
    /** something else is wrong that nobody saw yet */
    another: 0.05,
    /** of what comes back: the repair came undone */
    cameUndone: 0.5,
    /** of what is said to have come back: nothing is wrong now */
    stillSound: 0.2,
    /** what is left of a fault that went away by itself, after a drive without it and after moving its place */
    stayedAwayDriving: 0.6,
    stayedAwayMoved: 0.5,
  },
  /**
   * Lessons of earlier jobs: what one counts; how many jobs the generic shares of kinds of fault, and of places within
   * a kind, are worth; how far lessons are trusted at all. Product judgement, no source; what it is worth, and what a
   * notebook that lies costs, is measured by `npm run bench:notebook`.
   */
  lessons: { proven: 0.95, certain: 1, likely: 0.5, modes: 20, places: 5, trust: 0.7 },
  /** How a reading taken again is judged, and a drive without a length of its own. Product judgement, no source. */
  proof: { room: 0.25, volt: 0.06, ohmShare: 0.03, leadsOhm: 0.5, driveMinutes: 15 },
  /** Multipliers by zone: [contacts, splices and grounds; wires; devices]. */
  zones: {
    dry: [1, 1, 1],
    wet: [3, 1.5, 1.2],
    hot: [1.3, 1.5, 1.5],
    oily: [1.5, 1.2, 1.2],
    vibrating: [1.8, 1.8, 1.2],
    chewed: [1, 4, 1],
  } as Readonly<Record<string, readonly [number, number, number]>>,

  /**
   * Share of each fault's rate that is of the kind that comes and goes: by what it is; and how often it is there when
   * looked at. Product judgement, no source.
   */
  intermittent: {
    contact: 0.2,
    wire: 0.12,
    device: 0.06,
    told: 4,
    presence: [0.25, 0.7] as const,
    /**
     * how surely it shows itself while it is watched and the harness is moved there: the fault may be further away, and
     * a meter misses what is short
     */
    caught: { recorded: 0.8, minMax: 0.6 },
  },
  /**
   * A second independent fault, relative to none; one more plug that a leaking seal reached; readings taken at the
   * wrong, look-alike connector: declared look-alike, or only of the same shape. Product judgement, no source.
   */
  multipleFaults: { second: 3e-4, sameFluid: 0.05, draws: 4 },
  misplaced: { lookAlike: 0.01, sameShape: 0.001 },
  /**
   * What looks, wiggles, swaps and part numbers are worth: probability where the fault is there, and where it is not.
   * Product judgement, no source.
   */
  clues: {
    signSeen: 0.5,
    signHidden: 0.15,
    signFalse: 0.03,
    wiggleReacts: 0.6,
    /** the wire beside a loose terminal is moved */
    wiggleReactsBeside: 0.4,
    wiggleFalse: 0.02,
    swapMoves: 0.95,
    swapFalse: 0.03,
    wrongNumberSeen: 0.9,
    wrongNumberFalse: 0.01,
    /** pulses missing in a recorded speed signal: the target or the gap, a contact that comes and goes, neither */
    teethSeen: 0.9,
    teethBeside: 0.3,
    teethFalse: 0.01,
    /** and at the same place of every turn: of a damaged target, of anything else */
    teethReturn: 0.9,
    teethReturnOtherwise: 0.1,
    holds: 0.97,
    identityTold: 0.9,
    identityFalse: 0.01,
  },

  /** Joint draws of everything not exactly known, the first one nominal. */
  draws: 8,
  /**
   * Severities × draws × nodes above which a very large machine gets fewer draws, so that its codes are worked out
   * within minutes.
   */
  predictionBudget: 60e6,

  /** Where neither a price nor a labour rate is given (product judgement, no source; any currency). */
  economics: { labourPerHour: 60, price: 80, fitMinutes: 20 },
  plan: {
    /** Suspects below this share are left out of planning. */
    keepShare: 1e-4,
    enoughShare: 0.98,
    /** `again`: back to a place already open; `engine`: to start or crank it with everybody clear */
    minutes: {
      key: 0.2,
      unplug: 0.5,
      plug: 0.5,
      reachDefault: 1,
      again: 0.3,
      engine: 0.5,
      take: {
        voltage: 0.4,
        voltageUnplugged: 0.4,
        watch: 0.4,
        fuse: 0.6,
        ohms: 0.6,
        ohmsWatch: 0.6,
        scan: 0.4,
        scanWatch: 0.4,
        activity: 0.8,
        record: 3,
        minMax: 1.5,
        scanRecord: 2,
        look: 0.6,
        identity: 0.8,
        wiggle: 1,
        swap: 4,
        partNumber: 0.5,
        drop: 0.5,
        branchCurrent: 0.6,
        ohmsBetween: 0.8,
        jumper: 1,
        lamp: 1,
        breaker: 0.6,
        bench: 1,
        codeSets: 1.5,
      },
    },
  },
} as const;
