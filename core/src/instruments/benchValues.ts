import { DEFAULTS } from "../defaults.js";
import type { Device } from "../format/wiring.js";
import { thermistorOhm } from "../network/laws.js";
import { devicePins } from "../wiring/points.js";

/** What can be measured on a part by itself, between two of its pins, ohm: least and most that is good. */
export interface BenchValue {
  readonly red: string;
  readonly black: string;
  readonly low: number;
  readonly high: number;
}
/**
 * Ohms of a part on the bench, by its kind and values; none where ohms prove nothing, as on electronic sensors (common
 * practice, no source).
 */
export function benchValues(device: Device, nominalVolt: 12 | 24): BenchValue[] {
  const pins = new Map(devicePins(device).map((p) => [p.role, p.at]));
  const between = (a: string, b: string, low: number, high: number): BenchValue[] => {
    const red = pins.get(a);
    const black = pins.get(b);
    return red !== undefined && black !== undefined ? [{ red, black, low, high }] : [];
  };
  const wide = (ohm: number, typed: boolean) =>
    [ohm * (1 - (typed ? 0.15 : 0.5)), ohm * (1 + (typed ? 0.15 : 0.6))] as const;
  const scale = nominalVolt === 24 ? 4 : 1;
  switch (device.kind) {
    case "thermistor": {
      const r25 = device.ohm25 ?? DEFAULTS.thermistor.ohm25;
      const beta = device.betaKelvin ?? DEFAULTS.thermistor.betaKelvin;
      const [cold, hot] = device.restCelsius ?? DEFAULTS.thermistor.restCelsius;
      return between("signal", "ground", 0.7 * thermistorOhm(r25, beta, hot), 1.4 * thermistorOhm(r25, beta, cold));
    }
    case "coilSensor":
      return between("high", "low", ...wide(device.ohm ?? DEFAULTS.coilSensor.ohm, device.ohm !== undefined));
    case "solenoid":
      return between("feed", "ground", ...wide(device.ohm ?? DEFAULTS.solenoidOhm * scale, device.ohm !== undefined));
    case "heater":
      return between(
        "feed",
        "ground",
        ...wide(0.6 * (device.ohm ?? DEFAULTS.heaterOhm * scale), device.ohm !== undefined),
      );
    case "potentiometer": {
      const ohm = device.trackOhm ?? DEFAULTS.potentiometer.trackOhm;
      return [
        ...between("supply", "ground", ...wide(ohm, device.trackOhm !== undefined)),
        ...between("signal", "ground", 20, 1.6 * ohm),
      ];
    }
    case "relay":
      return between(
        "coilHigh",
        "coilLow",
        ...wide(device.coilOhm ?? DEFAULTS.relay.coilOhm * scale, device.coilOhm !== undefined),
      );
    default:
      return [];
  }
}
