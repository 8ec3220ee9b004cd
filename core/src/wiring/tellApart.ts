/**
 * What a voltmeter showed at one cavity of an unplugged connector, key on: against battery negative, and against
 * battery positive where that was read too.
 */
export interface CavityVolts {
  readonly cavity: string;
  readonly toNegative: number;
  readonly toPositive?: number;
}
export interface ToldApart {
  readonly cavity: string;
  readonly function: "supply" | "reference" | "signal" | "ground" | "unknown";
  readonly sure: boolean;
  readonly why: "battery" | "reference" | "pulledUp" | "ground" | "floating" | "between";
}

/** Within this of the battery counts as a feed; of zero as ground or nothing, volt (common practice, no source). */
const NEAR_BATTERY = 0.8;
const NEAR_ZERO = 0.15;
const REFERENCE: readonly [number, number] = [4.75, 5.25];

/**
 * Tells cavities of an unplugged connector apart by voltage, key on: battery feed, reference, pulled-up signal, ground.
 * Zero against battery negative is ground or nothing at all; nearly full against battery positive only then says
 * ground.
 * Of two cavities near 5 V the one that stands closer to 5.00 is taken for the reference, unsure: a pulled-up signal
 * looks the same.
 * @param batteryVolt the battery at that moment
 */
export function tellApart(volts: readonly CavityVolts[], batteryVolt: number): ToldApart[] {
  const fives = volts
    .filter((v) => v.toNegative >= REFERENCE[0] && v.toNegative <= REFERENCE[1])
    .sort((a, b) => Math.abs(a.toNegative - 5) - Math.abs(b.toNegative - 5));
  const fed = volts.some((v) => v.toNegative > batteryVolt - NEAR_BATTERY);
  // a signal the module pulls down looks like a ground to a meter; where two do, only a load tells which it is
  const downs = volts.filter(
    (v) =>
      Math.abs(v.toNegative) <= NEAR_ZERO &&
      v.toPositive !== undefined &&
      Math.abs(v.toPositive) > batteryVolt - NEAR_BATTERY,
  ).length;
  return volts.map((v): ToldApart => {
    if (v.toNegative > batteryVolt - NEAR_BATTERY)
      return { cavity: v.cavity, function: "supply", sure: true, why: "battery" };
    const five = fives.indexOf(v);
    // beside a battery feed a lone 5 V is the signal of a part with an open output
    if (five >= 0 && fed && fives.length === 1)
      return { cavity: v.cavity, function: "signal", sure: true, why: "pulledUp" };
    if (five === 0) return { cavity: v.cavity, function: "reference", sure: fives.length === 1, why: "reference" };
    if (five > 0) return { cavity: v.cavity, function: "signal", sure: false, why: "pulledUp" };
    if (Math.abs(v.toNegative) <= NEAR_ZERO) {
      if (v.toPositive === undefined) return { cavity: v.cavity, function: "unknown", sure: false, why: "floating" };
      return Math.abs(v.toPositive) > batteryVolt - NEAR_BATTERY
        ? { cavity: v.cavity, function: "ground", sure: downs < 2, why: "ground" }
        : { cavity: v.cavity, function: "signal", sure: false, why: "floating" };
    }
    return { cavity: v.cavity, function: v.toNegative > 1 ? "signal" : "unknown", sure: false, why: "between" };
  });
}
