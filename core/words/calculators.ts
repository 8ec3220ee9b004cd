import type { CalculatorId } from "../src/index.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

interface Words {
  readonly title: string;
  readonly when: string;
  readonly formula: string;
  readonly source: string;
  readonly names: Readonly<Record<string, string>>;
}
/** Calculators in words: what each is for, its formula and where that comes from. */
// eslint-disable-next-line max-lines-per-function -- a table, not a procedure
export const CALCULATOR_WORDS: Readonly<Record<CalculatorId, Words>> = worded(() => ({
  lamp: {
    title: t("calculators.testLampAgainstACircuit"),
    when: t("calculators.beforeALampGoesOntoA"),
    formula: t("calculators.iPUColdI0"),
    source: t("calculators.ohmsLawAFilamentIsA"),
    names: {
      watt: t("calculators.lamp"),
      volt: t("calculators.voltage"),
      circuitAmpere: t("calculators.theCircuitNormallyCarries"),
      duty: t("calculators.duty"),
      lampAmpere: t("calculators.theLampDraws"),
      coldAmpere: t("calculators.forAMomentCold"),
      meanAmpere: t("calculators.onAverage"),
      shareOfCircuit: t("calculators.ofWhatTheCircuitCarries"),
    },
  },
  wire: {
    title: t("calculators.currentAndDropOfAWire"),
    when: t("calculators.whatASoundWireMayLose"),
    formula: "R = ρ·L/A·(1 + 0.00393·(t − 20)) · U = R·I",
    source: t("calculators.iec60028CopperIec60228Class"),
    names: {
      mm2: t("calculators.crossSection"),
      length: t("calculators.lengthThereAndBackIfBoth"),
      ampere: t("calculators.current"),
      celsius: t("calculators.temperature"),
      ohm: t("calculators.resistance"),
      drop: t("calculators.drop"),
      heat: t("calculators.heatInIt"),
    },
  },
  fuse: {
    title: t("calculators.fuseCurrentFromMillivolts"),
    when: t("calculators.aCurrentWithoutOpeningTheCircuit"),
    formula: t("calculators.iU0075ARating"),
    source: t("calculators.aBladeFuseDropsAbout75"),
    names: {
      millivolt: t("calculators.dropOverTheFuse"),
      rating: t("calculators.rating"),
      ampere: t("calculators.current"),
      shareOfRating: t("calculators.ofItsRating"),
    },
  },
  divider: {
    title: t("calculators.pulledUpSignal"),
    when: t("calculators.whatASignalShouldShowWith"),
    formula: t("calculators.uURRRpullR"),
    source: t("calculators.voltageDivider"),
    names: {
      pullVolt: t("calculators.pulledUpTo"),
      pullOhm: t("calculators.through"),
      sensorOhm: t("calculators.sensorToGround"),
      meterOhm: t("calculators.meter"),
      volt: t("calculators.signal"),
      ampere: t("calculators.current"),
    },
  },
  thermistor: {
    title: t("calculators.thermistor"),
    when: t("calculators.aTemperatureFromOhmsAndThe"),
    formula: t("calculators.thermistorFormula"),
    source: t("calculators.bEquation"),
    names: {
      ohm25: t("calculators.at25C"),
      beta: "B",
      ohm: t("calculators.measured"),
      pullVolt: t("calculators.pulledUpTo"),
      pullOhm: t("calculators.through"),
      celsius: t("calculators.temperature"),
      volt: t("calculators.signal"),
      ohmAt0: t("calculators.at0C"),
      ohmAt80: t("calculators.at80C"),
    },
  },
  platinum: {
    title: t("calculators.platinumThermometer"),
    when: t("calculators.aTemperatureFromOhms"),
    formula: "R/R₀ = 1 + 3.9083e-3·t − 5.775e-7·t²",
    source: t("calculators.iec60751ValuesFromMemory"),
    names: {
      r0: t("calculators.at0C2"),
      ohm: t("calculators.measured"),
      celsius: t("calculators.temperature"),
      ohmAt100: t("calculators.at100C"),
    },
  },
  pressure: {
    title: t("calculators.ratiometricSensorToPressure"),
    when: t("calculators.voltsOfAThreeWirePressure"),
    formula: t("calculators.pPUUrefSS"),
    source: t("calculators.aRatiometricOutputKeepsItsShare"),
    names: {
      volt: t("calculators.signal"),
      reference: t("calculators.reference"),
      lowShare: t("calculators.shareAtTheLowEnd"),
      highShare: t("calculators.shareAtTheHighEnd"),
      lowPressure: t("calculators.lowEnd"),
      highPressure: t("calculators.highEnd"),
      share: t("calculators.shareOfTheReference"),
      pressure: t("calculators.pressure"),
    },
  },
  height: {
    title: t("calculators.airPressureWithHeight"),
    when: t("calculators.whatAPressureSensorShouldShow"),
    formula: "p = 101.325 · (1 − 0.0065·h/288.15)^5.25588",
    source: t("calculators.iso2533ValuesFromMemory"),
    names: { height: t("calculators.height"), pressure: t("calculators.airPressure") },
  },
  duty: {
    title: t("calculators.dutyToAverage"),
    when: t("calculators.whatAMeterShowsOnA"),
    formula: "U = d · U₀",
    source: t("calculators.meanOverAPeriod"),
    names: {
      duty: t("calculators.duty"),
      volt: t("calculators.voltage"),
      ohm: t("calculators.load"),
      averageVolt: t("calculators.aMeterShows"),
      averageAmpere: t("calculators.averageCurrent"),
      watt: t("calculators.power"),
    },
  },
  heaters: {
    title: t("calculators.heatersInParallel"),
    when: t("calculators.whatTheSetShouldDrawAnd"),
    formula: "1/R = Σ 1/Rᵢ",
    source: t("calculators.parallelResistances"),
    names: {
      ohm1: t("calculators.first"),
      ohm2: t("calculators.second"),
      ohm3: t("calculators.third0ForNone"),
      ohm4: t("calculators.fourth0ForNone"),
      volt: t("calculators.voltage"),
      ohm: t("calculators.together"),
      ampere: t("calculators.current"),
      watt: t("calculators.power"),
    },
  },
}));
