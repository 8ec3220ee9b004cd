import type { Translation } from "@radicula/core/words";
import type { meter as english } from "../en/meter";

export const meter: Translation<typeof english> = {
  "meter.ohmsLeadsTouchedTogether": "Ohm, Leitungen aneinander",
  "meter.ohmsAFewTenths": "Ohm: einige Zehntel",
  "meter.dcVoltsAcrossTheBatteryRed": "Volt DC über der Batterie, rot an plus",
  "meter.dcVoltsFromBatteryNegativeTo": "Volt DC von Batterie minus zu der Stelle der schwarzen Leitung",
  "meter.voltsUnder01": "Volt: unter 0,1",
  "meter.checkTheMeter": "Messgerät prüfen",
  "meter.meterOnDcNotAcThe": "Messgerät auf DC, nicht AC; die Vorsilbe mit der Zahl lesen.",
  "meter.logTheCheck": "Prüfung eintragen",
  "meter.volts": "Volt",
};
