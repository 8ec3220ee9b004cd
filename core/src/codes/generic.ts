/**
 * Texts of generic codes (SAE J2012 / ISO 15031-6; values from memory, shortened). Many circuits have a run of five:
 * circuit, range or performance, low, high, intermittent.
 */
const RUN = ["circuit", "circuit range or performance", "circuit low", "circuit high", "circuit intermittent"] as const;
const RUNS: Readonly<Record<string, string>> = {
  P0100: "Mass air flow",
  P0105: "Manifold pressure or barometric",
  P0110: "Intake air temperature",
  P0115: "Engine coolant temperature",
  P0120: "Throttle or pedal position A",
  P0180: "Fuel temperature A",
  P0190: "Fuel rail pressure",
  P0195: "Engine oil temperature",
  P0220: "Throttle or pedal position B",
  P0225: "Throttle or pedal position C",
  P0235: "Turbocharger boost A",
  P0325: "Knock sensor 1",
  P0335: "Crankshaft position A",
  P0340: "Camshaft position A",
  P0385: "Crankshaft position B",
  P0450: "Evaporative pressure",
  P0460: "Fuel level A",
  P0470: "Exhaust pressure",
  P0500: "Vehicle speed A",
  P0515: "Battery temperature",
  P0520: "Engine oil pressure",
  P0530: "Refrigerant pressure A",
  P0545: "Exhaust gas temperature bank 1",
  P0705: "Transmission range A",
  P0710: "Transmission fluid temperature A",
  P0715: "Turbine or input speed A",
  P0720: "Output speed",
  P0835: "Clutch pedal B",
  P0840: "Transmission fluid pressure A",
};
const SINGLE: Readonly<Record<string, string>> = {
  P0016: "Crankshaft and camshaft positions disagree, bank 1 A",
  P0030: "Oxygen sensor heater circuit, bank 1 sensor 1",
  P0031: "Oxygen sensor heater circuit low, bank 1 sensor 1",
  P0032: "Oxygen sensor heater circuit high, bank 1 sensor 1",
  P0036: "Oxygen sensor heater circuit, bank 1 sensor 2",
  P0037: "Oxygen sensor heater circuit low, bank 1 sensor 2",
  P0038: "Oxygen sensor heater circuit high, bank 1 sensor 2",
  P0130: "Oxygen sensor circuit, bank 1 sensor 1",
  P0135: "Oxygen sensor heater circuit, bank 1 sensor 1",
  P0201: "Injector circuit, cylinder 1",
  P0202: "Injector circuit, cylinder 2",
  P0203: "Injector circuit, cylinder 3",
  P0204: "Injector circuit, cylinder 4",
  P0205: "Injector circuit, cylinder 5",
  P0206: "Injector circuit, cylinder 6",
  P0300: "Random misfire",
  P0380: "Glow plug circuit A",
  P0403: "Exhaust gas recirculation control circuit",
  P0443: "Evaporative purge valve control circuit",
  P0480: "Fan 1 control circuit",
  P0560: "System voltage",
  P0561: "System voltage unstable",
  P0562: "System voltage low",
  P0563: "System voltage high",
  P0600: "Serial communication link",
  P0601: "Module memory checksum",
  P0606: "Module processor",
  P0615: "Starter relay circuit",
  P0627: "Fuel pump control circuit open",
  P0640: "Intake heater control circuit",
  P0641: "Sensor reference A circuit open",
  P0642: "Sensor reference A circuit low",
  P0643: "Sensor reference A circuit high",
  P0651: "Sensor reference B circuit open",
  P0652: "Sensor reference B circuit low",
  P0653: "Sensor reference B circuit high",
  P0697: "Sensor reference C circuit open",
  P0698: "Sensor reference C circuit low",
  P0699: "Sensor reference C circuit high",
  P0685: "Module power relay control circuit open",
  P0686: "Module power relay control circuit low",
  P0687: "Module power relay control circuit high",
  P0690: "Module power relay sense circuit high",
  P0700: "Transmission control asks for the lamp",
  P2122: "Pedal position D circuit low",
  P2123: "Pedal position D circuit high",
  P2127: "Pedal position E circuit low",
  P2128: "Pedal position E circuit high",
  P2135: "Pedal or throttle positions A and B disagree",
  P2138: "Pedal positions D and E disagree",
  U0001: "High-speed bus",
  U0073: "Bus A off",
  U0100: "Lost communication with engine module A",
  U0101: "Lost communication with transmission module",
  U0121: "Lost communication with brake module",
  U0140: "Lost communication with body module",
  U0155: "Lost communication with instrument cluster",
};

/** Text of a generic code, where it is known here. Codes of a maker (P1…, P3…) have none. */
export function genericTitle(code: string): string | undefined {
  const bare = /^([PCBU][0-3][0-9A-F]{3})/i.exec(code.trim())?.[1]?.toUpperCase();
  if (!bare) return undefined;
  if (SINGLE[bare]) return SINGLE[bare];
  for (let back = 0; back < RUN.length; back++) {
    const base =
      `${bare.slice(0, 1)}` + `${(parseInt(bare.slice(1), 16) - back).toString(16).toUpperCase().padStart(4, "0")}`;
    if (RUNS[base]) return `${RUNS[base]} ${RUN[back]}`;
  }
  return undefined;
}
/** Every generic code with a text here, for completion. */
export function genericCodes(): readonly { readonly code: string; readonly title: string }[] {
  const run = Object.keys(RUNS).flatMap((base) =>
    RUN.map((_, i) => `P${(parseInt(base.slice(1), 16) + i).toString(16).toUpperCase().padStart(4, "0")}`),
  );
  return [...new Set([...run, ...Object.keys(SINGLE)])].sort().map((code) => ({ code, title: genericTitle(code)! }));
}
