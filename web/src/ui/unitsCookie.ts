import { STORED_UNITS, Units } from "@radicula/core";

/** The cookie that holds the units of a person, or of a device where nobody signs in. */
export const unitsCookie = (person: string | undefined): string =>
  person ? `radicula-units-${person}` : "radicula-units";

/** What the cookie says; the units of storage where it says nothing that is understood. */
export function readUnits(text: string | undefined): Units {
  if (!text) return STORED_UNITS;
  try {
    const read = Units.safeParse(JSON.parse(decodeURIComponent(text)));
    return read.success ? read.data : STORED_UNITS;
  } catch {
    return STORED_UNITS;
  }
}
