import { DEFAULTS } from "../defaults.js";
import type { Wire } from "../format/wiring.js";

/** Values of a filament by its rating: hot resistance at nominal voltage. */
export const filamentOf = (watt: number, nominalVolt: number) => ({ ohm: nominalVolt ** 2 / watt, volt: nominalVolt });

/**
 * Copper resistance of a wire at 20 °C, ohm. Cross-sections: IEC 60228 class 5, else ρ of IEC 60028 (values from
 * memory).
 */
export function wireOhm(wire: Pick<Wire, "mm2" | "lengthM">, usualMm2: number = DEFAULTS.wireMm2.other): number {
  const mm2 = wire.mm2 ?? usualMm2;
  const perKm = DEFAULTS.cableOhmPerKm[String(mm2)] ?? (DEFAULTS.copperOhmMm2PerMetre * 1000) / mm2;
  return Math.max((perKm / 1000) * (wire.lengthM ?? DEFAULTS.wireLengthM), 1e-4);
}

/** B equation: R = R25 · exp(B·(1/T − 1/298.15 K)). */
export function thermistorOhm(ohm25: number, betaKelvin: number, celsius: number): number {
  return ohm25 * Math.exp(betaKelvin * (1 / (celsius + 273.15) - 1 / 298.15));
}
