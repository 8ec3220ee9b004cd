import { type Candidate, type Wiring, connectorOf } from "@radicula/core";
import type { Prefilled } from "@/features/calculators/Calculators";

/** The sum a step may need, with what the wiring says already filled in. */
export function sumFor(wiring: Wiring, c: Candidate): Prefilled {
  const connector = connectorOf(c.at || c.points[0] || "");
  const device = wiring.devices.find(
    (d) =>
      d.id === connector ||
      ("pins" in d &&
        !Array.isArray(d.pins) &&
        Object.values(d.pins).some((p) => typeof p === "string" && p.startsWith(`${connector}:`))),
  );
  const volt = wiring.nominalVolt === 24 ? 25.2 : 12.6;
  if (c.instrument === "lamp") return { id: "lamp", values: { watt: c.state.loads?.[0]?.watt ?? 5, volt } };
  if (device?.kind === "fuse") return { id: "fuse", values: { rating: device.rating } };
  if (c.kind === "drop") {
    const wire = wiring.wires.find(
      (w) => [c.points[0], c.black].includes(w.from) && [c.points[0], c.black].includes(w.to),
    );
    return {
      id: "wire",
      values: { ...(wire?.mm2 ? { mm2: wire.mm2 } : {}), ...(wire?.lengthM ? { length: wire.lengthM } : {}) },
    };
  }
  switch (device?.kind) {
    case "thermistor":
      return {
        id: "thermistor",
        values: {
          ...(device.ohm25 ? { ohm25: device.ohm25 } : {}),
          ...(device.betaKelvin ? { beta: device.betaKelvin } : {}),
        },
      };
    case "threeWireSensor":
    case "potentiometer":
      return { id: "pressure", values: {} };
    case "heater":
      return { id: "heaters", values: { volt, ...(device.ohm ? { ohm1: device.ohm, ohm2: device.ohm } : {}) } };
    case "solenoid":
      return { id: "duty", values: { volt, ...(device.ohm ? { ohm: device.ohm } : {}) } };
    case "lamp":
      return { id: "lamp", values: { volt, ...(device.watt ? { watt: device.watt } : {}) } };
    default:
      return { id: c.instrument === "ohmmeter" ? "wire" : "divider", values: {} };
  }
}
