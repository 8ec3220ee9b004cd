export const meter = {
  "meter.ohmsLeadsTouchedTogether": "Ohms, leads touched together",
  "meter.ohmsAFewTenths": "ohms: a few tenths",
  "meter.dcVoltsAcrossTheBatteryRed": "DC volts across the battery, red to positive",
  "meter.dcVoltsFromBatteryNegativeTo": "DC volts from battery negative to where the black lead will stand",
  "meter.voltsUnder01": "volts: under 0.1",
  "meter.checkTheMeter": "Check the meter",
  "meter.meterOnDcNotAcThe": "Meter on DC, not AC; the prefix read with the number.",
  "meter.logTheCheck": "Log the check",
  "meter.volts": "volts",
} as const;
