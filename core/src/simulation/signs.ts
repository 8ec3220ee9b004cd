import type { FaultAt } from "../instruments/machineState.js";

/** What a look at a thing would find, for a machine without eyes to see it. */
const ANY_SIGN = ["wet", "rubbed", "previousRepair", "oily"] as const;
export function signOf(
  faults: readonly FaultAt["fault"][],
  thing: string,
  random: () => number,
): "green" | "rubbed" | "pushedBack" | "halfClipped" | "burnt" | "oily" | "wet" | "previousRepair" {
  const here = faults.find((f) => f.place.id === thing || f.place.id.startsWith(`${thing}:`) || f.at === thing);
  if (!here) return ANY_SIGN[Math.floor(random() * ANY_SIGN.length)]!;
  switch (here.mode) {
    case "contactOpen":
      return "pushedBack";
    case "unseated":
      return "halfClipped";
    case "contactFilm":
      return "oily";
    case "cavitiesBridged":
      return "wet";
    case "cavitiesSwapped":
      return "previousRepair";
    case "fuseBlown":
    case "fuseHighResistance":
    case "shortInside":
    case "shortSupplyGround":
      return "burnt";
    case "open":
    case "fewStrands":
    case "shortToChassis":
    case "shortToWire":
    case "shortToSupply":
      return "rubbed";
    default:
      return "green";
  }
}
