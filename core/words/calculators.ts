import type { CalculatorId } from "../src/index.js";

interface Words {
  readonly title: string;
  readonly when: string;
  readonly formula: string;
  readonly source: string;
  readonly names: Readonly<Record<string, string>>;
}
/** Calculators in words: what each is for, its formula and where that comes from. */
export const CALCULATOR_WORDS: Readonly<Record<CalculatorId, Words>> = {
  lamp: {
    title: "Test lamp against a circuit",
    when: "before a lamp goes onto a circuit: its current must not exceed what the circuit normally carries",
    formula: "I = P / U · cold: I / 0.1",
    source: "Ohm’s law; a filament is a tenth of its hot resistance when cold (common practice)",
    names: {
      watt: "Lamp",
      volt: "Voltage",
      circuitAmpere: "The circuit normally carries",
      duty: "Duty",
      lampAmpere: "The lamp draws",
      coldAmpere: "for a moment, cold",
      meanAmpere: "on average",
      shareOfCircuit: "of what the circuit carries",
    },
  },
  wire: {
    title: "Current and drop of a wire",
    when: "what a sound wire may lose under its current",
    formula: "R = ρ·L/A·(1 + 0.00393·(t − 20)) · U = R·I",
    source: "IEC 60028 copper; IEC 60228 class 5 maxima where listed (values from memory)",
    names: {
      mm2: "Cross-section",
      length: "Length, there and back if both count",
      ampere: "Current",
      celsius: "Temperature",
      ohm: "Resistance",
      drop: "Drop",
      heat: "Heat in it",
    },
  },
  fuse: {
    title: "Fuse current from millivolts",
    when: "a current without opening the circuit: the drop over a fuse in place",
    formula: "I = U / (0.075 Ω·A / rating)",
    source: "a blade fuse drops about 75 mV at its rating (common practice); the maker’s table is better",
    names: { millivolt: "Drop over the fuse", rating: "Rating", ampere: "Current", shareOfRating: "of its rating" },
  },
  divider: {
    title: "Pulled-up signal",
    when: "what a signal should show with a pull-up, and what the meter’s own load does",
    formula: "U = U₀ · R∥ / (R∥ + Rpull), R∥ = sensor beside meter",
    source: "voltage divider",
    names: {
      pullVolt: "Pulled up to",
      pullOhm: "through",
      sensorOhm: "Sensor to ground",
      meterOhm: "Meter",
      volt: "Signal",
      ampere: "Current",
    },
  },
  thermistor: {
    title: "Thermistor",
    when: "a temperature from ohms, and the volts a module sees",
    formula: "1/T = 1/298.15 + ln(R/R25)/B",
    source: "B equation",
    names: {
      ohm25: "At 25 °C",
      beta: "B",
      ohm: "Measured",
      pullVolt: "Pulled up to",
      pullOhm: "through",
      celsius: "Temperature",
      volt: "Signal",
      ohmAt0: "at 0 °C",
      ohmAt80: "at 80 °C",
    },
  },
  platinum: {
    title: "Platinum thermometer",
    when: "a temperature from ohms",
    formula: "R/R₀ = 1 + 3.9083e-3·t − 5.775e-7·t²",
    source: "IEC 60751 (values from memory)",
    names: { r0: "At 0 °C", ohm: "Measured", celsius: "Temperature", ohmAt100: "at 100 °C" },
  },
  pressure: {
    title: "Ratiometric sensor to pressure",
    when: "volts of a three-wire pressure sensor as a pressure",
    formula: "p = p₁ + (U/Uref − s₁)/(s₂ − s₁) · (p₂ − p₁)",
    source: "a ratiometric output keeps its share of the reference",
    names: {
      volt: "Signal",
      reference: "Reference",
      lowShare: "Share at the low end",
      highShare: "Share at the high end",
      lowPressure: "Low end",
      highPressure: "High end",
      share: "Share of the reference",
      pressure: "Pressure",
    },
  },
  height: {
    title: "Air pressure with height",
    when: "what a pressure sensor should show at rest",
    formula: "p = 101.325 · (1 − 0.0065·h/288.15)^5.25588",
    source: "ISO 2533 (values from memory)",
    names: { height: "Height", pressure: "Air pressure" },
  },
  duty: {
    title: "Duty to average",
    when: "what a meter shows on a pulsed driver",
    formula: "U = d · U₀",
    source: "mean over a period",
    names: {
      duty: "Duty",
      volt: "Voltage",
      ohm: "Load",
      averageVolt: "A meter shows",
      averageAmpere: "Average current",
      watt: "Power",
    },
  },
  heaters: {
    title: "Heaters in parallel",
    when: "what the set should draw, and with one of them open",
    formula: "1/R = Σ 1/Rᵢ",
    source: "parallel resistances",
    names: {
      ohm1: "First",
      ohm2: "Second",
      ohm3: "Third, 0 for none",
      ohm4: "Fourth, 0 for none",
      volt: "Voltage",
      ohm: "Together",
      ampere: "Current",
      watt: "Power",
    },
  },
};
